import type { ArrangeOrder } from "../../api/types";
import { Group } from "../../fields/Field";
import { selectedPanel, useDesk, useStoredJob, useUnits } from "../../job/JobContext";
import { across, length } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { OwnModel } from "./OwnModel";
import { PanelFields } from "./PanelFields";
import { copyEdits, type Offered, useCatalogue, useModels } from "./useModels";

export function PanelsPart() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const chosen = job.panels.find((p) => p.id === selectedPanel(selection)) ?? null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[4fr_5fr] gap-x-8">
      <PanelList />
      {chosen ? (
        <PanelFields key={chosen.id} panel={chosen} />
      ) : (
        <Group title="Selected panel">
          <p>
            Pick a panel on the roof or in the list. Drag it: it snaps to edges, gaps, members and other panels, Alt
            lets go. Arrow keys nudge, shift for bigger steps; R turns, L locks.
          </p>
        </Group>
      )}
    </div>
  );
}

function PanelList() {
  const { handle, selection, select, picked, pick } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const models = useModels();
  const catalogue = useCatalogue();
  const [attempt, problem] = useTry();
  const place = (entry: Offered) =>
    attempt(async () => {
      const answer = await handle.edit([...copyEdits(entry), { op: "place_panel", model: entry.model.name }]);
      const made = answer.job.panels.at(-1);
      if (made) select(`panels.${made.id}`);
    });
  return (
    <div>
      <Group
        title="Panels on the roof"
        aside={job.panels.length > 1 && <span className="text-soft text-[13px]">shift and click picks several</span>}
      >
        {!job.panels.length && (
          <p className="pb-1">Place the first one below, or let layouts be proposed. Then move it.</p>
        )}
        <ul>
          {job.panels.map((panel) => {
            const here = selectedPanel(selection) === panel.id || picked.includes(panel.id);
            return (
              <li key={panel.id} className={`flex items-center border-b border-hair ${here ? "bg-tape/40" : ""}`}>
                <button
                  type="button"
                  className="flex-1 text-left py-1"
                  aria-pressed={here}
                  onClick={(event) => (event.shiftKey ? pick(panel.id) : select(`panels.${panel.id}`))}
                >
                  <span className="font-semibold">{panel.name}</span>{" "}
                  <span className="text-soft">
                    {panel.model.name}, {length(panel.x.mm, units)} along, {across(panel.y.mm, units)}
                    {panel.locked ? ", locked" : ""}
                  </span>
                </button>
                <button
                  type="button"
                  className="underline text-[13px] px-1"
                  aria-label={`Remove ${panel.name}`}
                  onClick={() =>
                    void attempt(async () => {
                      await handle.edit([{ op: "remove", path: `panels.${panel.id}` }]);
                    })
                  }
                >
                  remove
                </button>
              </li>
            );
          })}
        </ul>
        {picked.length > 0 && <Arrange />}
        {problem}
      </Group>
      <Group title="Place a panel">
        <div className="grid gap-x-6">
          {models.map((entry) => (
            <button
              key={entry.model.name}
              type="button"
              className="text-left flex items-baseline gap-2 py-1 border-b border-hair hover:bg-tape/40 min-w-0"
              onClick={() => void place(entry)}
            >
              <span className="font-sign font-semibold text-[15px] whitespace-nowrap">+ {entry.model.name}</span>
              <span className="text-soft text-[13px] whitespace-nowrap">
                {length(entry.model.length.mm, units).replace(" mm", "")} × {length(entry.model.width.mm, units)}
                {entry.model.stock !== null && entry.model.stock !== undefined ? `, ${entry.model.stock} there` : ""}
              </span>
            </button>
          ))}
        </div>
        <p className="text-soft text-[12.5px] py-1">{catalogue?.panel_source}.</p>
        <OwnModel />
      </Group>
    </div>
  );
}

const ORDERS: readonly (readonly [ArrangeOrder, string, number])[] = [
  ["front", "front edges", 2],
  ["rear", "rear edges", 2],
  ["middle", "middles", 2],
  ["port", "port sides", 2],
  ["starboard", "starboard sides", 2],
  ["centre_line", "on the centre line", 1],
  ["spread_along", "equal gaps along", 3],
  ["spread_across", "equal gaps across", 3],
];

function Arrange() {
  const { handle, picked } = useDesk();
  const job = useStoredJob();
  const [attempt, problem] = useTry();
  const group = picked.map((id) => job.panels.find((p) => p.id === id)).filter((p) => p !== undefined);
  const joined = group.length > 1 && group.every((p) => p.array && p.array === group[0]?.array);
  const arrayName = `array-${picked[0]}`;
  return (
    <div role="group" aria-label="Line up the picked panels" className="pt-2">
      <p className="label pb-1">
        {picked.length} picked; they line up with {group[0]?.name}
      </p>
      <div className="flex flex-wrap gap-1.5">
        {ORDERS.map(([order, words, least]) => (
          <button
            key={order}
            type="button"
            className="act !h-[27px] !text-[14px] !px-2"
            disabled={picked.length < least}
            onClick={() =>
              void attempt(async () => {
                await handle.edit([{ op: "arrange", panels: [...picked], order }]);
              })
            }
          >
            {words}
          </button>
        ))}
        <button
          type="button"
          className="act !h-[27px] !text-[14px] !px-2"
          disabled={picked.length < 2}
          onClick={() =>
            void attempt(async () => {
              await handle.edit(
                picked.map((id) => ({ op: "set", path: `panels.${id}.array`, value: joined ? null : arrayName })),
              );
            })
          }
        >
          {joined ? "part the array" : "join as one array"}
        </button>
      </div>
      {problem}
    </div>
  );
}
