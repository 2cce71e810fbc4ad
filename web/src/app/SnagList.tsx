/** What is wrong, doubtful or forgotten. A snag leads to the thing itself; a caution is dismissed only with a reason. */
import { useState } from "react";
import type { Snag } from "../api/types";
import { useJobView } from "./JobContext";
import { stationOf } from "./stations";

export function SnagList() {
  const { evaluation } = useJobView();
  const snags = evaluation.snags;
  const stops = snags.filter((s) => s.severity === "stop").length;
  return (
    <section aria-label="Snags" className="h-full flex flex-col min-h-0">
      <h2 className="text-[18px] border-b-2 border-ink flex items-baseline gap-2 shrink-0">
        Snags
        <span className={`text-[14px] ${stops ? "text-signal" : "text-soft"}`}>
          {stops ? `${stops} stop: do not drill` : snags.length ? "no stop" : ""}
        </span>
      </h2>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard */}
      <ul className="overflow-y-auto min-h-0 flex-1" tabIndex={0} aria-label="List of snags">
        {snags.map((snag) => (
          <SnagRow key={`${snag.id} ${snag.place} ${snag.why}`} snag={snag} />
        ))}
        {!snags.length && <li className="py-2">Nothing found. Keep checking as the plan grows.</li>}
      </ul>
    </section>
  );
}

function SnagRow({ snag }: { snag: Snag }) {
  const { go, handle } = useJobView();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const dismiss = () => {
    if (reason.trim().length < 3) return;
    handle.change([
      { op: "add", path: "dismissals", value: { snag: snag.id, place: snag.place, reason: reason.trim() } },
    ]);
    setAsking(false);
  };
  const faded = snag.dismissed !== null && snag.dismissed !== undefined;
  return (
    <li
      className={`border-b border-hair py-1.5 pr-1 pl-2 border-l-4 ${snag.severity === "stop" ? "border-l-signal" : snag.severity === "caution" && !faded ? "border-l-ink" : "border-l-transparent"}`}
    >
      <button
        type="button"
        className="text-left w-full group"
        onClick={() => go(stationOf(snag.place, snag.station), snag.place)}
        title={`Source: ${snag.source}`}
      >
        <span className="font-sign font-semibold text-[15px] group-hover:underline">
          <span className={snag.severity === "stop" ? "text-signal uppercase" : "text-soft"}>{snag.severity}</span>{" "}
          {snag.title}
        </span>
        <span className="block leading-snug text-[13px]">
          <span className="font-semibold">{snag.where}.</span> {snag.why}
        </span>
        <span className="block leading-snug text-[13px] text-chalk font-semibold">{snag.remedy}</span>
        <span className="block leading-snug text-[11.5px] text-soft">{snag.source}</span>
      </button>
      {faded && <p className="text-[13px]">Dismissed: {snag.dismissed}</p>}
      {snag.severity !== "stop" && !faded && !asking && (
        <button type="button" className="text-[12.5px] underline text-soft" onClick={() => setAsking(true)}>
          Dismiss with a reason
        </button>
      )}
      {asking && (
        <form
          className="flex gap-1 pt-1"
          onSubmit={(event) => {
            event.preventDefault();
            dismiss();
          }}
        >
          <input
            className="box"
            aria-label="Reason"
            placeholder="reason, kept in the job"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <button type="submit" className="act" disabled={reason.trim().length < 3}>
            Dismiss
          </button>
        </form>
      )}
    </li>
  );
}
