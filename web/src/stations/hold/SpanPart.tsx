/** Bars from member to member under the feet of a panel that stand between two. */
import type { Panel } from "../../api/types";
import { Choice, Group } from "../../fields/Field";
import { useDesk, useFinding } from "../../job/JobContext";
import { Attachment } from "./Attachment";
import { SectionFields } from "./SectionFields";

const ALLOYS = ["6060-T66", "6063-T5", "6063-T6", "6082-T6", "1.4301", "S235"].map((a) => [a, a] as const);

export function SpanPart({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const feet = useFinding("feet").filter((f) => f.panel === panel.id);
  const between = feet.filter((f) => f.landing === "skin" || f.landing === "perhaps").length;
  const path = `panels.${panel.id}.span`;
  const set = (value: object | null) => handle.change([{ op: "set", path, value }]);
  if (!panel.span)
    return between ? (
      <Group
        title="Feet between members"
        aside={
          <button type="button" className="act" onClick={() => set({})}>
            Bars under them
          </button>
        }
      >
        <p className="text-[13px]">
          {between} of {feet.length} feet stand on skin. A bar from member to member carries each of them.
        </p>
      </Group>
    ) : null;
  const carried = feet.filter((f) => f.landing === "bar").length;
  return (
    <Group
      title="Bars from member to member"
      aside={
        <button type="button" className="underline text-[13px]" onClick={() => set(null)}>
          take the bars away
        </button>
      }
    >
      <p className="text-[13px] pb-1">
        {carried
          ? `${carried} feet stand on bars, each held by one M8 through both.`
          : "No foot needs one: all stand in members, or beyond the last."}
      </p>
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <SectionFields section={panel.span.section} path={`${path}.section`} of="Bar" />
        <Choice label="Bar, metal" path={`${path}.alloy`} value={panel.span.alloy} options={ALLOYS} />
      </div>
      <details className="pt-1">
        <summary className="cursor-pointer text-[13px] underline">Their ends in the members</summary>
        <Attachment
          key={panel.span.ends.school}
          hold={panel.span.ends}
          path={`${path}.ends`}
          title="How the ends are held"
        />
      </details>
    </Group>
  );
}
