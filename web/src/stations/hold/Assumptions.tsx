import { Choice, Field, Group } from "../../fields/Field";
import { useStoredJob } from "../../job/JobContext";

/** Judgements behind the verdict, open to change; each is a default until it is. */
export function Assumptions() {
  const job = useStoredJob();
  const a = job.assumptions;
  return (
    <Group
      title="Assumptions"
      aside={<span className="text-soft text-[13px]">judgements; change them for your road</span>}
    >
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <Field label="Headwind gust" path="assumptions.gust" value={a.gust} />
        <Field label="Coldest driving day" path="assumptions.coldest" value={a.coldest} hint="cold air is heavy" />
        <Field
          label="Basic wind, parked"
          path="assumptions.basic_wind"
          value={a.basic_wind}
          hint="mean at 10 m, wind map"
        />
        <Choice
          label="Ground around"
          path="assumptions.terrain"
          value={a.terrain ?? (job.vehicle.kind === "boat" ? "water" : "land")}
          options={[
            ["land", "open land"],
            ["water", "lake or sea"],
          ]}
        />
        <Field label="Upward bump, g" path="assumptions.bump_g" value={a.bump_g} hint="1 normal, 2 rough" />
        <Choice
          label="Front edge"
          path="assumptions.front_edge"
          value={a.front_edge}
          options={[
            ["open", "open to the stream"],
            ["faired", "behind a fairing"],
          ]}
        />
        <Field label="Wanted to the edge" path="assumptions.edge_clearance" value={a.edge_clearance} />
        <Field label="Wanted between panels" path="assumptions.panel_gap" value={a.panel_gap} />
      </div>
      <p className="text-soft text-[13px] pt-1.5">
        Planning aid. A panel that leaves the roof can kill: makers’ instructions, local rules and licensed practice
        come first.
      </p>
    </Group>
  );
}
