/** The road with its stations: each a question with a state and the count of its snags. */
import type { StationState } from "../api/types";
import { useDesk, usePartOf } from "../job/JobContext";
import { STATIONS } from "../stations";

const STATE_WORDS: Record<StationState["state"], string> = {
  open: "open",
  "in doubt": "in doubt",
  answered: "answered",
  "not built": "not built yet",
};

export function Road({ current }: { current: string }) {
  const { go } = useDesk();
  const stations = usePartOf((shown) => shown.evaluation.stations);
  const states = new Map(stations.map((s) => [s.station, s]));
  return (
    <nav aria-label="Stations" className="bg-ink text-paper overflow-x-auto no-print">
      <ol className="flex min-w-max relative h-[42px]">
        <li
          aria-hidden="true"
          className="absolute left-0 right-0 bottom-[3px] h-0 border-b-2 border-dashed border-paper/35"
        />
        {STATIONS.map((info) => {
          const state = states.get(info.name);
          const here = info.name === current;
          const words = state ? STATE_WORDS[state.state] : "";
          const count = state?.stops || state?.cautions || 0;
          return (
            <li key={info.name} className="relative flex-1">
              <button
                type="button"
                onClick={() => go(info.name)}
                aria-current={here ? "page" : undefined}
                title={`${info.question} ${words}`}
                className={`h-full w-full px-2 flex items-center whitespace-nowrap gap-1.5 font-sign font-semibold text-[17px] justify-center focus-visible:outline-tape focus-visible:-outline-offset-3 ${here ? "bg-tape text-[#1d2225]" : "hover:bg-paper/15"} ${state?.state === "not built" && !here ? "text-paper/75" : ""}`}
              >
                <StationMark state={state?.state ?? "open"} />
                {info.title}
                {count > 0 && (
                  <span
                    className={`text-[13px] px-1 ${state?.stops ? "bg-[#a82c06] text-white" : "border border-current"}`}
                  >
                    {count}
                    <span className="sr-only">{state?.stops ? " to stop for" : " to look at"}</span>
                  </span>
                )}
                <span className="sr-only">, {words}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** Open ring: open. Half: in doubt. Full: answered. A dash: not built yet. */
function StationMark({ state }: { state: StationState["state"] }) {
  return (
    <svg width="13" height="13" viewBox="-6.5 -6.5 13 13" aria-hidden="true" className="shrink-0">
      {state === "not built" ? (
        <line x1={-4} x2={4} stroke="currentColor" strokeWidth={2} />
      ) : (
        <circle r={5} fill={state === "answered" ? "currentColor" : "none"} stroke="currentColor" strokeWidth={1.8} />
      )}
      {state === "in doubt" && <path d="M0 -5 A5 5 0 0 0 0 5 Z" fill="currentColor" />}
    </svg>
  );
}
