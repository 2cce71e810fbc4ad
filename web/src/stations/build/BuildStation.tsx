/** What is made in the workshop: the cut list, and every piece with its holes. */
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { Bolts } from "./Bolts";
import { CutLists } from "./CutLists";
import { Pieces } from "./Pieces";
import { StockPart } from "./StockPart";

const FILES = [
  ["pieces.csv", "Pieces and their holes, CSV"],
  ["pieces.dxf", "Pieces at true scale, DXF"],
  ["pieces.svg", "Pieces at true scale, SVG"],
  ["cut-list.csv", "Cut list, CSV"],
] as const;

function Files() {
  const { id } = useDesk();
  return (
    <div className="flex flex-wrap gap-2 py-2">
      {FILES.map(([name, words]) => (
        <a key={name} className="act" href={`/api/jobs/${id}/files/${name}`} download>
          {words}
        </a>
      ))}
    </div>
  );
}

export function BuildStation() {
  const pieces = useFinding("pieces");
  const job = useStoredJob();
  if (!pieces.length)
    return (
      <p className="max-w-[60ch]">
        {job.carriers.length
          ? "Nothing is cut for these carriers: their rails are the vehicle's own, or a section has no values yet."
          : "Panels on feet need no pieces. Rails, racks, frames and posts, chosen under Hold, come here as pieces to cut and drill."}
      </p>
    );
  return (
    <>
      <CutLists />
      <StockPart />
      <Pieces pieces={pieces} />
      <Bolts />
      <Files />
    </>
  );
}
