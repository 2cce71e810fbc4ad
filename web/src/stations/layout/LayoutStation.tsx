import { usePart } from "../../fields/usePart";
import { useDesk, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { ModelsPart } from "./ModelsPart";
import { PanelsPart } from "./PanelsPart";
import { ProposalsPart } from "./ProposalsPart";
import { RulesPart } from "./RulesPart";
import { SunPart } from "./SunPart";
import { VariantsPart } from "./VariantsPart";

function partOf(path: string | null): string | null {
  if (path?.startsWith("panels")) return "panels";
  if (path?.startsWith("keep_free") || path?.startsWith("assumptions")) return "rules";
  if (path?.startsWith("variants") || path?.startsWith("decisions")) return "variants";
  if (path?.startsWith("wish")) return "proposals";
  if (path?.startsWith("site")) return "sun";
  return path?.startsWith("own_models") ? "models" : null;
}

export function LayoutStation() {
  const { ledTo } = useDesk();
  const job = useStoredJob();
  const [part, setPart] = usePart("layout", "panels", partOf(ledTo));
  const count = (n: number) => (n ? String(n) : undefined);
  const parts: PartInfo[] = [
    { name: "panels", title: "Panels", mark: count(job.panels.length), body: PanelsPart },
    { name: "proposals", title: "Proposals", body: ProposalsPart },
    { name: "sun", title: "Sun and shade", body: SunPart },
    { name: "variants", title: "Variants", mark: count(job.variants.length), body: VariantsPart },
    { name: "rules", title: "Rules", mark: count(job.keep_free.length), body: RulesPart },
    { name: "models", title: "Models", mark: count(job.own_models.length), body: ModelsPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
