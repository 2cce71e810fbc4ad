/** Layouts that were kept, side by side with what is on the roof; one is chosen, and the reason stays. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import type { LayoutFigures, Units, VariantLine } from "../../api/types";
import { Group } from "../../fields/Field";
import { useKept } from "../../job/drafts";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { feetInMembers, length, mass, seenInTheStreet, speed, yearEnergy } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { MiniRoof } from "./MiniRoof";

export function VariantsPart() {
  const { id, handle } = useDesk();
  const job = useStoredJob();
  const revision = useRevision();
  const [name, setName] = useKept(id, "variant name", "");
  const [attempt, problem] = useTry();
  const { data, isPlaceholderData, isFetching } = useQuery({
    queryKey: ["variants", id, revision],
    placeholderData: keepPreviousData,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/variants", { params: { path: { job_id: id } } })),
  });
  const keep = () =>
    attempt(async () => {
      await handle.edit([{ op: "keep_variant", name: name.trim() || `Layout ${job.variants.length + 1}`, note: "" }]);
      setName("");
    });
  return (
    <>
      <Group
        title="Side by side"
        aside={isPlaceholderData && <span className="text-[13px]">working it out anew …</span>}
      >
        <form
          className="flex gap-2 pb-2"
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <input
            className="box !w-64"
            aria-label="Name of the variant"
            placeholder={`Layout ${job.variants.length + 1}`}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <button type="submit" className="act" disabled={!job.panels.length}>
            Keep what is on the roof
          </button>
        </form>
        {problem}
        {!job.variants.length && (
          <p className="pb-1">Keep a layout before you change it, or take some of the proposals. Then compare.</p>
        )}
        {!data && isFetching && <p aria-live="polite">Working the layouts out side by side …</p>}
        {data && <Table lines={data} />}
      </Group>
      {job.decisions.length > 0 && (
        <Group title="Decided">
          <ul>
            {job.decisions.map((decision) => (
              <li key={decision.id} className="border-b border-hair py-1">
                <span className="font-semibold">{decision.name}</span>: {decision.reason}
                {decision.over.length > 0 && <span className="text-soft"> Not: {decision.over.join(", ")}.</span>}
              </li>
            ))}
          </ul>
        </Group>
      )}
    </>
  );
}

type Row = { label: string; of: (f: LayoutFigures, units: Units) => string };

const ROWS: readonly Row[] = [
  { label: "panels", of: (f) => f.models.map((m) => `${m.count} × ${m.model}`).join(", ") || "none" },
  { label: "power", of: (f) => `${Math.round(f.watts)} W` },
  {
    label: "a year",
    of: (f) => (f.year_wh === null || f.year_wh === undefined ? "place not known" : yearEnergy(f.year_wh)),
  },
  { label: "feet in members", of: feetInMembers },
  { label: "new holes", of: (f) => String(f.holes) },
  { label: "mass", of: (f, units) => mass(f.mass_kg, units) },
  { label: "height", of: (f, units) => length(f.height_mm, units) },
  { label: "seen in the street", of: (f, units) => seenInTheStreet(f.seen, units) },
  { label: "price", of: (f) => (f.price === null || f.price === undefined ? "not known" : f.price.toFixed(0)) },
  {
    label: "let-go, safe speed",
    of: (f, units) =>
      f.let_go_m_s === null || f.let_go_m_s === undefined
        ? "not known"
        : `${speed(f.let_go_m_s, units)}, ${speed(f.safe_m_s ?? 0, units)}`,
  },
  { label: "mirrored", of: (f) => `${Math.round(f.mirrored * 100)} %` },
  { label: "snags", of: (f) => `${f.stops} stop, ${f.cautions} caution` },
];

function Table({ lines }: { lines: readonly VariantLine[] }) {
  const units = useUnits();
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Layouts side by side">
      <table className="sheet-table table-fixed" style={{ minWidth: `${lines.length * 190 + 110}px` }}>
        <thead>
          <tr>
            <th className="w-28" />
            {lines.map((line) => (
              <th key={line.id} className="!text-ink !text-[16px] !font-semibold !whitespace-normal align-bottom">
                {line.name}
                {line.chosen && <span className="text-chalk"> chosen</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <td />
            {lines.map((line) => (
              <td key={line.id}>
                <MiniRoof rects={line.rects} label={`${line.name}: ${line.figures.panels} panels`} />
              </td>
            ))}
          </tr>
          {ROWS.map((row) => (
            <tr key={row.label}>
              <td className="label whitespace-nowrap">{row.label}</td>
              {lines.map((line) => {
                const told = row.of(line.figures, units);
                const other = lines[0] !== undefined && row.of(lines[0].figures, units) !== told;
                return (
                  <td key={line.id} className={other ? "font-semibold" : ""}>
                    {told}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <td className="label">differs</td>
            {lines.map((line) => (
              <td key={line.id} className="text-[13px] leading-snug align-top">
                {line.id === "" ? "" : line.differences.join("; ") || "not at all"}
              </td>
            ))}
          </tr>
          <tr>
            <td />
            {lines.map((line) => (
              <td key={line.id} className="align-top">
                {line.id !== "" && <Actions line={line} />}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function Actions({ line }: { line: VariantLine }) {
  const { handle } = useDesk();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const [attempt, problem] = useTry();
  return (
    <>
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="act !h-[27px] !px-2"
          disabled={line.present}
          onClick={() =>
            void attempt(async () => {
              await handle.edit([{ op: "use_variant", variant: line.id }]);
            })
          }
        >
          Put on the roof
        </button>
        <button type="button" className="act !h-[27px] !px-2" aria-expanded={asking} onClick={() => setAsking(!asking)}>
          Choose …
        </button>
        <button
          type="button"
          className="underline text-[13px]"
          aria-label={`Remove ${line.name}`}
          onClick={() =>
            void attempt(async () => {
              await handle.edit([{ op: "remove", path: `variants.${line.id}` }]);
            })
          }
        >
          remove
        </button>
      </div>
      {asking && (
        <form
          className="pt-1.5"
          onSubmit={async (event) => {
            event.preventDefault();
            const done = await attempt(async () => {
              await handle.edit([{ op: "choose_variant", variant: line.id, reason: reason.trim() }]);
            });
            if (done) setAsking(false);
          }}
        >
          <label className="label">
            Why this one
            <textarea
              className="box !h-14 text-ink"
              required
              minLength={3}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <button type="submit" className="act !h-[27px]">
            Choose it
          </button>
        </form>
      )}
      {problem}
    </>
  );
}
