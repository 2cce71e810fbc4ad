import { useJobView } from "../../app/JobContext";
import { Choice, Field, Group } from "../../ui/Field";
import { Fit } from "./Fit";
import { ReadingEntry } from "./ReadingEntry";
import { ReadingList } from "./ReadingList";

export function StructureStation() {
  const { job } = useJobView();
  const m = job.members;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[4fr_5fr] gap-x-8">
      <Group
        title="Readings along the roof"
        aside={<span className="text-soft text-[13px]">from the front edge, aft</span>}
      >
        <ReadingEntry />
        <ReadingList />
      </Group>
      <div>
        <Fit />
        <Group title="What the members are">
          <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
            <Choice
              label="Members"
              path="members.kind"
              value={m.kind}
              options={[
                ["steel_hat", "steel hat ribs"],
                ["aluminium_box", "aluminium boxes"],
                ["wood_truss", "wood trusses"],
              ]}
            />
            <Field label="Face width" path="members.face_width" value={m.face_width} placeholder="45 mm" clearable />
            {m.kind !== "wood_truss" && (
              <Field label="Wall" path="members.wall" value={m.wall} placeholder="1.5 mm" clearable />
            )}
            <Field label="Depth to ceiling" path="members.depth" value={m.depth} placeholder="38 mm" clearable />
          </div>
        </Group>
      </div>
    </div>
  );
}
