/** What no chain judges: the forces that reach the ends of the members, for whoever can look at them. */
import { Group } from "../../fields/Field";
import { useFinding, useUnits } from "../../job/JobContext";
import { force } from "../../ui/format";

const SHOWN = 4;

export function Unjudged() {
  const ends = useFinding("unjudged");
  const units = useUnits();
  if (!ends.length) return null;
  const worst = [...ends].sort((a, b) => b.force_n - a.force_n).slice(0, SHOWN);
  return (
    <Group title="Not judged">
      <p>
        {worst.map((end) => `${force(end.force_n, units)} at the ${end.side} end of member ${end.member}`).join(", ")}
        {ends.length > SHOWN ? "; less at the others" : ""}: nobody has said what the welds, rivets or staples there
        bear. Neither has the vehicle’s maker.
      </p>
    </Group>
  );
}
