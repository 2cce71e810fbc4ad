/** One field, Enter, next; the kind by one key. Or paste rows from a spreadsheet. */
import { type KeyboardEvent, useRef, useState } from "react";
import { ApiError, http, unwrap } from "../../api/client";
import type { ReadingKind, ReadingsTable } from "../../api/types";
import { useKept } from "../../job/drafts";
import { useDesk, useUnits } from "../../job/JobContext";
import { KIND_WORDS } from "../../roof/names";
import { FileButton } from "../../ui/FileButton";
import { length } from "../../ui/format";
import { RadioRow } from "../../ui/RadioRow";

const KEYS: readonly (readonly [string, ReadingKind])[] = [
  ["m", "magnet"],
  ["e", "seen"],
  ["r", "rivet_row"],
  ["f", "stud_finder"],
  ["k", "knock"],
  ["s", "pilot_solid"],
  ["t", "pilot_through"],
];

export function ReadingEntry() {
  const { id, handle } = useDesk();
  const [typed, setTyped] = useKept<{ kind: ReadingKind; text: string }>(id, "reading", { kind: "magnet", text: "" });
  const { kind, text } = typed;
  const setKind = (chosen: ReadingKind) => setTyped({ ...typed, kind: chosen });
  const setText = (words: string) => setTyped({ ...typed, text: words });
  const [problem, setProblem] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const box = useRef<HTMLInputElement>(null);

  const take = async () => {
    if (!text.trim()) return;
    try {
      await handle.edit([{ op: "add", path: "readings", value: { x: text, kind } }]);
      setText("");
      setProblem(null);
    } catch (failure) {
      setProblem(failure instanceof ApiError ? failure.message : "Not saved.");
    }
    box.current?.focus();
  };

  const keys = (event: KeyboardEvent) => {
    if (event.key === "Enter") void take();
    const chosen = KEYS.find(([key]) => key === event.key.toLowerCase());
    // a kind's key works while the box is empty: units such as "mm" or "ft" can still be typed behind a number
    if (chosen && text === "" && !event.ctrlKey && !event.metaKey) {
      setKind(chosen[1]);
      event.preventDefault();
    }
  };

  return (
    <div className="pb-2">
      <RadioRow
        label="Kind of reading"
        className="flex flex-wrap gap-1 pb-1.5"
        value={kind}
        options={KEYS.map(([key, name]) => [name, KIND_WORDS[name], key] as const)}
        choose={setKind}
        optionClass="!h-7 !px-2"
      />
      <div className="flex gap-2">
        <input
          ref={box}
          className="box !h-9 text-[17px]"
          aria-label="Position of the reading, then Enter"
          data-path="readings"
          placeholder={`${KIND_WORDS[kind]} at …  then Enter`}
          value={text}
          aria-invalid={problem ? "true" : undefined}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={keys}
        />
        <button type="button" className="act !h-9" onClick={() => void take()}>
          Add
        </button>
        <button type="button" className="act !h-9" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste, CSV
        </button>
      </div>
      {problem && <p className="text-signal font-semibold text-[13px] pt-1">{problem}</p>}
      {pasting && <PasteBox close={() => setPasting(false)} />}
    </div>
  );
}

function PasteBox({ close }: { close: () => void }) {
  const { handle } = useDesk();
  const units = useUnits();
  const [text, setText] = useState("");
  const [table, setTable] = useState<ReadingsTable | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const understand = async (typed: string) => {
    setText(typed);
    setTable(null);
    setProblem(null);
    if (!typed.trim()) return;
    try {
      setTable(await unwrap(http.POST("/api/calc/readings.parse", { body: { text: typed, units } })));
    } catch (failure) {
      setProblem(failure instanceof Error ? failure.message : "Not readable.");
    }
  };
  const take = async () => {
    if (!table?.understood.length) return;
    try {
      await handle.edit(
        table.understood.map((row) => ({
          op: "add",
          path: "readings",
          value: { x: row.position, kind: row.kind, ...(row.uncertainty ? { sigma: row.uncertainty } : {}) },
        })),
      );
      close();
    } catch (failure) {
      setProblem(failure instanceof Error ? failure.message : "Not saved.");
    }
  };

  return (
    <div className="mt-2 p-2 bg-paper border border-hair">
      <label className="label">
        Rows of position, kind, uncertainty
        <textarea
          className="box !h-20 font-sans text-ink"
          value={text}
          placeholder={"968 mm; magnet\n1620 mm; rivet row"}
          onChange={(event) => void understand(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap items-center gap-2 pt-1">
        <FileButton
          label="Load a CSV file"
          accept=".csv,.tsv,.txt,text/csv"
          most={1_000_000}
          tooLarge="The file is over 1 MB. Load only the readings."
          take={understand}
          refuse={setProblem}
        />
        <button type="button" className="act" disabled={!table?.understood.length} onClick={() => void take()}>
          Take {table?.understood.length ?? 0} readings
        </button>
        <button type="button" className="act plain" onClick={close}>
          Close
        </button>
      </div>
      {problem && (
        <p role="alert" className="text-signal font-semibold text-[13px] pt-1">
          {problem}
        </p>
      )}
      {table?.refused.map((row) => (
        <p key={row.line} className="text-[13px] pt-0.5">
          <span className="text-signal font-semibold">Line {row.line} left out:</span> {row.text}. {row.problem}{" "}
          {row.remedy}
        </p>
      ))}
      {table && table.understood.length > 0 && (
        <p className="text-[13px] text-soft pt-1">
          Understood:{" "}
          {table.understood
            .slice(0, 6)
            .map((row) => `${length(row.x_mm, units)} ${KIND_WORDS[row.kind]}`)
            .join(", ")}
          {table.understood.length > 6 ? " …" : ""}
        </p>
      )}
    </div>
  );
}
