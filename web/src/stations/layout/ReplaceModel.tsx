/** Another model in the place of a planned one: everything that hangs on it is told before it is done. */
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import type { Edit, LayoutChange, Panel } from "../../api/types";
import { useDesk, useStoredJob } from "../../job/JobContext";
import { useTry } from "../../ui/useTry";
import { copyEdits, useModels } from "./useModels";

export function ReplaceModel({ panel }: { panel: Panel }) {
  const { id, handle } = useDesk();
  const job = useStoredJob();
  const models = useModels();
  const [asked, setAsked] = useState<{ edits: Edit[]; model: string; changes: LayoutChange[] } | null>(null);
  const [all, setAll] = useState(false);
  const [attempt, problem] = useTry();
  const alike = job.panels.filter((p) => p.model.name === panel.model.name);

  const look = (name: string, everyOne: boolean) =>
    attempt(async () => {
      setAsked(null);
      const entry = models.find((m) => m.model.name === name);
      if (!entry) return;
      const panels = (everyOne ? alike : [panel]).map((p) => p.id);
      const edits: Edit[] = [...copyEdits(entry), { op: "replace_model", panels, model: name }];
      const changes = await unwrap(
        http.POST("/api/jobs/{job_id}/changes", { params: { path: { job_id: id } }, body: { edits } }),
      );
      setAsked({ edits, model: name, changes });
    });

  return (
    <div className="pt-2">
      <div className="flex flex-wrap items-center gap-3">
        <label className="label flex items-center gap-2">
          Another model came
          <select
            className="box !w-56 text-ink"
            value={asked?.model ?? ""}
            onChange={(event) => void look(event.target.value, all)}
          >
            <option value="">{panel.model.name}</option>
            {models
              .filter((m) => m.model.name !== panel.model.name)
              .map((m) => (
                <option key={m.model.name}>{m.model.name}</option>
              ))}
          </select>
        </label>
        {alike.length > 1 && (
          <label className="label flex items-center gap-2">
            <input
              type="checkbox"
              className="size-4 accent-[var(--color-ink)]"
              checked={all}
              onChange={(event) => {
                setAll(event.target.checked);
                if (asked) void look(asked.model, event.target.checked);
              }}
            />
            all {alike.length} of {panel.model.name}
          </label>
        )}
      </div>
      {asked && (
        <section aria-label="What changes" className="border-l-4 border-l-tape pl-3 mt-2">
          <h3 className="text-[16px]">With {asked.model} this changes</h3>
          <ChangeTable changes={asked.changes} />
          <div className="flex gap-2 pt-1.5">
            <button
              type="button"
              className="act"
              onClick={() =>
                void attempt(async () => {
                  await handle.edit(asked.edits);
                  setAsked(null);
                })
              }
            >
              Replace
            </button>
            <button type="button" className="act plain" onClick={() => setAsked(null)}>
              Leave it
            </button>
          </div>
        </section>
      )}
      {problem}
    </div>
  );
}

export function ChangeTable({ changes }: { changes: readonly LayoutChange[] }) {
  if (!changes.length) return <p>Nothing that is derived changes.</p>;
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>at</th>
          <th>what</th>
          <th>before</th>
          <th>after</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((change) => (
          <tr key={`${change.what} ${change.before} ${change.after}`} className={change.worse ? "font-semibold" : ""}>
            <td className="text-soft whitespace-nowrap">{change.station.replace("-", " ")}</td>
            <td>{change.what}</td>
            <td className="text-soft">{change.before || "no"}</td>
            <td className={change.after === "stop" ? "text-signal uppercase" : ""}>{change.after}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
