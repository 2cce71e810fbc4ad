/** The work: every step with its time and hands; the shop's own rates, orders of this job. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useRevision, useStoredJob } from "../../job/JobContext";
import { newId } from "../wire/words";
import { KINDS, kindWords } from "./kinds";
import { whenWords } from "./road";

export function WorkPart() {
  const work = useFinding("work");
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-10">
      <Group title="Steps and their time">
        {!work?.activities.length && <p>Nothing is to be done yet.</p>}
        <table className="sheet-table">
          <tbody>
            {work?.activities.map((a) => (
              <tr key={a.id}>
                <td className="font-semibold">{a.title}</td>
                <td className="num">{a.minutes} min</td>
                <td className="text-[13px]">{a.how_long}</td>
                <td className="num">{a.hands === 1 ? "1 person" : a.hands ? `${a.hands} people` : ""}</td>
                <td>{a.place}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Group>
      <div>
        <ByRecord />
        <Rates />
        <Orders />
      </div>
    </div>
  );
}

/** What was ticked on the roof: taken into the plan it teaches the rates. */
function ByRecord() {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const found = useQuery({
    queryKey: ["done by record", id, revision],
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/log/done", { params: { path: { job_id: id } } })),
  }).data;
  if (!found?.length) return null;
  return (
    <Group title="Done, by the record">
      <ul>
        {found.map((d) => (
          <li key={d.step} className="border-b border-hair py-1">
            <b>{d.title}</b>: {whenWords(d.started)} to {whenWords(d.ended)}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="act mt-2"
        onClick={() =>
          handle.change(
            found.map((d) => ({
              op: "add",
              path: "days.done",
              value: { id: newId("d"), step: d.step, started: d.started, ended: d.ended },
            })),
          )
        }
      >
        Take {found.length === 1 ? "it" : `all ${found.length}`} into the plan
      </button>
    </Group>
  );
}

function Rates() {
  const { handle } = useDesk();
  const learned = useFinding("learned");
  const { days } = useStoredJob();
  const free = KINDS.filter(([kind]) => !days.rates.some((r) => r.kind === kind) && kind !== "drive");
  return (
    <Group title="The shop's own rates">
      {days.rates.map((rate) => (
        <div key={rate.id} className="flex items-end gap-3 border-b border-hair py-1">
          <span className="w-40 pb-1 font-semibold">{kindWords(rate.kind)}</span>
          <div className="w-28">
            <Field label="Minutes each" path={`days.rates.${rate.id}.minutes`} value={rate.minutes} />
          </div>
          <button
            type="button"
            className="underline text-[13px] ml-auto"
            aria-label={`Remove the rate of ${kindWords(rate.kind)}`}
            onClick={() => handle.change([{ op: "remove", path: `days.rates.${rate.id}` }])}
          >
            remove
          </button>
        </div>
      ))}
      {learned
        .filter((l) => !days.rates.some((r) => r.kind === l.kind && r.minutes === l.minutes))
        .map((l) => (
          <div key={l.kind} className="flex items-baseline gap-3 border-b border-hair py-1">
            <span>
              <b>{kindWords(l.kind)}</b>: {l.minutes} min a {l.unit} on {l.pieces}, planned with {l.table_min}
            </span>
            <button
              type="button"
              className="act !h-[26px] ml-auto"
              aria-label={`Plan ${kindWords(l.kind)} with ${l.minutes} min`}
              onClick={() =>
                handle.change([
                  ...days.rates
                    .filter((r) => r.kind === l.kind)
                    .map((r) => ({ op: "remove" as const, path: `days.rates.${r.id}` })),
                  { op: "add", path: "days.rates", value: { id: newId("r"), kind: l.kind, minutes: l.minutes } },
                ])
              }
            >
              Plan with it
            </button>
          </div>
        ))}
      <div className="w-56 pt-1">
        <Choice
          label="Own rate for"
          path="days.rates"
          value=""
          options={free}
          onChange={(kind) =>
            handle.change([{ op: "add", path: "days.rates", value: { id: newId("r"), kind, minutes: 5 } }])
          }
        />
      </div>
    </Group>
  );
}

function Orders() {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const add = () =>
    handle.change([
      { op: "add", path: "days.orders", value: { id: newId("o"), before: "measure", after: "lift", hours: 0 } },
    ]);
  return (
    <Group title="Orders of this job">
      {days.orders.map((order) => {
        const path = `days.orders.${order.id}`;
        return (
          <div
            key={order.id}
            className="grid grid-cols-[1fr_1fr_70px_auto] gap-x-3 border-b border-hair py-1 items-end"
          >
            <Choice label="First" path={`${path}.before`} value={order.before} options={KINDS} />
            <Choice label="Then" path={`${path}.after`} value={order.after} options={KINDS} />
            <Field label="Hours" path={`${path}.hours`} value={order.hours} />
            <button
              type="button"
              className="underline text-[13px] pb-1"
              aria-label={`Remove the order ${kindWords(order.before)} before ${kindWords(order.after)}`}
              onClick={() => handle.change([{ op: "remove", path }])}
            >
              remove
            </button>
            <div className="col-span-4">
              <Field label="Why" path={`${path}.why`} value={order.why} />
            </div>
          </div>
        );
      })}
      <button type="button" className="act mt-2" onClick={add}>
        Add an order
      </button>
    </Group>
  );
}
