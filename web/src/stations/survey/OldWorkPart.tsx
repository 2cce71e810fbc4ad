import { EntryTable } from "../../fields/EntryTable";
import { Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { useLog } from "../../job/useLog";
import { shown } from "../../ui/format";
import { Picture, SeenBefore } from "../log/PlacePictures";

export function OldWorkPart() {
  return (
    <>
      <Scars />
      <Pictures />
    </>
  );
}

/** What it looked like before it was closed: for the record, and for whoever looks for the leak. */
function Pictures() {
  const { id } = useDesk();
  const { scars } = useStoredJob().survey;
  const log = useLog(id);
  const units = useUnits();
  if (!scars.length) return null;
  return (
    <Group title="Pictures">
      <ul className="grid sm:grid-cols-2 gap-x-8">
        {scars.map((scar) => {
          const where = `scar ${scar.id}`;
          return (
            <li key={scar.id} className="flex items-center gap-3 border-b border-hair py-1.5">
              <span className="font-semibold flex-1">
                {scar.kind.replace("_", " ")} at {shown(scar.x, units)}
                {scar.note && <span className="font-normal text-[13px]">, {scar.note}</span>}
              </span>
              <SeenBefore where={where} />
              <Picture where={where} log={log} />
            </li>
          );
        })}
      </ul>
    </Group>
  );
}

function Scars() {
  const job = useStoredJob();
  const found = useFinding("survey");
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
          { key: "count", label: "how many", placeholder: "1", optional: true, width: "9%" },
          { key: "size", label: "size", placeholder: "6 mm", optional: true, width: "9%" },
        ]}
      />
    </Group>
  );
}
