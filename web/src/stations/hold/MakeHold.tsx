/** Make it hold: what would bring a panel over its speed, worked out before it is offered; one click does it. */
import { useState } from "react";
import type { HoldOffer } from "../../api/types";
import { Group, Tick } from "../../fields/Field";
import { useDesk, usePartOf, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { goesOn, startWork, stopWork, useRun } from "../../job/useSlow";
import { dearer, length, speed } from "../../ui/format";
import { useTry } from "../../ui/useTry";

const ONE_LOST = /^(one|carrier)-foot-lost/;
const HOLDING = /^(let-go|safe-speed|parked|panel-over|carrier)/;

export function MakeHold() {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const oneLost = useStoredJob().wish.one_lost;
  const trouble = usePartOf((shown) => shown.evaluation.snags).filter(
    (s) => s.station === "hold" && (s.severity === "stop" ? HOLDING : ONE_LOST).test(s.id),
  );
  const [run, setRun] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const answer = useRun(id, "hold", run);
  const running = goesOn(answer);
  const fresh = answer && answer.revision === revision ? answer.result : null;
  if (!trouble.length && !fresh?.panels.length) return null;
  const start = () => attempt(async () => setRun((await startWork(id, "hold")).id));
  return (
    <Group
      title="Make it hold"
      aside={
        <span className="flex items-center gap-2 text-[13px]" aria-live="polite">
          {running && answer?.doing}
          {running && (
            <button
              type="button"
              className="act !h-7"
              onClick={() => run && void attempt(() => stopWork(id, "hold", run))}
            >
              Enough
            </button>
          )}
          <button type="button" className="act !h-7" disabled={running} onClick={() => void start()}>
            {running ? "Trying …" : "What would hold?"}
          </button>
        </span>
      }
    >
      <div className="flex flex-wrap items-baseline gap-x-6">
        <Tick label="Also with a foot lost" path="wish.one_lost" value={oneLost} />
        {!fresh && !running && (
          <p className="text-[13px]">Tries fasteners, feet, rails and fairings, gentlest first.</p>
        )}
      </div>
      {problem}
      {fresh?.panels.map((panel) => (
        <div key={panel.panel} className="pb-1.5">
          <p className="font-semibold">{panel.name}</p>
          {panel.offers.length ? (
            <ul>
              {panel.offers.map((offer) => (
                <Offer key={offer.words} offer={offer} take={() => handle.change([...offer.edits])} />
              ))}
            </ul>
          ) : (
            <p>{panel.why}</p>
          )}
        </div>
      ))}
    </Group>
  );
}

function Offer({ offer, take }: { offer: HoldOffer; take: () => void }) {
  const units = useUnits();
  const { currency } = useStoredJob().workshop.costing;
  const holes =
    offer.holes > 0 ? `${offer.holes} more holes` : offer.holes < 0 ? `${-offer.holes} fewer holes` : "no new hole";
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-0.5 border-b border-hair py-1">
      <button type="button" className="act !h-7" aria-label={`Do it: ${offer.words}`} onClick={take}>
        Do it
      </button>
      <span className="min-w-[220px] flex-1">
        <span className="font-semibold">{offer.words}</span>
        {offer.fewest && <span className="text-[13px]">, fewest holes: proved</span>}
      </span>
      <span>
        safe <span className="font-sign font-semibold text-[17px]">{speed(offer.safe_m_s, units)}</span>
      </span>
      <span className="text-[13px]">
        one lost: {offer.lost_let_go_m_s > 0 ? `lets go ${speed(offer.lost_let_go_m_s, units)}` : "tips off"}
      </span>
      <span className="text-[13px]">parked {speed(offer.parked_safe_m_s, units)}</span>
      <span className="text-[13px]">
        {holes}, {offer.feet} feet, {offer.hours.toFixed(1)} h, {length(offer.height_mm, units)} high
        {typeof offer.dearer === "number" && `, ${dearer(offer.dearer, currency)}`}
      </span>
    </li>
  );
}
