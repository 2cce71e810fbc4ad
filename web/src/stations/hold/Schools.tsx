/** Schools side by side: this layout held in every way there is, each made to hold; one is chosen with a reason. */
import { useState } from "react";
import type { SchoolLine, Units } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { goesOn, startWork, stopWork, useRun } from "../../job/useSlow";
import { length, mass, seenInTheStreet, speed } from "../../ui/format";
import { useTry } from "../../ui/useTry";

export function Schools() {
  const { id } = useDesk();
  const job = useStoredJob();
  const revision = useRevision();
  const [run, setRun] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const answer = useRun(id, "schools", run);
  const running = goesOn(answer);
  const fresh = answer && answer.revision === revision ? answer.result : null;
  const decided = job.decisions.filter((d) => d.about === "hold").at(-1);
  return (
    <Group
      title="Ways to hold, side by side"
      aside={
        <span className="flex items-center gap-2 text-[13px]" aria-live="polite">
          {running && answer?.doing}
          {running && (
            <button
              type="button"
              className="act !h-7"
              onClick={() => run && void attempt(() => stopWork(id, "schools", run))}
            >
              Enough
            </button>
          )}
          <button
            type="button"
            className="act !h-7"
            disabled={running}
            onClick={() => void attempt(async () => setRun((await startWork(id, "schools")).id))}
          >
            {running ? "Working …" : "Work them out"}
          </button>
        </span>
      }
    >
      {problem}
      {answer?.problem && (
        <p role="alert" className="text-signal font-semibold">
          {answer.problem.message} {answer.problem.remedy}
        </p>
      )}
      {decided && (
        <p className="text-[13px]">
          Decided: <span className="font-semibold">{decided.name}</span>, {decided.reason}
        </p>
      )}
      {fresh && <Table lines={fresh} growing={running} />}
    </Group>
  );
}

const maybeSpeed = (mPerS: number | null | undefined, units: Units) =>
  mPerS === null || mPerS === undefined ? "not known" : mPerS > 0 ? speed(mPerS, units) : "tips off";

const spending = (spends: SchoolLine["spends"]) =>
  spends
    ? `${spends.material.toFixed(2)} ${spends.currency}${spends.unpriced ? `, ${spends.unpriced} lines unpriced` : ""}`
    : "no prices yet";

const ROWS: readonly { label: string; of: (line: SchoolLine, units: Units) => string }[] = [
  { label: "lets go", of: (s, units) => maybeSpeed(s.let_go_m_s, units) },
  { label: "one foot lost", of: (s, units) => maybeSpeed(s.lost_let_go_m_s, units) },
  { label: "parked, safe to", of: (s, units) => maybeSpeed(s.parked_safe_m_s, units) },
  { label: "new holes", of: (s) => String(s.holes) },
  { label: "feet", of: (s) => String(s.feet) },
  { label: "on the roof", of: (s, units) => `${mass(s.mass_kg, units)}, ${length(s.height_mm, units)} high` },
  { label: "seen in the street", of: (s, units) => seenInTheStreet(s.seen, units) },
  { label: "work, then wait", of: (s) => `${s.hours.toFixed(1)} h, ${s.wait_h.toFixed(0)} h` },
  { label: "material", of: (s) => spending(s.spends) },
  { label: "leaves behind", of: (s) => s.left_behind },
  { label: "to hold", of: (s) => s.changes.join("; ") || (s.stops.length ? "" : "as it is") },
];

/** Stops of a refused way that are named; the others are counted. */
const STOPS_SHOWN = 2;

/** While it grows its columns change places: nothing is chosen by a press that meant another. */
function Table({ lines, growing }: { lines: readonly SchoolLine[]; growing: boolean }) {
  const units = useUnits();
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Ways to hold, side by side">
      <table className="sheet-table table-fixed" style={{ minWidth: `${lines.length * 150 + 100}px` }}>
        <thead>
          <tr>
            <th className="w-24" />
            {lines.map((line) => (
              <th key={line.way} className="!text-ink !text-[16px] !font-semibold !whitespace-normal align-bottom">
                {line.title}
                {line.present && <span className="text-chalk"> now</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <td className="label align-top">safe</td>
            {lines.map((line) => (
              <td key={line.way} className="align-top">
                {line.stops.length ? (
                  <span className="text-signal leading-snug block">
                    <span className="font-sign font-semibold text-[20px] block leading-tight">Stop</span>
                    {line.stops.slice(0, STOPS_SHOWN).join("; ")}
                    {line.stops.length > STOPS_SHOWN && `; ${line.stops.length - STOPS_SHOWN} more`}
                  </span>
                ) : (
                  <span className="font-sign font-semibold text-[20px]">{maybeSpeed(line.safe_m_s, units)}</span>
                )}
              </td>
            ))}
          </tr>
          {ROWS.map((row) => (
            <tr key={row.label}>
              <td className="label align-top">{row.label}</td>
              {lines.map((line) => (
                <td key={line.way} className="align-top leading-snug">
                  {row.of(line, units)}
                </td>
              ))}
            </tr>
          ))}
          {!growing && (
            <tr>
              <td />
              {lines.map((line) => (
                <td key={line.way} className="align-top">
                  <Choose line={line} over={lines.filter((o) => o.way !== line.way).map((o) => o.title)} />
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

function Choose({ line, over }: { line: SchoolLine; over: readonly string[] }) {
  const { handle } = useDesk();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const choose = () => {
    const value = { about: "hold", chosen: line.way, name: line.title, reason: reason.trim(), over };
    handle.change([...line.edits, { op: "add", path: "decisions", value }]);
  };
  if (!asking)
    return (
      <button
        type="button"
        className="act !h-[27px] !px-2"
        aria-label={`Choose ${line.title}`}
        onClick={() => setAsking(true)}
      >
        Choose …
      </button>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) choose();
      }}
    >
      <label className="block text-[13px]">
        Why?
        <input
          // biome-ignore lint/a11y/noAutofocus: the box was just asked for
          autoFocus
          className="box w-full"
          maxLength={300}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <button type="submit" className="act !h-[27px] !px-2 mt-1" disabled={!reason.trim()}>
        Choose
      </button>
    </form>
  );
}
