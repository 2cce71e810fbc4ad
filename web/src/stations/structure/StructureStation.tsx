import { Group } from "../../fields/Field";
import { usePart } from "../../fields/usePart";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { BaysPart } from "./BaysPart";
import { Fit } from "./Fit";
import { KnownPart } from "./KnownPart";
import { LinesPart } from "./LinesPart";
import { NextCheckCard } from "./NextCheckCard";
import { ReadingEntry } from "./ReadingEntry";
import { ReadingList } from "./ReadingList";

function partOf(path: string | null): string | null {
  if (path?.startsWith("mounting")) return "lines";
  if (path?.startsWith("members") || path?.startsWith("scans")) return "known";
  return path?.startsWith("readings") || path?.startsWith("structure") ? "members" : null;
}

export function StructureStation() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const bays = useFinding("bays");
  const [part, setPart] = usePart("structure", "members", partOf(selection));
  const count = (n: number) => (n ? String(n) : undefined);
  const parts: PartInfo[] = [
    { name: "members", title: "Readings, members", mark: count(job.readings.length), body: MembersPart },
    { name: "known", title: "Known, searched", mark: count(job.scans.length), body: KnownPart },
    { name: "lines", title: "Mounting lines", mark: count(job.mounting.marks.length), body: LinesPart },
    { name: "bays", title: "Bays", mark: count(bays.length), body: BaysPart },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}

/** On a phone the next check comes first: whoever stands on the ladder looks for it. */
function MembersPart() {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[4fr_5fr] xl:grid-rows-[auto_1fr] gap-x-8">
      <div className="xl:row-span-2">
        <Group
          title="Readings along the roof"
          aside={<span className="text-soft text-[13px]">from the front edge, aft</span>}
        >
          <ReadingEntry />
          <ReadingList />
        </Group>
      </div>
      <div className="order-first xl:order-none">
        <NextCheckCard />
      </div>
      <Fit />
    </div>
  );
}
