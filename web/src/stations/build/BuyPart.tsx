/** What is bought, where and until when; what lies in the shop for this job; what it costs beside a bought rack. */
import type { OnShelf, PurchaseLine } from "../../api/types";
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { useTry } from "../../ui/useTry";
import { ShopShelf } from "./ShopShelf";
import { useShelf } from "./useShelf";

export function BuyPart() {
  return (
    <>
      <Costs />
      <Lines />
      <ShopShelf />
    </>
  );
}

function Costs() {
  const { id, handle } = useDesk();
  const { costing } = useStoredJob().workshop;
  const cost = useFinding("cost");
  const money = (amount: number) => `${amount.toFixed(2)} ${costing.currency}`;
  return (
    <Group
      title="Cost"
      aside={
        <span className="flex gap-3">
          <a className="underline text-[13px]" href={`/api/jobs/${id}/files/purchase.csv`} download>
            purchase list, CSV
          </a>
          <a className="underline text-[13px]" href={`/api/jobs/${id}/files/quote.pdf`} download>
            quote, PDF
          </a>
        </span>
      }
    >
      <div className="grid grid-cols-2 sm:grid-cols-6 gap-x-4 gap-y-1.5 pb-2">
        <Field label="Hours" path="workshop.costing.hours" value={costing.hours} placeholder="14" clearable />
        <Field label="Of one hour" path="workshop.costing.rate" value={costing.rate} placeholder="62" clearable />
        <Field label="Margin, %" path="workshop.costing.margin" value={costing.margin} />
        <Field label="Currency" path="workshop.costing.currency" value={costing.currency} />
        <Field label="A bought rack" path="workshop.costing.rack" value={costing.rack} placeholder="620" clearable />
        <label className="label min-w-0 block">
          Work starts
          <input
            type="date"
            className="box text-ink font-sans"
            data-path="workshop.costing.start"
            value={costing.start ?? ""}
            onChange={(event) =>
              handle.change([{ op: "set", path: "workshop.costing.start", value: event.target.value || null }])
            }
          />
        </label>
      </div>
      {cost && (
        <p className="flex flex-wrap items-baseline gap-x-6">
          <span>
            material <span className="font-semibold">{money(cost.material)}</span>
          </span>
          <span>
            work{" "}
            <span className="font-semibold">{cost.work === null ? "hours and rate missing" : money(cost.work)}</span>
          </span>
          <span className="font-sign font-semibold text-[21px]">{money(cost.total)}</span>
          {cost.unpriced > 0 && (
            <span className="font-semibold">
              {cost.unpriced} {cost.unpriced === 1 ? "line has" : "lines have"} no price and count as nothing.
            </span>
          )}
          {cost.less_than_rack !== null && (
            <span>
              {cost.less_than_rack >= 0
                ? `${money(cost.less_than_rack)} less than the bought rack`
                : `${money(-cost.less_than_rack)} more than the bought rack`}
            </span>
          )}
        </p>
      )}
    </Group>
  );
}

function Lines() {
  const lines = useFinding("purchase");
  const job = useStoredJob();
  const shelf = useShelf();
  const bySupplier = [...new Set(lines.map((line) => line.supplier))].sort((a, b) => b.localeCompare(a));
  const serving = new Map(job.workshop.items.map((item) => [item.serves, item]));
  return (
    <Group title="Purchase list" aside={<span className="text-[13px]">spares are in it; by supplier</span>}>
      <table className="sheet-table">
        <thead>
          <tr>
            <th>needed for the job</th>
            <th className="!text-right">needed</th>
            <th>bought as</th>
            <th className="!text-right">kept in the shop</th>
            <th className="!text-right">buy</th>
            <th className="!text-right">price</th>
            <th>order by</th>
          </tr>
        </thead>
        <tbody>
          {bySupplier.map((supplier) => (
            <SupplierRows
              key={supplier}
              supplier={supplier}
              lines={lines.filter((line) => line.supplier === supplier)}
              entry={(line) => serving.get(line.serves)}
              shelf={shelf}
            />
          ))}
        </tbody>
      </table>
    </Group>
  );
}

type Bought = ReturnType<typeof useStoredJob>["workshop"]["items"][number];

function SupplierRows({
  supplier,
  lines,
  entry,
  shelf,
}: {
  supplier: string;
  lines: readonly PurchaseLine[];
  entry: (line: PurchaseLine) => Bought | undefined;
  shelf: readonly OnShelf[];
}) {
  return (
    <>
      <tr>
        <th colSpan={7} className="!text-left !pt-3 font-sign font-semibold text-[15.5px] !text-ink">
          {supplier || "No supplier yet"}
        </th>
      </tr>
      {lines.map((line) => (
        <LineRow key={line.serves} line={line} entry={entry(line)} shelf={shelf} />
      ))}
    </>
  );
}

function LineRow({ line, entry, shelf }: { line: PurchaseLine; entry: Bought | undefined; shelf: readonly OnShelf[] }) {
  const { costing } = useStoredJob().workshop;
  const { handle } = useDesk();
  const [attempt, problem] = useTry();
  const choose = (name: string) =>
    attempt(async () => {
      const chosen = shelf.find((s) => s.item.name === name);
      const drop = entry ? [{ op: "remove" as const, path: `workshop.items.${entry.id}` }] : [];
      const take = chosen
        ? [{ op: "add" as const, path: "workshop.items", value: { ...chosen.item, serves: line.serves } }]
        : [];
      await handle.edit([...drop, ...take]);
    });
  return (
    <>
      <tr>
        <td>{line.says}</td>
        <td className="num">
          {line.needed} {line.unit === "pc" ? "" : line.unit}
        </td>
        <td>
          <select
            className="box"
            aria-label={`Bought as, for ${line.says}`}
            value={entry?.name ?? ""}
            onChange={(event) => void choose(event.target.value)}
          >
            <option value="">{entry ? "nothing" : "choose …"}</option>
            {entry && !shelf.some((s) => s.item.name === entry.name) && <option>{entry.name}</option>}
            {shelf.map((s) => (
              <option key={s.item.name}>{s.item.name}</option>
            ))}
          </select>
        </td>
        <td className="num">
          {entry ? (
            <Field
              bare
              label={`Kept in the shop, for ${line.says}`}
              path={`workshop.items.${entry.id}.reserved`}
              value={entry.reserved}
            />
          ) : (
            line.reserved || "–"
          )}
        </td>
        <td className="num font-semibold">
          {line.packs === 0
            ? line.item
              ? "nothing"
              : "–"
            : line.pack === 1
              ? line.packs
              : `${line.packs} × ${line.pack}`}
        </td>
        <td className="num">
          {line.price === null ? <span className="font-semibold">missing</span> : line.price.toFixed(2)}
        </td>
        <td>
          {line.packs === 0
            ? ""
            : (line.order_by ??
              (costing.start ? (line.lead_days === null ? "lead time missing" : "") : "start missing"))}
        </td>
      </tr>
      {problem && (
        <tr>
          <td colSpan={7}>{problem}</td>
        </tr>
      )}
    </>
  );
}
