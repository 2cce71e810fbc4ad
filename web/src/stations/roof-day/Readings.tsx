/** What is read in a step and written down: instruments fill the box that is in hand, typing always works. */
import { useRef, useState } from "react";
import type { Findings, WorkStep } from "../../api/types";
import { instrumentOf } from "../../fields/instruments";
import { useDesk, useStoredJob } from "../../job/JobContext";
import type { JobLog } from "../../job/useLog";
import { useTry } from "../../ui/useTry";
import { shrunk } from "../log/photograph";
import { readingEdits } from "./asBuilt";

type ReadAt = Findings["in_hand"][number]["read"][number];
const WORDS: Record<Exclude<ReadAt, "position" | "pilot hole" | "photograph">, [string, string]> = {
  torque: ["Torque", "8 N·m"],
  "skin temperature": ["Roof", "18 °C"],
  humidity: ["Moisture of the air", "55 %"],
  batch: ["Batch, and when opened", "lot 24, today"],
  volts: ["Meter", "38.2 V"],
};

export function Readings({ read, step, log }: { read: readonly ReadAt[]; step: WorkStep; log: JobLog }) {
  const place = step.title;
  return (
    <div className="grid gap-2 pt-3">
      {read.map((what) =>
        what === "photograph" ? (
          <Photograph key={what} place={place} log={log} />
        ) : what === "position" || what === "pilot hole" ? null : (
          <Reading key={what} what={what} step={step} log={log} />
        ),
      )}
    </div>
  );
}

function Reading({ what, step, log }: { what: keyof typeof WORDS; step: WorkStep; log: JobLog }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const [text, setText] = useState("");
  const [kept, setKept] = useState("");
  const box = useRef<HTMLInputElement>(null);
  const [label, hint] = WORDS[what];
  const put = () => {
    const value = text.trim().slice(0, 60);
    if (!value) return;
    const by = instrumentOf(box.current);
    log.write({ kind: "measured", what, value, place: step.title, by });
    const edits = readingEdits(job, step.kind, what, value);
    if (edits.length) handle.change(edits);
    setKept(by ? `${value} by ${by}` : value);
    setText("");
  };
  return (
    <form
      className="grid grid-cols-[minmax(0,1fr)_88px] gap-2 items-end"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <label>
        <span className="label">
          {label}
          {kept && <b className="text-ink"> — {kept} written down</b>}
        </span>
        <input
          ref={box}
          className="box !h-[52px] !text-[22px]"
          value={text}
          placeholder={hint}
          maxLength={60}
          autoComplete="off"
          data-reads={what}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" className="thumb !min-h-[52px] !text-[18px]">
        Keep
      </button>
    </form>
  );
}

/** Shrunk in the page, kept here until the server has it; it never leaves the workshop. */
function Photograph({ place, log }: { place: string; log: JobLog }) {
  const [attempt, problem] = useTry();
  const [taken, setTaken] = useState(0);
  return (
    <>
      <label className="thumb !min-h-[52px] !text-[18px] grid place-items-center cursor-pointer">
        {taken ? `Another photograph (${taken} kept)` : "Photograph"}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file)
              void attempt(async () => {
                await log.photograph(await shrunk(file), { text: "", place });
                setTaken((before) => before + 1);
              });
          }}
        />
      </label>
      {problem}
    </>
  );
}
