/** Months down, hours across: how much of each hour's energy shadow takes. The darker, the more; figures where it matters. */
import type { YieldFinding } from "../../api/types";
import { dayEnergy } from "../../ui/format";

const TELL_FROM = 0.05;
/** Share lost from which an hour is so dark, in steps that leave figures readable on each. */
const DARKER: readonly (readonly [number, number])[] = [
  [0.35, 80],
  [0.2, 44],
  [0.1, 28],
  [TELL_FROM, 14],
];

export function ShadeClock({ months }: { months: YieldFinding["months"] }) {
  const lit = months.flatMap((m) => m.lost_by_hour.map((l, h) => (l === null ? -1 : h))).filter((h) => h >= 0);
  if (!lit.length) return null;
  const first = Math.min(...lit);
  const hours = Array.from({ length: Math.max(...lit) - first + 1 }, (_, i) => first + i);
  return (
    <table className="border-collapse text-[12px] w-full table-fixed">
      <thead>
        <tr>
          <th className="w-10">
            <span className="sr-only">month</span>
          </th>
          {hours.map((h) => (
            <th key={h} className="label font-normal">
              {h}
            </th>
          ))}
          <th className="label w-16">a day</th>
        </tr>
      </thead>
      <tbody>
        {months.map((month) => (
          <tr key={month.month}>
            <th className="label text-left" scope="row">
              {month.month.slice(0, 3)}
            </th>
            {hours.map((h) => (
              <Hour key={h} lost={month.lost_by_hour[h] ?? null} />
            ))}
            <td className="text-right pl-1 whitespace-nowrap">{dayEnergy(month.day_wh)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Hour({ lost }: { lost: number | null }) {
  if (lost === null) return <td />;
  const [, ink] = DARKER.find(([from]) => lost >= from) ?? [0, 0];
  return (
    <td
      className="text-center h-[19px] border border-hair tabular-nums"
      style={{
        background: `color-mix(in srgb, var(--color-ink) ${ink}%, var(--color-paper))`,
        color: ink > 50 ? "var(--color-paper)" : "var(--color-ink)",
      }}
    >
      {lost >= TELL_FROM ? Math.round(lost * 100) : ""}
    </td>
  );
}
