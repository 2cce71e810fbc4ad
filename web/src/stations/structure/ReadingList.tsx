import { useEffect, useRef } from "react";
import { Field } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { KIND_WORDS } from "../../roof/names";
import { shown } from "../../ui/format";

/** A wrong reading is struck out, not deleted: it stays as evidence of what was heard. */
export function ReadingList() {
  const { handle, selection } = useDesk();
  const job = useStoredJob();
  const members = useFinding("members");
  const units = useUnits();
  const rejected = new Map(members.rejected.map((r) => [r.reading, r.reason]));
  const member = new Map(members.members.flatMap((m) => m.readings.map((r) => [r, m.number] as const)));
  const chosen = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (selection?.startsWith("readings")) chosen.current?.scrollIntoView({ block: "nearest" });
  }, [selection]);
  if (!job.readings.length)
    return (
      <p>
        Walk the roof with magnet, eye and knuckle. Measure each hit from the front edge and type it in: three
        neighbouring members settle most roofs.
      </p>
    );
  const sorted = [...job.readings].sort((a, b) => a.x.mm - b.x.mm);
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>position</th>
          <th>kind</th>
          <th>own ±</th>
          <th>means</th>
          <th>
            <span className="sr-only">strike out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sorted.map((reading) => {
          const path = `readings.${reading.id}`;
          const reason = rejected.get(reading.id);
          const here = selection === path;
          return (
            <tr key={reading.id} ref={here ? chosen : null} className={here ? "bg-tape/40" : ""}>
              <td className={`whitespace-nowrap font-semibold ${reading.struck ? "line-through text-soft" : ""}`}>
                {shown(reading.x, units)}
              </td>
              <td className="whitespace-nowrap">{KIND_WORDS[reading.kind]}</td>
              <td className="w-[74px]">
                <Field
                  bare
                  label={`Own uncertainty at ${shown(reading.x, units)}`}
                  path={`${path}.sigma`}
                  value={reading.sigma}
                  placeholder="usual"
                  clearable
                />
              </td>
              <td className="text-[13px]">
                {reading.struck ? (
                  "struck out"
                ) : reason ? (
                  <span className="text-signal font-semibold">{reason}</span>
                ) : reading.kind === "pilot_through" ? (
                  "skin only here"
                ) : member.has(reading.id) ? (
                  `member ${member.get(reading.id)}`
                ) : (
                  ""
                )}
              </td>
              <td className="num">
                <button
                  type="button"
                  className="underline text-[13px]"
                  aria-label={`${reading.struck ? "Restore" : "Strike out"} the reading at ${shown(reading.x, units)}`}
                  onClick={() => handle.change([{ op: "set", path: `${path}.struck`, value: !reading.struck }])}
                >
                  {reading.struck ? "restore" : "strike"}
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
