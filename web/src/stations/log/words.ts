/** Entries of the record as sentences. */
import type { LogEntry } from "../../api/types";

export type MeasuredWhat = Extract<LogEntry, { kind: "measured" }>["what"];

export const MEASURED: readonly (readonly [MeasuredWhat, string])[] = [
  ["torque", "a torque"],
  ["skin temperature", "the roof's temperature"],
  ["humidity", "the moisture"],
  ["position", "where it really is"],
  ["pilot hole", "a pilot hole"],
  ["batch", "a batch, and when it was opened"],
  ["volts", "volts"],
  ["other", "something else"],
];

export function entryWords(entry: LogEntry): string {
  const at = "place" in entry && entry.place ? `${entry.place}: ` : "";
  switch (entry.kind) {
    case "step":
      return entry.done === false ? `Not done after all: ${entry.step}` : `Done: ${entry.step}`;
    case "tick":
      return `${entry.done === false ? "Not done after all" : "Ticked"}: ${entry.step}, ${entry.item}`;
    case "timer":
      return `Clock started: ${entry.step}, ${entry.name}, ${entry.minutes} min`;
    case "timer off":
      return `Clock ended: ${entry.step}, ${entry.name}`;
    case "remark":
      return `${at}${entry.text}`;
    case "correction":
      return `Corrects ${entry.corrects}: ${entry.text}`;
    case "measured":
      return `${at}${entry.what} ${entry.value}`;
    case "photograph":
      return `${at}${entry.text || "Photograph"}`;
  }
}

export const FOUND = [
  ["sound", "all sound"],
  ["loose foot", "a loose foot"],
  ["torque fell", "a torque that fell"],
  ["lifted edge", "a lifted edge"],
  ["leak", "a leak"],
] as const;

/** The day here, as the job keeps days. */
export function today(): string {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, "0")}-${String(now.getDate()).padStart(2, "0")}`;
}
