/** One vehicle in the list: its roof to scale beside the others, what stops it, what comes next, what is due. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { http, unwrap } from "../api/client";
import type { Due, Glance, JobListed } from "../api/types";
import { VEHICLES } from "../job/vehicles";
import { dayWords } from "../stations/days/road";
import { useSeen } from "../ui/useSeen";
import { useTry } from "../ui/useTry";

/** The longest roof on the road takes the whole column; all roofs are drawn to one scale. */
const LONGEST_MM = 9_500;

export function JobRow({ job, due }: { job: JobListed; due?: Due | undefined }) {
  const row = useRef<HTMLDivElement>(null);
  const seen = useSeen(row);
  const glance = useQuery({
    queryKey: ["glance", job.id, job.revision],
    enabled: seen,
    retry: false,
    queryFn: ({ signal }) =>
      unwrap(http.GET("/api/jobs/{job_id}/glance", { params: { path: { job_id: job.id } }, signal })),
  }).data;
  const words = VEHICLES.find(([kind]) => kind === job.vehicle)?.[1] ?? job.vehicle;
  const next = glance?.next_step;
  return (
    <div ref={row} className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-4 border-b border-hair">
      <Link
        to={`/jobs/${job.id}/${next?.station ?? "survey"}`}
        className="py-2.5 grid grid-cols-[minmax(0,1fr)] sm:grid-cols-[230px_minmax(0,1fr)] gap-x-5 items-center hover:bg-tape/40"
      >
        <span className="hidden sm:block min-h-[44px]">{glance && <SmallRoof glance={glance} name={job.name} />}</span>
        <span>
          <span className="flex flex-wrap items-baseline gap-x-3">
            <span className="font-sign font-semibold text-[20px]">{job.name}</span>
            <span className="text-soft">
              {words}, {job.panels} {job.panels === 1 ? "panel" : "panels"}
            </span>
            <span className="ml-auto text-soft text-[13px] whitespace-nowrap">
              {new Date(job.changed_at).toLocaleString("en-GB", WHEN)}
            </span>
          </span>
          {glance && glance.stops.length > 0 && (
            <span className="block text-signal font-semibold text-[14px]">
              Stops: {glance.stops.join("; ")}
              {glance.more_stops > 0 && ` and ${glance.more_stops} more`}
            </span>
          )}
          {next && (
            <span className="block text-[14px]">
              <b>Next:</b> {next.words}
            </span>
          )}
          {due && (
            <span className={`block text-[14px] ${due.late ? "text-signal font-semibold" : ""}`}>
              {due.late ? "Late" : "Due"} {dayWords(due.by)}: {due.what}
            </span>
          )}
        </span>
      </Link>
      <Remove job={job} />
    </div>
  );
}

const WHEN = { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" } as const;

function Remove({ job }: { job: JobListed }) {
  const client = useQueryClient();
  const [sure, setSure] = useState(false);
  const [attempt, problem] = useTry();
  const remove = async () => {
    await attempt(async () => {
      await unwrap(http.DELETE("/api/jobs/{job_id}", { params: { path: { job_id: job.id } } }));
    });
    await client.invalidateQueries({ queryKey: ["jobs"] });
  };
  if (!sure)
    return (
      <button type="button" className="act plain" aria-label={`Remove ${job.name} …`} onClick={() => setSure(true)}>
        Remove …
      </button>
    );
  return (
    <span className="flex gap-2">
      <button type="button" className="act" onClick={() => void remove()}>
        Remove {job.name}
      </button>
      <button type="button" className="act plain" onClick={() => setSure(false)}>
        Keep
      </button>
      {problem}
    </span>
  );
}

function SmallRoof({ glance, name }: { glance: Glance; name: string }) {
  const { roof, outline, shapes, word } = glance;
  if (!roof) return <span className="text-soft text-[13px]">roof not measured</span>;
  const pad = 60;
  const box = `${-pad} ${roof.y_mm - pad} ${roof.length_mm + 2 * pad} ${roof.width_mm + 2 * pad}`;
  const wide = Math.min(1, (roof.length_mm + 2 * pad) / LONGEST_MM);
  const ink = word === "refused" ? "var(--color-signal)" : "var(--color-ink)";
  return (
    <svg
      role="img"
      aria-label={`${name}: ${word}`}
      viewBox={box}
      style={{ width: `${Math.max(30, wide * 100)}%` }}
      className="block"
    >
      <polygon
        points={outline.map((p) => `${p.x_mm},${p.y_mm}`).join(" ")}
        fill="var(--color-paper)"
        stroke="var(--color-ink)"
        strokeWidth={44}
      />
      {shapes.map(({ id, kind, rect: r }) => (
        <rect
          key={id}
          x={r.x_mm}
          y={r.y_mm}
          width={r.length_mm}
          height={r.width_mm}
          fill={kind === "panel" ? ink : "var(--color-hair)"}
          fillOpacity={kind === "panel" ? 0.25 : 1}
          stroke={kind === "panel" ? ink : "none"}
          strokeWidth={38}
        />
      ))}
    </svg>
  );
}
