/** Bars to cut from: bought lengths with their price, leftovers of the shop; what the saw takes. */
import { EntryTable } from "../../fields/EntryTable";
import { Field, Group } from "../../fields/Field";
import { useFinding, useStoredJob } from "../../job/JobContext";

export function StockPart() {
  const job = useStoredJob();
  const says = new Map(useFinding("cuts").map((c) => [c.material, c.says]));
  const all = [...new Set([...says.keys(), ...job.workshop.stock.map((bar) => bar.material)])];
  if (!all.length) return null;
  return (
    <Group title="Bars to cut from">
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 pb-2 max-w-[560px]">
        <Field label="The saw takes" path="workshop.kerf" value={job.workshop.kerf} />
        <Field label="Off both ends of a bar" path="workshop.trim" value={job.workshop.trim} />
      </div>
      <EntryTable
        path="workshop.stock"
        noun="bar"
        columns={[
          {
            key: "material",
            label: "what it is",
            options: all.map((m) => [m, says.get(m) ?? m] as const),
            width: "40%",
          },
          { key: "length", label: "length", placeholder: "6 m" },
          { key: "price", label: "price of one", placeholder: "38.50", optional: true },
          { key: "have", label: "in the shop", placeholder: "blank: bought", optional: true },
        ]}
        entries={job.workshop.stock}
        empty="Type the lengths that can be bought, and leftovers with how many there are and no price."
      />
    </Group>
  );
}
