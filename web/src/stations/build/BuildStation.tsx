/** What is made in the workshop: bars, pieces, bolts, fit, the order of assembly, what is bought and packed. */
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { BoltsPart } from "./Bolts";
import { BuyPart } from "./BuyPart";
import { CutPart } from "./CutLists";
import { FitPart } from "./FitPart";
import { KitPart } from "./KitPart";
import { LiftPart } from "./LiftPart";
import { MetalsPart } from "./MetalsPart";
import { PiecesPart } from "./Pieces";
import { TogetherPart } from "./TogetherPart";

const LED_TO: readonly (readonly [string, string])[] = [
  ["workshop.stock", "cut"],
  ["workshop.kerf", "cut"],
  ["workshop.trim", "cut"],
  ["workshop.fit", "fit"],
  ["workshop.bolting", "bolts"],
  ["workshop.coat", "metals"],
  ["workshop.lifting", "lift"],
  ["workshop.items", "buy"],
  ["workshop.costing", "buy"],
  ["workshop.packed", "kit"],
  ["workshop", "pieces"],
  ["pieces", "pieces"],
];

function partOf(path: string | null): string | null {
  return LED_TO.find(([start]) => path?.startsWith(start))?.[1] ?? null;
}

export function BuildStation() {
  const { ledTo, selection } = useDesk();
  const job = useStoredJob();
  const pieces = useFinding("pieces");
  const kit = useFinding("kit");
  const steps = useFinding("assembly");
  const [part, setPart] = usePart("build", "cut", partOf(ledTo) ?? (selection?.startsWith("pieces") ? "pieces" : null));
  if (!job.panels.length) return <p>Place a panel first, under Layout; how it holds is chosen under Hold.</p>;
  const packed = kit.filter((line) => line.packed).length;
  const parts: PartInfo[] = [
    { name: "cut", title: "Cut list", body: CutPart },
    { name: "pieces", title: "Pieces", mark: pieces.length ? String(pieces.length) : undefined, body: PiecesPart },
    { name: "bolts", title: "Bolts", body: BoltsPart },
    { name: "fit", title: "Fit", body: FitPart },
    { name: "metals", title: "Metals and coat", body: MetalsPart },
    {
      name: "together",
      title: "Putting together",
      mark: steps.length ? String(steps.length) : undefined,
      body: TogetherPart,
    },
    { name: "lift", title: "Lifting", body: LiftPart },
    { name: "buy", title: "Buying", body: BuyPart },
    { name: "kit", title: "Kit", mark: kit.length ? `${packed}/${kit.length}` : undefined, body: KitPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
