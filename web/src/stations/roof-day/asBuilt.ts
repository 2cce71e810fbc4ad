/** Records of what was really built, as edits of the job. Pure: what follows from them the core says. */
import type { Edit, FootPlace, Job, Mark, WorkStep } from "../../api/types";

export type Record = Job["built"]["feet"][number];
export type Pilot = "solid" | "through";

export const recordOf = (feet: readonly Record[], holder: string, foot: string): Record | undefined =>
  feet.find((r) => r.holder === holder && r.foot === foot);

/** A new record of a foot, measured at one of its marks; nothing is said yet but where both were planned. */
export function newRecord(id: string, mark: Mark, place: FootPlace): Record {
  return {
    id,
    holder: mark.panel,
    foot: mark.foot,
    foot_x: { mm: place.x_mm },
    foot_y: { mm: place.y_mm },
    mark_x: { mm: mark.x_mm },
    mark_y: { mm: mark.y_mm },
    x: null,
    y: null,
    pilot: null,
    solved: null,
  };
}

/** One field of a foot's record: set where there is one, in a new record where there is none. */
export function recorded(
  record: Record | undefined,
  fresh: () => Record,
  field: "x" | "y" | "pilot",
  value: string | null,
): Edit[] {
  if (record) return [{ op: "set", path: `built.feet.${record.id}.${field}`, value }];
  return [{ op: "add", path: "built.feet", value: { ...fresh(), [field]: value } }];
}

/** What a pilot hole met goes into the member finder like any other reading. */
export function pilotReading(job: Job, recordId: string, atMm: number, pilot: Pilot): Edit {
  const id = `${recordId}p`;
  const kind = pilot === "solid" ? "pilot_solid" : "pilot_through";
  return job.readings.some((r) => r.id === id)
    ? { op: "set", path: `readings.${id}.kind`, value: kind }
    : { op: "add", path: "readings", value: { id, x: { mm: atMm }, kind } };
}

/** The tape is read from the centre line; the side is the mark's own. */
export const fromCentre = (text: string, mark: Pick<Mark, "y_mm">): string =>
  mark.y_mm < 0 && text.trim() && !text.trim().startsWith("-") ? `-${text.trim()}` : text.trim();

/** What is ticked off of a mark: its foot and its place in it, which stay when marks are numbered anew. */
export const tickItem = (mark: Mark, ofFoot: readonly Mark[]): string =>
  `${mark.panel}.${mark.foot}.${ofFoot.indexOf(mark) + 1}`;

/** Readings the job itself asks for: how warm the roof is under tape, how warm and damp it is when sealant goes on. */
export function readingEdits(job: Job, kind: WorkStep["kind"], what: string, value: string): Edit[] {
  const number = value.replace(/\s*%$/, "");
  if (kind === "seal" || kind === "lay") {
    if (what === "skin temperature") return [{ op: "set", path: "seal.temperature", value }];
    if (what === "humidity") return [{ op: "set", path: "seal.humidity", value: number }];
  }
  if (what !== "skin temperature" || (kind !== "stick" && kind !== "prime")) return [];
  return job.panels
    .filter((p) => !p.carrier && p.hold.school === "tape")
    .map((p) => ({ op: "set", path: `panels.${p.id}.hold.temperature`, value }));
}
