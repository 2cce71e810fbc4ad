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
import { PanelAttachment } from "./Attachment";
import { CarrierChoice } from "./CarrierChoice";
import { PanelChain } from "./Chain";
import { MakeHold } from "./MakeHold";
import { PanelItself } from "./PanelItself";
import { RailsPart } from "./RailsPart";
import { RaisedPart } from "./RaisedPart";
import { Schools } from "./Schools";
import { SpanPart } from "./SpanPart";
import { TapePart } from "./TapePart";
import { TethersPart } from "./TethersPart";
import { Unjudged } from "./Unjudged";

export function HoldStation() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const plan = useFinding("plan");
  const worst = plan;
  const foot = selectedFoot(selection);
  const named = selectedCarrier(selection) ?? worst?.worst_panel;
  const tethered = job.tethers.find((t) => selection?.startsWith(`tethers.${t.id}`))?.panel;
  const panelId = selectedPanel(selection) ?? tethered ?? worst?.worst_panel ?? job.panels[0]?.id;
  const panel =
    job.panels.find((p) => p.id === panelId) ?? job.panels.find((p) => p.carrier === named) ?? job.panels[0];
  if (!panel) return <p>Place a panel first, under Layout. Then choose here how it holds.</p>;
  const carrier = job.carriers.find((c) => c.id === panel.carrier);
  const footId = foot?.panel === panel.id ? foot.foot : undefined;
  return (
    <>
      <PanelTabs panels={job.panels} current={panel.id} />
      <MakeHold />
      <CarrierChoice panel={panel} />
      {carrier && <RailsPart key={carrier.id} carrier={carrier} />}
      <PanelChain key={panel.id} panel={panel} foot={footId} />
      {!carrier && <PanelAttachment key={`${panel.id} ${panel.hold.school}`} panel={panel} />}
      {!carrier && <SpanPart panel={panel} />}
      <RaisedPart panel={panel} />
      <TethersPart panel={panel} />
      <TapePart holder={carrier?.id ?? panel.id} />
      <PanelItself key={`${panel.id} itself`} panel={panel} />
      <Schools />
      <Unjudged />
      <Assumptions />
    </>
  );
}

/** The carrier that something led to, a snag or a click on its rail. */
function selectedCarrier(selection: string | null): string | undefined {
  const words = selection?.split(".") ?? [];
  return words[0] === "carriers" ? words[1] : undefined;
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
          const below = evaluation.findings.carriers.find((c) => c.carrier === panel.carrier);
          const held = [...(verdict?.feet ?? []), ...(below?.feet ?? [])];
          const states = held.map((f) => footState(f, refused.has(`${f.panel}.${f.foot}`)));
          const struck = [...refused].some(
            (foot) => foot.startsWith(`${panel.id}.`) || (below && foot.startsWith(`${below.carrier}.`)),
          );
          const safe = Math.min(
            verdict?.safe_m_s ?? Number.POSITIVE_INFINITY,
            below?.safe_m_s ?? Number.POSITIVE_INFINITY,
          );
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
                  {verdict && !struck ? `safe ${speed(safe, units)}` : "stop"}
                </span>
              )}
            </button>
          );
        })}
      </div>
    </Group>
  );
}
