import { EntryTable } from "../../fields/EntryTable";
import { Group } from "../../fields/Field";
import { useFinding, useStoredJob } from "../../job/JobContext";

export function OldWorkPart() {
  const job = useStoredJob();
  const survey = useFinding("survey");
  const found = survey;
  const entries = new Map(found.seal_entries.map((e) => [e.scar, e]));
  return (
    <Group
      title="Old holes, screws, cables, glue, panels to come off"
      aside={
        found.removal_h > 0 && (
          <span className="font-semibold">about {found.removal_h.toFixed(1)} person-hours (common practice)</span>
        )
      }
    >
      <EntryTable
        path="survey.scars"
        noun="scar"
        entries={job.survey.scars}
        empty="Each becomes an entry of the seal list: none may be under a panel unsealed."
        told={(id) => entries.get(id)?.how}
        toldLabel="how it is closed"
        columns={[
          {
            key: "kind",
            label: "what",
            width: "17%",
            options: [
              ["hole", "hole"],
              ["screw", "screw"],
              ["cable", "cut cable"],
              ["glue_dab", "dab of sealant"],
              ["glued_panel", "glued panel"],
              ["bolted_panel", "bolted panel"],
            ],
          },
          { key: "x", label: "x", placeholder: "1.2 m", width: "11%" },
          { key: "y", label: "y", placeholder: "-40 cm", width: "11%" },
          { key: "count", label: "how many", placeholder: "1", number: true, optional: true, width: "9%" },
          { key: "size", label: "size", placeholder: "6 mm", optional: true, width: "9%" },
        ]}
      />
    </Group>
  );
}
