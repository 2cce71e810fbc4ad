import { usePart } from "../../fields/usePart";
import { useDesk, useEvaluation, useStoredJob } from "../../job/JobContext";
import { type PartInfo, Parts } from "../../ui/Parts";
import { AccessPart } from "./AccessPart";
import { CrownPart } from "./CrownPart";
import { Obstacles } from "./Obstacles";
import { OldWorkPart } from "./OldWorkPart";
import { OutlinePart } from "./OutlinePart";
import { PointsPart } from "./PointsPart";
import { SquarePart } from "./SquarePart";
import { VehiclePart } from "./VehiclePart";

/** Which part shows the thing a path names. */
function partOf(path: string | null): string | null {
  if (!path) return null;
  if (path.startsWith("obstacles")) return "obstacles";
  if (path.startsWith("vehicle")) return "vehicle";
  const owner: Record<string, string> = {
    outline: "outline",
    sections: "outline",
    crown: "crown",
    point_rows: "points",
    scars: "old-work",
    keep_outs: "access",
    access: "access",
    squareness: "square",
  };
  return path.startsWith("survey.") ? (owner[path.split(".")[1] ?? ""] ?? null) : null;
}

export function SurveyStation() {
  const { selection } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const [part, setPart] = usePart("survey", "vehicle", partOf(selection));
  const survey = job.survey;
  const found = evaluation.findings.survey;
  const count = (n: number) => (n ? String(n) : undefined);
  const parts: PartInfo[] = [
    { name: "vehicle", title: "Vehicle", body: VehiclePart },
    { name: "outline", title: "Outline", mark: count(survey.sections.length), body: OutlinePart },
    { name: "crown", title: "Crown", mark: found.crown ? count(found.crown.readings) : undefined, body: CrownPart },
    { name: "points", title: "Factory points", mark: count(survey.point_rows.length), body: PointsPart },
    { name: "obstacles", title: "Obstacles", mark: count(job.obstacles.length), body: Obstacles },
    { name: "old-work", title: "Old work", mark: count(survey.scars.length), body: OldWorkPart },
    { name: "access", title: "Access", mark: count(survey.keep_outs.length), body: AccessPart },
    {
      name: "square",
      title: "Square",
      mark: found.square ? (found.square.square ? "✓" : "!") : undefined,
      body: SquarePart,
    },
  ];
  return <Parts parts={parts} current={part} choose={setPart} />;
}
