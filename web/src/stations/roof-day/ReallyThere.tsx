/** Where a foot really is, and what its pilot hole met: typed at the mark, worked at once. */
import { useState } from "react";
import type { Mark, Units } from "../../api/types";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import type { JobLog } from "../../job/useLog";
import { example, type Quantity, shown } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { type Pilot, recording, recordOf } from "./asBuilt";

export function ReallyThere({ mark, log }: { mark: Mark; log: JobLog }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const feet = useFinding("feet");
  const place = feet.find((f) => f.panel === mark.panel && f.foot === mark.foot);
  const foot = { holder: mark.panel, foot: mark.foot };
  const record = recordOf(job.built.feet, handle.waiting, foot);
  const onItsWay = handle.waiting.some((e) => e.op === "record_foot" || e.op === "forget_foot");
  const [x, setX] = useState(() => boxText(record?.x, units));
  const [y, setY] = useState(() => boxText(record?.y, units).replace(/^[-−]/, ""));
  const [attempt, problem] = useTry();
  if (!place) return null;
  const where = `${mark.panel} ${mark.foot}, mark ${mark.number}`;
  const measured = record && (record.x || record.y) ? record.mark : { x: mark.x_mm, y: mark.y_mm };
  const put = () =>
    attempt(async () => {
      const found = { ...(x.trim() && { x: x.trim() }), ...(y.trim() && { from_centre: y.trim() }) };
      if (!Object.keys(found).length) return;
      const said = `${x.trim() || "as planned"} aft, ${y.trim() || "as planned"} from centre`;
      log.write({ kind: "measured", what: "position", value: said.slice(0, 60), place: where, by: "tape" });
      await handle.edit([recording(record, mark, place, found)]);
    });
  const met = (pilot: Pilot) =>
    attempt(async () => {
      log.write({ kind: "measured", what: "pilot hole", value: pilot, place: where, by: "drill" });
      await handle.edit([recording(record, mark, place, { pilot })]);
    });
  const remove = () =>
    attempt(async () => {
      log.write({ kind: "remark", text: `The record of ${where} was taken back.`, place: where });
      await handle.edit([{ op: "forget_foot", ...foot }]);
      setX("");
      setY("");
    });
  return (
    <div className="p-2 grid gap-2 text-[18px]">
      <div className="grid grid-cols-2 gap-2">
        <Measured label={`Mark ${mark.number}: tape aft`} hint={measured.x} value={x} set={setX} />
        <Measured label="from centre" hint={Math.abs(measured.y)} value={y} set={setY} />
      </div>
      <button type="button" className="thumb !min-h-[52px]" onClick={() => void put()}>
        It is there
      </button>
      {mark.kind === "hole" && (
        <fieldset className="grid grid-cols-2 gap-2" aria-label="The pilot hole met">
          {(["solid", "through"] as const).map((pilot) => (
            <button
              key={pilot}
              type="button"
              className={`thumb !min-h-[52px] !text-[18px] ${record?.pilot === pilot ? "!bg-ink !text-paper" : ""}`}
              aria-pressed={record?.pilot === pilot}
              onClick={() => void met(pilot)}
            >
              {pilot === "solid" ? "Pilot met metal" : "Pilot met nothing"}
            </button>
          ))}
        </fieldset>
      )}
      {record && (
        <button type="button" className="thumb !min-h-[48px] !text-[17px]" onClick={() => void remove()}>
          Take this record back
        </button>
      )}
      {onItsWay && <p className="text-soft">Kept here until the server has it.</p>}
      {problem}
    </div>
  );
}

/** As stored, or as typed while it is on its way. */
function boxText(value: Quantity | string | null | undefined, units: Units): string {
  if (!value) return "";
  return typeof value === "string" ? value : shown(value, units);
}

function Measured(props: { label: string; hint: number; value: string; set: (text: string) => void }) {
  const units = useUnits();
  return (
    <label className="block">
      <span className="label">{props.label}</span>
      <input
        className="box !h-[52px] !text-[22px]"
        value={props.value}
        placeholder={example(`${Math.round(props.hint)} mm`, units)}
        inputMode={units === "metric" ? "decimal" : "text"}
        autoComplete="off"
        data-reads="position"
        onChange={(event) => props.set(event.target.value)}
      />
    </label>
  );
}
