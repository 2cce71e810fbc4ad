/** What is known without a reading: what members are, a pitch from a drawing, an end bay; and stretches that were searched. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group } from "../../fields/Field";
import { useStoredJob } from "../../job/JobContext";
import { KIND_WORDS } from "../../roof/names";
import { percent } from "../../ui/format";

const KIND_OPTIONS = Object.entries(KIND_WORDS);

export function KnownPart() {
  const job = useStoredJob();
  const m = job.members;
  const catalogue = useQuery({
    queryKey: ["catalogue"],
    queryFn: () => unwrap(http.GET("/api/catalogue")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const usual = (id: string) => {
    const kind = catalogue.data?.reading_kinds.find((k) => k.value === job.trust.find((t) => t.id === id)?.kind);
    return kind ? `± ${kind.sigma_mm} mm, ${percent(kind.false_share)} false, ${percent(kind.miss_share)} missed` : "";
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <div>
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
        <Group
          title="Known spacing"
          aside={<span className="text-soft text-[13px]">from a drawing; memory is only a hint</span>}
        >
          <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5">
            <Field label="Pitch" path="members.known_pitch" value={m.known_pitch} placeholder="25 1/2 in" clearable />
            <Field
              label="Give or take"
              path="members.known_pitch_within"
              value={m.known_pitch_within}
              placeholder="10 mm"
              clearable
            />
            <Field
              label="Front edge to first member"
              path="members.known_front_bay"
              value={m.known_front_bay}
              clearable
            />
            <Field label="Last member to rear edge" path="members.known_rear_bay" value={m.known_rear_bay} clearable />
          </div>
        </Group>
      </div>
      <div>
        <Group
          title="Searched from end to end"
          aside={<span className="text-soft text-[13px]">a search that finds nothing tells as much</span>}
        >
          <EntryTable
            path="scans"
            noun="search"
            entries={job.scans}
            empty="Say where you searched and how; hits in it are readings as usual."
            columns={[
              { key: "start", label: "from x", placeholder: "1.2 m" },
              { key: "end", label: "to x", placeholder: "2.6 m" },
              {
                key: "kind",
                label: "by",
                options: [
                  ["magnet", "magnet"],
                  ["seen", "eye, from inside"],
                  ["rivet_row", "rivet rows"],
                  ["stud_finder", "stud finder"],
                  ["knock", "knocking"],
                ],
              },
              { key: "struck", label: "struck out", tick: true, width: "14%" },
            ]}
          />
        </Group>
        <Group
          title="How far to trust your readings"
          aside={<span className="text-soft text-[13px]">common practice where blank</span>}
        >
          <EntryTable
            path="trust"
            noun="trust"
            entries={job.trust}
            empty="Only if your crew’s magnet or knuckle is better or worse than usual."
            told={(id) => usual(id)}
            toldLabel="usual"
            columns={[
              { key: "kind", label: "kind", width: "24%", options: KIND_OPTIONS },
              { key: "sigma", label: "noise ±", placeholder: "8 mm", optional: true },
              { key: "false_share", label: "false, share", placeholder: "0.1", optional: true },
              { key: "miss_share", label: "missed, share", placeholder: "0.2", optional: true },
            ]}
          />
        </Group>
      </div>
    </div>
  );
}
