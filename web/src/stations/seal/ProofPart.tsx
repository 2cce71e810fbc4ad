/** How it is proved: water from low to high, readings inside, when to look again. */
import { EntryTable } from "../../fields/EntryTable";
import { Group } from "../../fields/Field";
import { useFinding, useStoredJob } from "../../job/JobContext";

export function ProofPart() {
  const proof = useFinding("proof");
  const { seal } = useStoredJob();
  const places = useFinding("seal_places");
  if (!proof?.steps.length) return <p>Nothing to prove yet: the seal list is empty.</p>;
  const names = [...new Set(places.filter((p) => p.kind !== "open tube").map((p) => p.name))];
  return (
    <>
      <Group
        title="Hose test"
        aside={
          <span className="text-[13px]">
            {Math.round(proof.minutes)} minutes; look again every{" "}
            {proof.every_years === 1 ? "year" : `${proof.every_years} years`}
          </span>
        }
      >
        <p className="max-w-[70ch] pb-1">
          A soft jet, the lowest places first, all higher ones dry; somebody inside with a lamp. What drips then is one
          of the places just wetted. Not before the sealant has its skin.
        </p>
        <ol className="max-w-[860px]">
          {proof.steps.map((step) => (
            <li key={step.number} className="grid grid-cols-[2.2rem_minmax(0,1fr)] border-b border-hair py-1">
              <span className="font-sign font-semibold text-[19px] leading-6 text-chalk">{step.number}</span>
              <span>
                {step.places.slice(0, 6).join("; ")}
                {step.places.length > 6 && ` and ${step.places.length - 6} more`}
              </span>
            </li>
          ))}
        </ol>
      </Group>
      <Group title="Moisture inside">
        <EntryTable
          path="seal.moisture"
          noun="reading"
          columns={[
            { key: "place", label: "place", options: names.map((n) => [n, n] as const) },
            { key: "percent", label: "percent", placeholder: "12" },
            { key: "note", label: "note", optional: true },
          ]}
          entries={seal.moisture}
          empty="Type what the meter shows beside each place; over 20 % is wet."
        />
      </Group>
    </>
  );
}
