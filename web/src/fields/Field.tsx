/** Input boxes bound to a path of the job. They save themselves; what is typed survives a crash as a draft. */
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { ApiError } from "../api/client";
import type { Edit } from "../api/types";
import { dropDraft, keepDraft, readDraft } from "../job/drafts";
import { useDesk, useUnits } from "../job/JobContext";
import { example, type Quantity, shown } from "../ui/format";
import { TradeWord, type Word } from "../ui/TradeWord";

const IDLE_MS = 900;

type FieldProps = {
  label: string;
  path: string;
  value: Quantity | string | number | null | undefined;
  placeholder?: string;
  hint?: string;
  clearable?: boolean;
  /** In a table the column says what the box is for; the label is then only read out. */
  bare?: boolean;
  /** Which instrument may fill it while it is in hand. */
  reads?: "torque" | "skin temperature" | "humidity" | "angle" | "volts";
  /** A word of the trade that a small drawing explains. */
  word?: Word;
};

function asText(value: FieldProps["value"], units: Parameters<typeof shown>[1]): string {
  if (value === null || value === undefined) return "";
  return typeof value === "object" ? shown(value, units) : String(value);
}

/** Where a box stands: as stored, being typed in, left unstored by an earlier visit, or refused by the core. */
type Standing = { kind: "stored" | "typing" } | { kind: "left"; on: string } | { kind: "refused"; why: string };

/** A text box for a quantity, a name or a number. Commits on Enter, on leaving, and after a pause. */
export function Field({
  label,
  path,
  value,
  placeholder,
  hint,
  clearable = false,
  bare = false,
  reads,
  word,
}: FieldProps) {
  const { id, handle } = useDesk();
  const units = useUnits();
  const stored = asText(value, units);
  const [left] = useState(() => readDraft(id, path));
  const [text, setText] = useState(left?.text ?? stored);
  const [standing, setStanding] = useState<Standing>(left ? { kind: "left", on: left.on } : { kind: "stored" });
  const sent = useRef<string | null>(null);
  const loud = useRef(false);
  const idle = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const boxId = useId();

  useEffect(() => {
    if (standing.kind === "stored") setText(stored);
  }, [stored, standing.kind]);
  useEffect(() => () => clearTimeout(idle.current), []);

  const asStored = () => {
    dropDraft(id, path);
    setStanding({ kind: "stored" });
    setText(stored);
  };

  const commit = async (typed: string, quiet: boolean) => {
    clearTimeout(idle.current);
    if (typed === stored || (typed.trim() === "" && !clearable)) {
      if (quiet) dropDraft(id, path);
      else asStored();
      return;
    }
    if (!quiet) loud.current = true;
    if (sent.current === typed) return;
    sent.current = typed;
    const cleared = typed.trim() === "";
    const edit: Edit = { op: "set", path, value: cleared ? null : typed };
    try {
      await handle.edit([edit]);
      dropDraft(id, path);
      setStanding({ kind: "stored" });
    } catch (failure) {
      if (loud.current)
        setStanding({ kind: "refused", why: failure instanceof ApiError ? failure.message : "Not saved." });
    } finally {
      sent.current = null;
      loud.current = false;
    }
  };

  const note = noteOf(standing, stored);
  const moved = standing.kind === "left" && standing.on !== stored;
  return (
    <div className="min-w-0">
      <span className={bare ? "" : "flex items-baseline gap-1"}>
        <label className={bare ? "sr-only" : "label block"} htmlFor={boxId}>
          {label}
        </label>
        {word && <TradeWord word={word} />}
      </span>
      <input
        id={boxId}
        className={`box ${note ? "!border-signal !border-dashed" : ""}`}
        value={text}
        placeholder={placeholder === undefined ? undefined : example(placeholder, units)}
        autoComplete="off"
        spellCheck={false}
        data-path={path}
        data-reads={reads}
        data-plain={reads === "humidity" ? "" : undefined}
        aria-invalid={note ? "true" : undefined}
        aria-describedby={note || hint ? `${boxId}-note` : undefined}
        onChange={(event) => {
          const typed = event.target.value;
          setStanding({ kind: "typing" });
          setText(typed);
          keepDraft(id, path, { text: typed, on: stored });
          clearTimeout(idle.current);
          idle.current = setTimeout(() => void commit(typed, true), IDLE_MS);
        }}
        onBlur={() => {
          if (standing.kind !== "stored" && !moved) void commit(text, false);
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") void commit(text, false);
          if (event.key === "Escape") asStored();
        }}
      />
      {(note || hint) && (
        <p
          id={`${boxId}-note`}
          role={note ? "alert" : undefined}
          className={`text-[12px] leading-tight pt-0.5 ${note ? "text-signal font-semibold" : "text-soft"}`}
        >
          {note ?? hint}
        </p>
      )}
    </div>
  );
}

/** What to say under a box whose text is not the job's; null where it is, or is still being typed. */
export function noteOf(standing: Standing, stored: string): string | null {
  const uses = stored ? `the job uses ${stored}` : "the job has none";
  if (standing.kind === "refused") return `${standing.why} Not stored: ${uses}; Enter tries again, Esc drops it.`;
  if (standing.kind !== "left") return null;
  return standing.on === stored
    ? `Not stored: ${uses}; Enter tries again, Esc drops it.`
    : `Typed when it was ${standing.on || "blank"}; now ${uses}. Enter stores yours, Esc drops it.`;
}

type ChoiceProps = {
  label: string;
  path: string;
  value: string | null | undefined;
  options: readonly (readonly [string, string])[];
  bare?: boolean;
  /** Where a choice is more than one field: what to do instead of setting ``path``. */
  onChange?: (value: string) => void;
};

/** A choice out of a few, kept in the job. */
export function Choice({ label, path, value, options, onChange, bare = false }: ChoiceProps) {
  const { handle } = useDesk();
  return (
    <Pick
      label={label}
      path={path}
      value={value ?? ""}
      options={value ? options : [["", "choose …"] as const, ...options]}
      bare={bare}
      onChange={onChange ?? ((chosen) => handle.change([{ op: "set", path, value: chosen }]))}
    />
  );
}

type PickProps = {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
  path?: string;
  bare?: boolean;
};

/** A native select: it works with gloves, on phones and by keyboard. */
export function Pick({ label, value, options, onChange, path, bare = false }: PickProps) {
  const boxId = useId();
  return (
    <div className="min-w-0">
      <label className={bare ? "sr-only" : "label block"} htmlFor={boxId}>
        {label}
      </label>
      <select
        id={boxId}
        className="box"
        data-path={path}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}

export function Tick({
  label,
  path,
  value,
  bare = false,
}: {
  label: string;
  path: string;
  value: boolean;
  bare?: boolean;
}) {
  const { handle } = useDesk();
  return (
    <label className="inline-flex items-center gap-2 h-[30px]">
      <input
        type="checkbox"
        className="size-4 accent-[var(--color-ink)]"
        data-path={path}
        checked={value}
        onChange={(event) => handle.change([{ op: "set", path, value: event.target.checked }])}
      />
      <span className={bare ? "sr-only" : "label"}>{label}</span>
    </label>
  );
}

export function Group({ title, children, aside }: { title: string; children: ReactNode; aside?: ReactNode }) {
  return (
    <section className="pb-3">
      <div className="flex items-baseline justify-between gap-3 border-b border-hair mb-1.5">
        <h2 className="text-[17px] leading-7 shrink-0">{title}</h2>
        {aside}
      </div>
      {children}
    </section>
  );
}
