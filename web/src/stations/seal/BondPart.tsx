/** What sticks to this roof and what does not, with the reason; the maker's sheet overrules. */
import { EntryTable } from "../../fields/EntryTable";
import { Group } from "../../fields/Field";
import { useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { temperature } from "../../ui/format";

const FAMILIES = [
  "butyl tape",
  "bitumen tape",
  "lap sealant",
  "polyurethane",
  "hybrid",
  "silicone",
  "polysulphide",
  "acrylic",
  "cover tape",
  "rubber gasket",
] as const;
const MARK = { good: "●", "with primer": "◐", refused: "○" } as const;

export function BondPart() {
  const choice = useFinding("seal");
  const { seal } = useStoredJob();
  const units = useUnits();
  return (
    <>
      {choice && (
        <Group
          title={`On ${choice.substrate}`}
          aside={
            <span className="text-[13px]">
              {choice.assumed ? "concluded from the skin; choose it under Layers" : "as chosen under Layers"}
            </span>
          }
        >
          <table className="sheet-table max-w-[980px]">
            <thead>
              <tr>
                <th>family</th>
                <th>bonds</th>
                <th>sun</th>
                <th>paint over it</th>
                <th className="!text-right">from</th>
                <th>why</th>
              </tr>
            </thead>
            <tbody>
              {choice.all.map((b) => (
                <tr
                  key={b.family}
                  className={[choice.under.name, choice.round.name].includes(b.family) ? "bg-tape/30" : ""}
                >
                  <td className="font-semibold">{b.family}</td>
                  <td className={b.bond === "refused" ? "text-signal font-semibold" : ""}>
                    <span aria-hidden="true">{MARK[b.bond]}</span> {b.bond}
                  </td>
                  <td>{b.bears_sun ? "bears it" : "cover it"}</td>
                  <td>{b.paintable ? "yes" : "no"}</td>
                  <td className="num">{temperature(b.coldest_c, units)}</td>
                  <td className="text-[13.5px]">{b.why || (b.by_sheet ? "maker's sheet" : "")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-[13px] pt-1">Common practice, no source: what the maker's sheet says counts before it.</p>
        </Group>
      )}
      <Group title="Makers' sheets">
        <EntryTable
          path="seal.sheets"
          noun="sheet"
          columns={[
            { key: "family", label: "family", options: FAMILIES.map((f) => [f, f] as const) },
            { key: "document", label: "sheet, date", optional: true, placeholder: "2026-03" },
            {
              key: "bonds",
              label: "bonds here",
              options: [
                ["yes", "yes"],
                ["with primer", "with primer"],
                ["no", "no"],
              ],
            },
            { key: "skin_h", label: "skin, hours", optional: true, placeholder: "0.5" },
            { key: "depth_24h", label: "cured in a day", optional: true, placeholder: "3 mm" },
            { key: "coldest", label: "from", optional: true, placeholder: "5 °C" },
          ]}
          entries={seal.sheets}
          empty="Type what the sheet of the product in hand says; it counts before the table."
        />
      </Group>
    </>
  );
}
