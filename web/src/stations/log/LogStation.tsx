/** What was done and seen, whether it is still tight, and the paper that goes with it. */
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { HandoverPart } from "./HandoverPart";
import { RecordPart } from "./RecordPart";
import { TightPart } from "./TightPart";

const partOf = (path: string | null) => (path?.startsWith("care") ? "tight" : null);

export function LogStation() {
  const { ledTo } = useDesk();
  const bad = useFinding("judged").filter((v) => v.verdict !== "drive on").length;
  const [part, setPart] = usePart("log", "record", partOf(ledTo));
  const parts: PartInfo[] = [
    { name: "record", title: "Record", body: RecordPart },
    { name: "tight", title: "Still tight?", mark: bad ? `${bad}!` : undefined, body: TightPart },
    { name: "handover", title: "Handover", body: HandoverPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
