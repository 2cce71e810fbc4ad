/** What keeps water out: the seal list, its layers, what bonds, where water runs, the gland, the proof. */
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { BondPart } from "./BondPart";
import { GlandPart } from "./GlandPart";
import { LayersPart } from "./LayersPart";
import { ListPart } from "./ListPart";
import { ProofPart } from "./ProofPart";
import { WaterPart } from "./WaterPart";

const LED_TO: readonly (readonly [string, string])[] = [
  ["seal.gland", "gland"],
  ["seal.moisture", "proof"],
  ["seal.lean", "water"],
  ["seal.nose", "water"],
  ["seal.sheets", "bonds"],
  ["seal.substrate", "layers"],
  ["seal.temperature", "list"],
  ["seal.humidity", "list"],
  ["seal.", "layers"],
];

const partOf = (path: string | null) => LED_TO.find(([start]) => path?.startsWith(start))?.[1] ?? null;

export function SealStation() {
  const { ledTo } = useDesk();
  const places = useFinding("seal_places");
  const proof = useFinding("proof");
  const [part, setPart] = usePart("seal", "list", partOf(ledTo));
  const parts: PartInfo[] = [
    { name: "list", title: "Seal list", mark: places.length ? String(places.length) : undefined, body: ListPart },
    { name: "layers", title: "Layers", body: LayersPart },
    { name: "bonds", title: "What bonds", body: BondPart },
    { name: "water", title: "Water", body: WaterPart },
    { name: "gland", title: "Gland", body: GlandPart },
    {
      name: "proof",
      title: "Proof",
      mark: proof?.steps.length ? String(proof.steps.length) : undefined,
      body: ProofPart,
    },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
