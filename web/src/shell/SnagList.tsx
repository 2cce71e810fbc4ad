/**
 * What is wrong, doubtful or forgotten: one row a rule with its places as links, this station's first, the others folded.
 * A stop offers the least changes that clear it, tried out by the core; a caution is dismissed only with a reason.
 */
import { useState } from "react";
import type { Remedy, Snag, StationName } from "../api/types";
import { fillRow } from "../job/drafts";
import { useDesk, usePartOf, useRevision } from "../job/JobContext";
import { counted, countWords, grouped, type SnagGroup } from "../job/snagGroups";
import { useLookedAt } from "../job/useSlow";
import { STATIONS, stationOf } from "../stations";

const SHOWN = 3;

export function SnagList({ station }: { station: StationName }) {
  const snags = usePartOf((shown) => shown.evaluation.snags);
  const groups = grouped(snags);
  const { stop } = counted(groups);
  const own = groups.filter((g) => g.station === station);
  const others = STATIONS.map((s) => ({ ...s, groups: groups.filter((g) => g.station === s.name) })).filter(
    (s) => s.name !== station && s.groups.length,
  );
  const remedies = useRemedies(stop > 0);
  return (
    <section aria-label="Snags" className="h-full flex flex-col min-h-0">
      <h2 className="text-[18px] border-b-2 border-ink flex items-baseline gap-2 shrink-0">
        Snags
        <span className={`text-[14px] ${stop ? "text-signal" : "text-soft"}`} data-figure="stops">
          {stop ? `${stop} stop${stop > 1 ? "s" : ""}: do not drill` : groups.length ? "no stop" : ""}
        </span>
      </h2>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard */}
      <div className="overflow-y-auto min-h-0 flex-1" tabIndex={0} role="group" aria-label="List of snags">
        <ul>
          {own.map((group) => (
            <SnagRow key={group.id} group={group} remedies={remedies} />
          ))}
        </ul>
        {!own.length && <p className="py-2 text-soft">Nothing stands against this station.</p>}
        {others.map((other) => (
          <Folded key={other.name} title={other.title} groups={other.groups} remedies={remedies} />
        ))}
      </div>
    </section>
  );
}

/** The remedies of the stored job; while something is dragged the old ones rest. */
function useRemedies(wanted: boolean): readonly Remedy[] {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const previewing = usePartOf((shown) => shown.previewing !== null);
  const found = useLookedAt(id, "remedies", revision, wanted && !previewing && !handle.saving);
  return found.isPlaceholderData ? [] : (found.data?.result ?? []);
}

function Folded({
  title,
  groups,
  remedies,
}: {
  title: string;
  groups: readonly SnagGroup[];
  remedies: readonly Remedy[];
}) {
  const counts = counted(groups);
  const dismissed = groups.reduce((n, g) => n + g.dismissed.length, 0);
  return (
    <details className="border-b border-hair">
      <summary className="py-1 min-h-6 cursor-pointer font-sign font-semibold text-[15px]">
        {title}{" "}
        <span className={`text-[13.5px] ${counts.stop ? "text-signal" : "text-soft"}`}>
          {countWords(counts) || `${dismissed} dismissed`}
        </span>
      </summary>
      <ul>
        {groups.map((group) => (
          <SnagRow key={group.id} group={group} remedies={remedies} />
        ))}
      </ul>
    </details>
  );
}

function SnagRow({ group, remedies }: { group: SnagGroup; remedies: readonly Remedy[] }) {
  const [all, setAll] = useState(false);
  const shown = all ? group.open : group.open.slice(0, SHOWN);
  const sameRemedy = group.open.every((s) => s.remedy === group.open[0]?.remedy);
  const bad = group.severity === "stop";
  const faded = !group.open.length;
  return (
    <li
      data-snag={group.id}
      className={`border-b border-hair py-1.5 pr-1 pl-2 border-l-4 ${bad ? "border-l-signal" : group.severity === "caution" && !faded ? "border-l-ink" : "border-l-transparent"}`}
    >
      <p className="font-sign font-semibold text-[15px]" title={`Source: ${group.source}`}>
        <span className={bad ? "text-signal uppercase" : "text-soft"}>{group.severity}</span> {group.title}
        {group.open.length > 1 && <span className="text-soft"> · {group.open.length} places</span>}
      </p>
      {shown.map((snag, index) => (
        <Place
          // biome-ignore lint/suspicious/noArrayIndexKey: two places of a rule may have the same path and words
          key={`${snag.place} ${index}`}
          snag={snag}
          remedy={!sameRemedy}
          offers={remedies.filter((r) => r.snag === snag.id && r.place === snag.place)}
        />
      ))}
      {group.open.length > SHOWN && (
        <button type="button" className="underline text-[13px]" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "fewer" : `${group.open.length - SHOWN} more`}
        </button>
      )}
      {sameRemedy && group.open[0] && (
        <p className="leading-snug text-[13px] text-chalk font-semibold">{group.open[0].remedy}</p>
      )}
      {group.dismissed.map((snag, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two places of a rule may have the same path and words
        <p key={`${snag.place} ${index}`} className="text-[13px] text-soft">
          {snag.where}: dismissed, {snag.dismissed}
        </p>
      ))}
      {!bad && !faded && <Dismiss snags={group.open} />}
    </li>
  );
}

function Place({ snag, remedy, offers }: { snag: Snag; remedy: boolean; offers: readonly Remedy[] }) {
  const { go } = useDesk();
  return (
    <div>
      <button
        type="button"
        className="text-left w-full group leading-snug text-[13px] min-h-6"
        onClick={() => go(stationOf(snag.place, snag.station), snag.place)}
      >
        <span className="font-semibold underline decoration-1 underline-offset-2">{snag.where}</span>. {snag.why}
        {remedy && <span className="block text-chalk font-semibold">{snag.remedy}</span>}
      </button>
      {offers.length > 0 && (
        <p className="flex flex-wrap gap-1 pb-1">
          {offers.map((offer) => (
            <Offer key={offer.words} offer={offer} />
          ))}
        </p>
      )}
    </div>
  );
}

function Offer({ offer }: { offer: Remedy }) {
  const { id, handle, go } = useDesk();
  const act = () => {
    if (offer.edits.length) {
      handle.change([...offer.edits]);
      return;
    }
    const filled = Object.fromEntries(offer.fill.map((f) => [f.field, f.text]));
    if (offer.go === "readings") fillRow(id, "reading", { kind: filled.kind, text: filled.x });
    go(stationOf(offer.go, "structure"), offer.go);
  };
  return (
    <button
      type="button"
      className="act !h-auto min-h-[26px] !whitespace-normal text-left !px-2 !text-[13.5px]"
      onClick={act}
    >
      {offer.words}
    </button>
  );
}

function Dismiss({ snags }: { snags: readonly Snag[] }) {
  const { handle } = useDesk();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const dismiss = () => {
    if (reason.trim().length < 3) return;
    handle.change(
      snags.map((snag) => ({
        op: "add" as const,
        path: "dismissals",
        value: { snag: snag.id, place: snag.place, reason: reason.trim() },
      })),
    );
    setAsking(false);
  };
  if (!asking)
    return (
      <button type="button" className="text-[12.5px] underline text-soft" onClick={() => setAsking(true)}>
        Dismiss with a reason
      </button>
    );
  return (
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
  );
}
