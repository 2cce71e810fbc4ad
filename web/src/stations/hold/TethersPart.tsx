/** What catches the panel when its own feet let go: lines, their anchors, and whether they stop it. */
import type { Panel, Tether, TetherVerdict } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { force, length, speed } from "../../ui/format";
import { Attachment } from "./Attachment";

const SIDES = ["port", "starboard", "front", "rear"].map((s) => [s, s] as const);
const LINES = [
  ["rope", "wire rope"],
  ["strap", "woven strap"],
  ["plate", "bolted plate"],
] as const;
const ENDS = [
  ["swaged", "swaged"],
  ["grips", "rope grips"],
] as const;
const ALLOYS = ["1.4301", "S235", "6082-T6"].map((a) => [a, a] as const);

export function TethersPart({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const own = job.tethers.filter((t) => t.panel === panel.id);
  const caught = useFinding("caught").find((c) => c.panel === panel.id);
  const add = () => handle.change([{ op: "tether_panel", panel: panel.id }]);
  if (!own.length)
    return (
      <Group
        title="Tethers"
        aside={
          <button type="button" className="act" onClick={add}>
            Add two tethers
          </button>
        }
      >
        <p className="text-[13px]">
          A line from the frame to an anchor of its own catches the panel if its feet let go.
        </p>
      </Group>
    );
  return (
    <Group
      title="Tethers"
      aside={
        caught && (
          <span className="text-[13px]">
            <Worked place={`tether/${panel.id}`} title="Tethers">
              {caught.two_sides
                ? `stop it up to ${speed(caught.all_lost_m_s, units)} when all feet let go`
                : "on one side: it would flip"}
            </Worked>
            ; one foot lost: {speed(caught.one_lost_m_s, units)}
          </span>
        )
      }
    >
      {own.map((tether) => (
        <OneTether
          key={`${tether.id} ${tether.line.kind}`}
          tether={tether}
          verdict={caught?.tethers.find((t) => t.tether === tether.id)}
        />
      ))}
    </Group>
  );
}

function OneTether({ tether, verdict }: { tether: Tether; verdict: TetherVerdict | undefined }) {
  const { handle, select } = useDesk();
  const units = useUnits();
  const path = `tethers.${tether.id}`;
  const breaks = verdict && verdict.all_lost_n > verdict.bears_n;
  return (
    <div className="border-b border-hair py-1.5">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="font-semibold">{tether.name}</span>
        {verdict && (
          <span className="text-[13px]">
            one foot lost {force(verdict.one_lost_n, units)}, all lost{" "}
            <span className={breaks ? "text-signal font-semibold" : ""}>{force(verdict.all_lost_n, units)}</span>; bears{" "}
            {force(verdict.bears_n, units)}, first: {verdict.weakest.title}
          </span>
        )}
        <button
          type="button"
          className="underline text-[13px] ml-auto"
          onClick={() => {
            select(`panels.${tether.panel}`);
            handle.change([{ op: "remove", path }]);
          }}
        >
          remove {tether.name}
        </button>
      </p>
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <Choice label="Side" path={`${path}.side`} value={tether.side} options={SIDES} />
        <Field label="Along the side" path={`${path}.along`} value={tether.along} />
        <Field label="Anchor beyond frame" path={`${path}.out`} value={tether.out} />
        <Field
          label="Length"
          path={`${path}.length`}
          value={tether.length}
          placeholder="cut to fit"
          hint={verdict ? `${length(verdict.reach_mm, units)} to the anchor` : "frame to anchor"}
          clearable
        />
        <Field label="Slack" path={`${path}.slack`} value={tether.slack} hint="how far the frame can rise" />
        <Choice
          label="Line"
          path={`${path}.line`}
          value={tether.line.kind}
          options={LINES}
          onChange={(kind) => handle.change([{ op: "set", path: `${path}.line`, value: { kind } }])}
        />
        {tether.line.kind === "rope" && (
          <>
            <Field label="Rope" path={`${path}.line.diameter`} value={tether.line.diameter} />
            <Choice label="Ends" path={`${path}.line.ends`} value={tether.line.ends} options={ENDS} />
          </>
        )}
        {tether.line.kind === "strap" && (
          <>
            <Field
              label="Strap breaks at, N"
              path={`${path}.line.breaks_n`}
              value={tether.line.breaks_n}
              placeholder="10000"
              clearable
            />
            <Field label="Gives, %" path={`${path}.line.gives`} value={tether.line.gives} />
          </>
        )}
        {tether.line.kind === "plate" && (
          <>
            <Field label="Plate, width" path={`${path}.line.width`} value={tether.line.width} />
            <Field label="Plate, thick" path={`${path}.line.thickness`} value={tether.line.thickness} />
            <Choice label="Metal" path={`${path}.line.alloy`} value={tether.line.alloy} options={ALLOYS} />
          </>
        )}
      </div>
      <details className="pt-1">
        <summary className="cursor-pointer text-[13px] underline">Its anchor on the roof</summary>
        <Attachment key={tether.hold.school} hold={tether.hold} path={`${path}.hold`} title="How the anchor holds" />
      </details>
    </div>
  );
}
