/** The curves of every controller at a chosen hour under the shadows of the roof, or in the full light of a data sheet. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { http, unwrap } from "../../api/client";
import type { ArrayCurve } from "../../api/types";
import { Group, Pick } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { shadowsLookedAt } from "../../roof/shadows";
import { clock, temperature } from "../../ui/format";
import { Slide } from "../../ui/Slide";
import { CurvePlot } from "./CurvePlot";
import { AMPS, MONTHS } from "./words";

const FULL = "full";
const SOUTH_DEG = 180;

export function CurvesPart() {
  const { id } = useDesk();
  const job = useStoredJob();
  const revision = useRevision();
  const placed = Boolean(job.site.climate || job.site.months.length);
  const [light, setLight] = useState(FULL);
  const [hour, setHour] = useState(12);
  const heading = job.site.heading?.deg ?? SOUTH_DEG;
  const month = light === FULL ? null : Number(light);
  const query = month === null ? {} : { month, hour, heading_deg: heading };
  const { data, error } = useQuery({
    queryKey: ["curves", id, revision, query],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/curves", { params: { path: { job_id: id }, query } })),
  });
  useShadows(id, revision, month, hour, heading);
  return (
    <>
      <div className="grid grid-cols-1 sm:grid-cols-[240px_minmax(0,420px)] gap-x-8 pb-2">
        <Pick
          label="Light"
          value={light}
          onChange={setLight}
          options={[
            [FULL, "full light of a data sheet"],
            ...(placed ? MONTHS.map((m, i) => [String(i + 1), `a clear day in ${m}`] as const) : []),
          ]}
        />
        {month !== null && (
          <Slide
            label="Hour by the mean sun"
            value={hour}
            shown={clock(hour)}
            min={4}
            max={21}
            step={0.5}
            onChange={setHour}
          />
        )}
        {!placed && <p className="text-[13px] self-end">For hours and shadows say under Layout where it stands.</p>}
      </div>
      {error && (
        <p role="alert" className="font-semibold">
          {error.message}
        </p>
      )}
      {!error && data?.length === 0 && <p>Plug panels into strings first.</p>}
      {!error && data?.map((curve) => <One key={curve.controller} curve={curve} />)}
    </>
  );
}

/** The same hour's shadows on the roof strip, as under Layout. */
function useShadows(id: string, revision: number, month: number | null, hour: number, heading: number) {
  const { data } = useQuery({
    queryKey: ["day", id, revision, { month, heading_deg: heading }],
    enabled: month !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      unwrap(
        http.GET("/api/jobs/{job_id}/day", {
          params: { path: { job_id: id }, query: { month: month ?? 1, heading_deg: heading } },
        }),
      ),
  });
  const moment =
    month === null
      ? null
      : ((data ?? []).toSorted((a, b) => Math.abs(a.hour - hour) - Math.abs(b.hour - hour))[0] ?? null);
  useEffect(() => {
    shadowsLookedAt.set(moment);
    return () => shadowsLookedAt.set(null);
  }, [moment]);
}

function One({ curve }: { curve: ArrayCurve }) {
  const units = useUnits();
  const bypassed = curve.strings.flatMap((s) => s.bypassed);
  const back = curve.strings.filter((s) => s.open_backwards_a > 0 || s.backwards_a > 0);
  const { low, high } = curve.light;
  return (
    <Group
      title={curve.name}
      aside={
        <span className="text-[13px]">
          {low.toFixed(0)}
          {high - low > 1 ? ` to ${high.toFixed(0)}` : ""} W/m², cells {temperature(curve.cell_c.low, units)}
          {curve.cell_c.high - curve.cell_c.low > 1 ? ` to ${temperature(curve.cell_c.high, units)}` : ""}
        </span>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-8">
        <CurvePlot curve={curve} />
        <div>
          <p className="font-sign font-semibold text-[26px] leading-8" aria-live="polite">
            {Math.round(curve.at_w)} W{" "}
            <span className="text-[17px] font-normal">
              of {Math.round(curve.alone_w)} W that its panels give each by itself
            </span>
          </p>
          {curve.lost_percent >= 0.05 && (
            <p>
              <b>{curve.lost_percent.toFixed(1)} %</b> is lost by plugging them so, or not taken by the controller.
            </p>
          )}
          {bypassed.length > 0 && <p>Passed by: {bypassed.join("; ")}.</p>}
          {curve.maxima.length > 1 && (
            <p>
              {curve.maxima.length} hills:{" "}
              {curve.maxima.map((hill) => `${Math.round(hill.watts)} W at ${hill.volts.toFixed(0)} V`).join(", ")}. A
              simple controller may stay on the wrong one.
            </p>
          )}
          {back.map((s) => (
            <p key={s.string} className="text-signal font-semibold">
              {s.name} is driven backwards
              {s.backwards_a > 0 ? ` at ${AMPS(s.backwards_a)}` : ""}
              {s.open_backwards_a > 0 ? `, ${AMPS(s.open_backwards_a)} while the battery is full` : ""}.
            </p>
          ))}
          <p className="text-[13px] pt-1">
            Thick: amps of all strings; thin: each string; hatched: power. Yellow: where the controller takes it.
          </p>
        </div>
      </div>
    </Group>
  );
}
