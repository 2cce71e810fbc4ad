/** Where nothing is cut: why, and what would bring it here. */
import { useStoredJob } from "../../job/JobContext";

export function NoPieces() {
  const job = useStoredJob();
  return (
    <p className="max-w-[60ch]">
      {job.carriers.length
        ? "Nothing is cut for these carriers: their rails are the vehicle's own, or a section has no values yet."
        : "Panels on feet need no pieces, unless their brackets are bent here. Rails, racks, frames and posts, chosen under Hold, come here as pieces to cut and drill."}
    </p>
  );
}
