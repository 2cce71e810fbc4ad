/** The marks of one foot, in the unit that is on the tape: ticked off one by one, and recorded where they really are. */
import { useState } from "react";
import type { Mark, WorkStep } from "../../api/types";
import { useDesk, useFinding, usePartOf, useStoredJob, useUnits } from "../../job/JobContext";
import { type JobLog, tickKey } from "../../job/useLog";
import { length } from "../../ui/format";
import { recordOf, tickItem } from "./asBuilt";
import { ReallyThere } from "./ReallyThere";
import { footInHand, marksByFoot } from "./steps";

type Props = { step: WorkStep; marks: readonly Mark[]; records: boolean; log: JobLog };

export function MarksInHand({ step, marks, records, log }: Props) {
  const { handle, selection, select } = useDesk();
  const job = useStoredJob();
  const names = new Map([...job.panels, ...job.carriers].map((p) => [p.id, p.name]));
  const built = useFinding("as_built");
  const refusedFeet = usePartOf((shown) => shown.evaluation.spoken.refused_feet);
  const [open, setOpen] = useState<string | null>(null);
  const feet = marksByFoot(marks);
  const firstOpen = feet.findIndex((own) => own.some((m) => !log.ticked.has(tickKey(step.title, tickItem(m, own)))));
  const at = footInHand(feet, selection, Math.max(firstOpen, 0));
  const foot = feet[at];
  const first = foot?.[0];
  if (!foot || !first) return null;
  const key = `${first.panel}.${first.foot}`;
  const refused = refusedFeet.includes(key);
  const found = built.find((b) => b.holder === first.panel && b.foot === first.foot);
  const all = feet.flatMap((ofFoot) => ofFoot.map((mark) => tickKey(step.title, tickItem(mark, ofFoot))));
  const ticked = all.filter((one) => log.ticked.has(one)).length;
  const turn = (to: number) => {
    const next = feet[to]?.[0];
    if (next) select(`panels.${next.panel}.feet.${next.foot}`);
  };
  const footDone = () => {
    if (at < feet.length - 1) turn(at + 1);
  };
  return (
    <div className="mt-3 border-2 border-ink bg-paper">
      <div className="flex items-stretch border-b-2 border-ink">
        <button type="button" className="thumb !border-0 w-14" disabled={at === 0} onClick={() => turn(at - 1)}>
          <span aria-hidden="true">◀</span>
          <span className="sr-only">Foot before</span>
        </button>
        <p className="flex-1 text-center py-1 leading-tight">
          <span className="font-sign font-semibold text-[20px] block">
            {names.get(first.panel) ?? first.panel} {first.foot}
          </span>
          <span className="text-soft">
            foot {at + 1} of {feet.length}, {first.into}
          </span>
        </p>
        <button
          type="button"
          className="thumb !border-0 w-14"
          disabled={at === feet.length - 1}
          onClick={() => turn(at + 1)}
        >
          <span aria-hidden="true">▶</span>
          <span className="sr-only">Next foot</span>
        </button>
      </div>
      {refused && (
        <p className="bg-signal text-white font-sign font-semibold text-[20px] px-2 py-1">
          Refused by a stop: leave this foot alone.
        </p>
      )}
      <MarkRows step={step} foot={foot} log={log} footDone={footDone} />
      <HowTo mark={first} />
      <p className="px-2 pb-1 text-soft" aria-live="polite">
        {ticked} of {all.length} ticked
        {found && found.state !== "as planned" ? `; this foot is built ${found.words}` : ""}
      </p>
      {records && (
        <div className="border-t-2 border-ink">
          <button
            type="button"
            className="thumb !border-0 w-full !min-h-[52px] !text-[18px]"
            aria-expanded={open === key}
            onClick={() => setOpen(open === key ? null : key)}
          >
            {recordOf(job.built.feet, handle.waiting, { holder: first.panel, foot: first.foot })
              ? "What was found here"
              : "It is not as planned"}
          </button>
          {open === key && <ReallyThere key={key} mark={first} log={log} />}
        </div>
      )}
    </div>
  );
}

type RowsProps = { step: WorkStep; foot: readonly Mark[]; log: JobLog; footDone: () => void };

function MarkRows({ step, foot, log, footDone }: RowsProps) {
  const units = useUnits();
  const left = foot.filter((m) => !log.ticked.has(tickKey(step.title, tickItem(m, foot))));
  return (
    <table className="w-full text-[22px] tabular-nums">
      <thead>
        <tr className="text-[14px] text-soft font-sign">
          <th className="text-left pl-2 font-medium">mark</th>
          <th className="text-right font-medium">aft</th>
          <th className="text-right font-medium">from centre</th>
          <th className="font-medium">done</th>
        </tr>
      </thead>
      <tbody>
        {foot.map((mark) => {
          const item = tickItem(mark, foot);
          const done = log.ticked.has(tickKey(step.title, item));
          return (
            <tr key={mark.number} className="border-t border-hair">
              <td className="pl-2 py-1 font-sign font-semibold text-[26px]">{mark.number}</td>
              <td className="text-right font-semibold whitespace-nowrap">{length(mark.x_mm, units)}</td>
              <td className="text-right font-semibold whitespace-nowrap leading-tight">
                {length(Math.abs(mark.y_mm), units)}
                <span className="block text-[14px] font-normal text-soft">{sideOf(mark)}</span>
              </td>
              <td className="text-center">
                <label className="grid place-items-center min-h-[52px] min-w-[56px]">
                  <input
                    type="checkbox"
                    className="size-8 accent-[var(--color-ink)]"
                    checked={done}
                    aria-label={`Mark ${mark.number} is done`}
                    onChange={(event) => {
                      log.write({ kind: "tick", step: step.title, item, done: event.target.checked });
                      if (event.target.checked && left.length === 1 && left[0] === mark) footDone();
                    }}
                  />
                </label>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function sideOf(mark: Mark): string {
  return Math.abs(mark.y_mm) < 0.5 ? "on the centre line" : mark.y_mm < 0 ? "to port" : "to starboard";
}

function HowTo({ mark }: { mark: Mark }) {
  const units = useUnits();
  const pilot = mark.final_mm ? `Pilot ${mark.pilot_mm} mm, then ${mark.final_mm} mm` : `Drill ${mark.pilot_mm} mm`;
  const stop = length(mark.depth_stop_mm ?? 0, units);
  return (
    <p className="border-t-2 border-ink px-2 py-1 text-[17px]">
      {mark.kind === "pad"
        ? `${mark.fastener}. Edge: ${mark.sealant}.`
        : `${pilot}, depth stop ${stop}. ${mark.fastener}.`}
    </p>
  );
}
