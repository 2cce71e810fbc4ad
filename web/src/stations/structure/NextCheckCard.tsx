/** Check here next: where, how, and what each answer would mean; one press records the answer. */
import { useState } from "react";
import { ApiError } from "../../api/client";
import type { ReadingKind } from "../../api/types";
import { useDesk, useFinding } from "../../job/JobContext";
import { KIND_WORDS } from "../../roof/names";
import { percent } from "../../ui/format";

export function NextCheckCard() {
  const { handle } = useDesk();
  const next_check = useFinding("next_check");
  const check = next_check;
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  if (!check) return null;
  if (check.enough)
    return (
      <section aria-label="Check here next" className="border-l-4 border-ink pl-3 py-1 mb-3">
        <p className="font-semibold">{check.words}</p>
        <p className="text-soft">Wires, gas and water may run under the skin: look first, depth stop on the bit.</p>
      </section>
    );
  const pilot = check.kind === "pilot_solid";
  const nothing = () => {
    if (check.start_mm === null || check.start_mm === undefined || check.x_mm === null || check.x_mm === undefined)
      return;
    handle.change([
      pilot
        ? { op: "add", path: "readings", value: { x: { mm: Math.round(check.x_mm) }, kind: "pilot_through" } }
        : {
            op: "add",
            path: "scans",
            value: {
              start: { mm: Math.round(check.start_mm) },
              end: { mm: Math.round(check.end_mm ?? check.x_mm) },
              kind: check.kind,
            },
          },
    ]);
  };
  const found = async () => {
    if (!text.trim()) return setProblem("Type where it was found.");
    try {
      await handle.edit([{ op: "add", path: "readings", value: { x: text, kind: check.kind as ReadingKind } }]);
      setText("");
      setProblem(null);
    } catch (failure) {
      setProblem(failure instanceof ApiError ? failure.message : "Not saved.");
    }
  };
  return (
    <section aria-label="Check here next" className="border-l-4 border-tape bg-tape/20 pl-3 pr-2 py-1.5 mb-3">
      <p className="font-sign font-semibold text-[18px] leading-6">Check here next</p>
      <p className="font-semibold">{check.words}</p>
      {check.outcomes.length > 0 && (
        <ul>
          {check.outcomes.map((outcome) => (
            <li key={outcome.answer}>
              {outcome.answer === "hit" ? "Something there" : "Nothing there"} ({percent(outcome.chance)}):{" "}
              <span className="font-semibold">{outcome.means}</span>, weakest member {percent(outcome.weakest)}
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2 pt-1 items-center">
        <input
          className="box !w-36"
          aria-label="Found at"
          placeholder="found at …"
          value={text}
          aria-invalid={problem ? "true" : undefined}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && void found()}
        />
        <button type="button" className="act" onClick={() => void found()}>
          {pilot ? "Solid" : `Found, ${check.kind ? KIND_WORDS[check.kind] : ""}`}
        </button>
        <button type="button" className="act" onClick={nothing}>
          {pilot ? "Went through" : "Nothing there"}
        </button>
      </div>
      {problem && (
        <p role="alert" className="text-signal font-semibold text-[13px]">
          {problem}
        </p>
      )}
    </section>
  );
}
