/** What stands between a panel and the roof: the ways there are, as small drawings. */
import type { ReactNode } from "react";
import type { Edit, Panel } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useStoredJob } from "../../job/JobContext";
import { RadioRow } from "../../ui/RadioRow";

type Way = "feet" | "rails";
const INK = { stroke: "currentColor", strokeWidth: 2, fill: "none" } as const;

/** Seen along the roof: the roof below, the panel above. */
const Drawing = ({ children }: { children: ReactNode }) => (
  <svg viewBox="0 0 120 40" width={120} height={40} aria-hidden="true">
    <path d="M4 34 Q60 28 116 34" {...INK} strokeWidth={2.6} />
    {children}
  </svg>
);

const WAYS: readonly (readonly [Way, string, string, ReactNode])[] = [
  [
    "feet",
    "Feet on the frame",
    "fewest parts, each foot into a member",
    <Drawing key="feet">
      <rect x={22} y={12} width={76} height={5} {...INK} />
      <path d="M22 17 V31 H10 M98 17 V31 H110" {...INK} />
    </Drawing>,
  ],
  [
    "rails",
    "Rails over the members",
    "one pair for a row of panels; they can move later",
    <Drawing key="rails">
      <rect x={22} y={6} width={76} height={5} {...INK} />
      <rect x={34} y={12} width={9} height={9} {...INK} />
      <rect x={77} y={12} width={9} height={9} {...INK} />
      <path d="M38 21 V31 H28 M82 21 V31 H92" {...INK} />
    </Drawing>,
  ],
];

export function CarrierChoice({ panel }: { panel: Panel }) {
  const { handle, picked } = useDesk();
  const job = useStoredJob();
  const own = job.carriers.find((c) => c.id === panel.carrier);
  const alike = picked.includes(panel.id) ? picked : [panel.id];
  const row = job.panels.filter((p) => Math.abs(p.y.mm - panel.y.mm) < 50).map((p) => p.id);
  const choose = (way: Way) => {
    if ((way === "rails") === (own !== undefined)) return;
    const edit: Edit =
      way === "rails"
        ? { op: "put_on_rails", panels: alike.length > 1 ? [...alike] : row }
        : { op: "remove", path: `carriers.${own?.id}` };
    handle.change([edit]);
  };
  return (
    <Group
      title="Between panel and roof"
      aside={
        <span className="text-soft text-[13px]">
          {own
            ? `${job.panels.filter((p) => p.carrier === own.id).length} panels on ${own.name}`
            : row.length > 1
              ? `rails would carry the row: ${row.length} panels`
              : ""}
        </span>
      }
    >
      <RadioRow
        label="What stands between panel and roof"
        className="flex flex-wrap gap-2"
        value={own ? "rails" : "feet"}
        options={WAYS.map(
          ([way, title, words, drawing]) =>
            [
              way,
              title,
              undefined,
              <span key={way} className="font-sans font-normal text-[12.5px] leading-tight text-left">
                {words}
                {drawing}
              </span>,
            ] as const,
        )}
        choose={choose}
        optionClass="!h-auto !whitespace-normal flex-col !items-start !gap-0 py-1 w-[250px]"
      />
    </Group>
  );
}
