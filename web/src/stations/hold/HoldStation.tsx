import type { Panel } from "../../api/types";
import { Group } from "../../fields/Field";
import {
  selectedFoot,
  selectedPanel,
  useDesk,
  useEvaluation,
  useFinding,
  useStoredJob,
  useUnits,
} from "../../job/JobContext";
import { footState } from "../../roof/names";
import { speed } from "../../ui/format";
import { type FootState, StateMark } from "../../ui/StateMark";
import { Assumptions } from "./Assumptions";
import { Attachment } from "./Attachment";
import { Chain } from "./Chain";
import { PanelItself } from "./PanelItself";
import { Unjudged } from "./Unjudged";

export function HoldStation() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const plan = useFinding("plan");
  const worst = plan;
  const foot = selectedFoot(selection);
  const panelId = selectedPanel(selection) ?? worst?.worst_panel ?? job.panels[0]?.id;
  const panel = job.panels.find((p) => p.id === panelId);
  if (!panel) return <p>Place a panel first, under Layout. Then choose here how it holds.</p>;
  const footId = foot?.panel === panel.id ? foot.foot : undefined;
  return (
    <>
      <PanelTabs panels={job.panels} current={panel.id} />
      <Chain key={panel.id} panel={panel} foot={footId} />
      <Attachment key={`${panel.id} ${panel.hold.school}`} panel={panel} />
      <PanelItself key={`${panel.id} itself`} panel={panel} />
      <Unjudged />
      <Assumptions />
    </>
  );
}

const WORST_FIRST: readonly FootState[] = ["lets go", "refused", "thin", "holds"];

function PanelTabs({ panels, current }: { panels: Panel[]; current: string }) {
  const { select } = useDesk();
  const evaluation = useEvaluation();
  const units = useUnits();
  const refused = new Set(evaluation.spoken.refused_feet);
  const verdicts = new Map(evaluation.findings.verdicts.map((v) => [v.panel, v]));
  return (
    <Group title="Panels">
      <div className="flex flex-wrap gap-1.5">
        {panels.map((panel) => {
          const verdict = verdicts.get(panel.id);
          const states = verdict?.feet.map((f) => footState(f, refused.has(`${f.panel}.${f.foot}`))) ?? [];
          const struck = [...refused].some((foot) => foot.startsWith(`${panel.id}.`));
          const worst = WORST_FIRST.find((state) => states.includes(state)) ?? (struck ? "refused" : "unknown");
          return (
            <button
              key={panel.id}
              type="button"
              className="act"
              data-on={panel.id === current}
              aria-pressed={panel.id === current}
              onClick={() => select(`panels.${panel.id}`)}
            >
              <span className="bg-paper text-ink rounded-full leading-none">
                <StateMark state={worst} />
              </span>
              {panel.name}
              {(verdict || struck) && (
                <span className="font-medium text-[13px]">
                  {verdict && !struck ? `safe ${speed(verdict.safe_m_s, units)}` : "stop"}
                </span>
              )}
            </button>
          );
        })}
      </div>
    </Group>
  );
}
