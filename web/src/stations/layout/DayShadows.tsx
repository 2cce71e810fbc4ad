/** One day's shadows on the roof itself: slide through the hours, turn the vehicle, and the strip shows where they lie. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { http, unwrap } from "../../api/client";
import type { ShadeMoment } from "../../api/types";
import { Group, Pick } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { shadowsLookedAt } from "../../roof/shadows";
import { clock, percent } from "../../ui/format";
import { Slide } from "../../ui/Slide";

const NOON = 12;
const SOUTH_DEG = 180;
const FROM = [
  "ahead",
  "ahead to starboard",
  "starboard",
  "behind to starboard",
  "behind",
  "behind to port",
  "port",
  "ahead to port",
];

export function DayShadows({ months }: { months: readonly string[] }) {
  const { id } = useDesk();
  const job = useStoredJob();
  const revision = useRevision();
  const [month, setMonth] = useState(months.at(-1) ?? "");
  const [hour, setHour] = useState(NOON);
  const [turned, setTurned] = useState<number | null>(null);
  const heading = turned ?? job.site.heading?.deg ?? SOUTH_DEG;
  const query = { month: months.indexOf(month) + 1, heading_deg: heading };
  const { data } = useQuery({
    queryKey: ["day", id, revision, query],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/day", { params: { path: { job_id: id }, query } })),
  });
  const moment = momentAt(data ?? [], hour);
  useEffect(() => {
    shadowsLookedAt.set(moment ?? null);
    return () => shadowsLookedAt.set(null);
  }, [moment]);
  if (!data) return null;
  return (
    <Group
      title="Shadows on the roof"
      aside={
        <Pick
          bare
          label="Month of the shadows"
          value={month}
          onChange={setMonth}
          options={months.map((m) => [m, m] as const)}
        />
      }
    >
      {moment ? (
        <>
          <div className="grid grid-cols-2 gap-x-6">
            <Slide
              label="Hour by the mean sun"
              value={moment.hour}
              shown={clock(moment.hour)}
              min={data[0]?.hour ?? 0}
              max={data.at(-1)?.hour ?? 24}
              step={0.5}
              onChange={setHour}
            />
            <Slide
              label="Front points to"
              value={heading}
              shown={`${heading}°`}
              min={0}
              max={360}
              step={5}
              onChange={setTurned}
            />
          </div>
          <p aria-live="polite">
            <MomentInWords moment={moment} names={new Map(job.panels.map((p) => [p.id, p.name]))} />
          </p>
        </>
      ) : (
        <p>No sun on the 15th of this month.</p>
      )}
    </Group>
  );
}

/** The moment nearest to an hour; days are short in winter. */
export function momentAt(day: readonly ShadeMoment[], hour: number): ShadeMoment | undefined {
  return day.toSorted((a, b) => Math.abs(a.hour - hour) - Math.abs(b.hour - hour))[0];
}

export function MomentInWords({ moment, names }: { moment: ShadeMoment; names: ReadonlyMap<string, string> }) {
  const shaded = moment.shadows.filter((s) => s.panel && s.share >= 0.005);
  return (
    <>
      Sun from {FROM[Math.round(moment.bearing_deg / 45) % FROM.length]}, {Math.round(moment.elevation_deg)}° high.{" "}
      {shaded.length > 0 ? (
        <span className="font-semibold">
          In shadow: {shaded.map((s) => `${names.get(s.panel) ?? s.panel} ${percent(s.share)}`).join(", ")}.
        </span>
      ) : (
        "No panel in shadow."
      )}
    </>
  );
}
