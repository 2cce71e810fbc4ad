/** Values beside their limits, from the panels to the controller, each with where it comes from. */
import type { Findings } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";

type Limit = Findings["arrays"][number]["limits"][number];
const DIGITS: Record<string, number> = { W: 0 };

export function LimitsPart() {
  const { wiring } = useStoredJob();
  const { openWorking } = useDesk();
  const arrays = useFinding("arrays");
  return (
    <>
      <Group title="What decides">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[900px]">
          <Field label="Record low" path="wiring.coldest" value={wiring.coldest} placeholder="-18 °C" clearable />
          <Field label="Hottest air" path="wiring.warmest" value={wiring.warmest} placeholder="36 °C" clearable />
          <Choice
            label="Code family"
            path="wiring.code"
            value={wiring.code}
            options={[
              ["IEC", "IEC 62548-1, EN 50618"],
              ["NEC", "NEC 2023, article 690"],
            ]}
          />
        </div>
        <p className="text-[13px] pt-1">
          {arrays.some((a) => a.limits.length > 0) && (
            <>
              <button type="button" className="underline" onClick={() => openWorking("limits", "Limits")}>
                how these come about
              </button>{" "}
            </>
          )}
          Planning aid. Your local code and licensed practice decide; so do the makers' sheets.
        </p>
      </Group>
      {arrays.map((array) => (
        <Group
          key={array.controller}
          title={array.name}
          aside={<span className="font-sign font-semibold text-[17px]">{array.words}</span>}
        >
          {array.limits.length ? <Limits limits={array.limits} /> : <p>No string is plugged into it.</p>}
        </Group>
      ))}
    </>
  );
}

function Limits({ limits }: { limits: readonly Limit[] }) {
  return (
    <table className="sheet-table max-w-[1000px]">
      <thead>
        <tr>
          <th>what</th>
          <th className="!text-right">is</th>
          <th className="!text-right">may be</th>
          <th>
            <span className="sr-only">kept</span>
          </th>
          <th>by</th>
        </tr>
      </thead>
      <tbody>
        {limits.map((limit) => (
          <tr key={limit.key}>
            <td>
              <span className="font-semibold">{limit.key}</span>
              <span className="block text-[13px]">{limit.words}</span>
            </td>
            <td className={`num ${limit.held === false ? "text-signal font-semibold" : ""}`}>
              {says(limit.value, limit)}
            </td>
            <td className="num">
              {limit.limit === null ? "not told" : `${limit.least ? "≥" : "≤"} ${says(limit.limit, limit)}`}
            </td>
            <td>{limit.held === null ? "?" : limit.held ? "kept" : <b className="text-signal">passed</b>}</td>
            <td className="text-[13px]">{limit.source}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const says = (value: number, limit: Limit): string => `${value.toFixed(DIGITS[limit.unit] ?? 1)} ${limit.unit}`;
