/** What plugs into what: strings and controllers, ways to plug, curves, limits, cables, the meter, the diagram. */
import { useEffect } from "react";
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { cablesLookedAt } from "./CableShapes";
import { CablesPart } from "./CablesPart";
import { CurvesPart } from "./CurvesPart";
import { DiagramPart } from "./DiagramPart";
import { LimitsPart } from "./LimitsPart";
import { MeterPart } from "./MeterPart";
import { SheetsPart } from "./SheetsPart";
import { StringsPart } from "./StringsPart";
import { WaysPart } from "./WaysPart";

const LED_TO: readonly (readonly [string, string])[] = [
  ["wiring.meter", "meter"],
  ["wiring.points", "cables"],
  ["wiring.lead", "cables"],
  ["wiring.inside", "cables"],
  ["wiring.cable", "cables"],
  ["wiring.coldest", "limits"],
  ["wiring.warmest", "limits"],
  ["wiring.", "strings"],
  ["panels.", "sheets"],
];

const partOf = (path: string | null) => LED_TO.find(([start]) => path?.startsWith(start))?.[1] ?? null;

export function WireStation() {
  const { ledTo } = useDesk();
  const job = useStoredJob();
  const arrays = useFinding("arrays");
  const [part, setPart] = usePart("wire", "strings", partOf(ledTo));
  useEffect(() => {
    cablesLookedAt.set(true);
    return () => cablesLookedAt.set(false);
  }, []);
  if (!job.panels.length) return <p>Place a panel first, under Layout.</p>;
  const broken = arrays.flatMap((a) => a.limits).filter((limit) => limit.held === false).length;
  const parts: PartInfo[] = [
    { name: "strings", title: "Strings", mark: String(job.wiring.strings.length || ""), body: StringsPart },
    { name: "ways", title: "Ways to plug", body: WaysPart },
    { name: "curves", title: "Curves", body: CurvesPart },
    { name: "sheets", title: "Sheets", body: SheetsPart },
    { name: "limits", title: "Limits", mark: broken ? `${broken}!` : undefined, body: LimitsPart },
    { name: "cables", title: "Cables", body: CablesPart },
    { name: "meter", title: "Meter", mark: String(job.wiring.meter.length || ""), body: MeterPart },
    { name: "diagram", title: "Diagram", body: DiagramPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
