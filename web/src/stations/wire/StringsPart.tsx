/** Controllers with what their sheets say, and the strings on each: panels picked one after the other, plus first. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import type { Job } from "../../api/types";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { useTry } from "../../ui/useTry";
import { AMPS, newId } from "./words";

type Controller = Job["wiring"]["controllers"][number];
type PanelString = Job["wiring"]["strings"][number];

export function StringsPart() {
  const { controllers } = useStoredJob().wiring;
  return (
    <>
      {!controllers.length && <p className="max-w-[60ch] pb-2">Which charge controller do the panels plug into?</p>}
      {controllers.map((controller) => (
        <ControllerCard key={controller.id} controller={controller} />
      ))}
      <AddController />
    </>
  );
}

/** One of the catalogue, one that another job was planned with, or a blank one to type from its sheet. */
function AddController() {
  const { handle } = useDesk();
  const { controllers } = useStoredJob().wiring;
  const [attempt, problem] = useTry();
  const [chosen, setChosen] = useState("");
  const offered =
    useQuery({ queryKey: ["controllers"], queryFn: () => unwrap(http.GET("/api/shop/controllers")) }).data ?? [];
  const taken = offered[Number(chosen)];
  const add = () =>
    attempt(async () => {
      const { id: _, ...copy } = chosen && taken ? taken.controller : { id: "", ...blank(controllers.length) };
      await handle.edit([{ op: "add", path: "wiring.controllers", value: copy }]);
      setChosen("");
    });
  const lines = offered.map((o, i) => ({ ...o, value: String(i) }));
  const groups = [
    ["planned with before", lines.filter((o) => o.job)],
    ["invented ones of usual size", lines.filter((o) => !o.job)],
  ] as const;
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="label w-[300px]">
        Controller
        <select
          className="box"
          aria-label="Controller"
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">blank: type what its sheet says</option>
          {groups.map(([title, own]) => (
            <optgroup key={title} label={title}>
              {own.map((o) => (
                <option key={o.value} value={o.value}>
                  {o.controller.name}
                  {o.job && `, ${o.job}`}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </label>
      <button type="button" className="act" onClick={() => void add()}>
        Add a controller
      </button>
      {problem}
    </div>
  );
}

const blank = (others: number) => ({ name: `Controller ${others + 1}` });

function ControllerCard({ controller: c }: { controller: Controller }) {
  const { handle } = useDesk();
  const { strings } = useStoredJob().wiring;
  const found = useFinding("arrays").find((a) => a.controller === c.id);
  const path = `wiring.controllers.${c.id}`;
  const own = strings.filter((s) => s.controller === c.id);
  const remove = () =>
    handle.change([
      ...own.map((s) => ({ op: "remove" as const, path: `wiring.strings.${s.id}` })),
      { op: "remove", path },
    ]);
  return (
    <Group
      title={c.name}
      aside={
        <span className="flex items-baseline gap-4">
          {found && found.power_w > 0 && (
            <span className="font-sign font-semibold text-[17px]">
              {found.words}, {Math.round(found.power_w)} W
            </span>
          )}
          <button
            type="button"
            className="underline text-[13px]"
            aria-label={`Remove the controller ${c.name}`}
            onClick={remove}
          >
            remove
          </button>
        </span>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-8">
        <div className="grid grid-cols-2 sm:grid-cols-3 gap-x-4 gap-y-1.5 content-start">
          <Field label="Name" path={`${path}.name`} value={c.name} />
          <Choice
            label="Battery"
            path={`${path}.battery`}
            value={String(c.battery)}
            options={[
              ["12", "12 V"],
              ["24", "24 V"],
              ["48", "48 V"],
            ]}
            onChange={(v) => handle.change([{ op: "set", path: `${path}.battery`, value: Number(v) }])}
          />
          <Choice
            label="Kind"
            path={`${path}.kind`}
            value={c.kind}
            options={[
              ["best voltage", "seeks best volts"],
              ["switching", "switching"],
            ]}
          />
          <Field
            label="Input, most volts"
            path={`${path}.max_voltage`}
            value={c.max_voltage}
            placeholder="100 V"
            clearable
          />
          <Field
            label="Input, most amps"
            path={`${path}.max_current`}
            value={c.max_current}
            placeholder="35 A"
            clearable
          />
          <Field
            label="Gives the battery"
            path={`${path}.charge_current`}
            value={c.charge_current}
            placeholder="30 A"
            clearable
          />
          <Field label="Most power" path={`${path}.max_power`} value={c.max_power} placeholder="440 W" clearable />
          <Field label="Starts over battery" path={`${path}.start_over`} value={c.start_over} />
          <Field label="Fuse in each string" path={`${path}.fuse`} value={c.fuse} placeholder="none" clearable />
          <Choice
            label="Strings are joined"
            path={`${path}.joined`}
            value={c.joined}
            options={[
              ["roof", "on the roof"],
              ["inside", "inside"],
            ]}
          />
          <Field label="Price" path={`${path}.price`} value={c.price} placeholder="180" clearable />
          <Tick label="Battery first" path={`${path}.battery_first`} value={c.battery_first} />
        </div>
        <div>
          {own.map((string, index) => (
            <StringRow key={string.id} string={string} number={index + 1} />
          ))}
          <button
            type="button"
            className="act !h-[30px] mt-2"
            onClick={() =>
              handle.change([
                { op: "add", path: "wiring.strings", value: { id: newId("s"), controller: c.id, panels: [] } },
              ])
            }
          >
            Add a string to {c.name}
          </button>
          {found?.fuse_needed && !c.fuse && (
            <p className="pt-1 font-semibold">
              Each string needs a fuse:{" "}
              {found.fuse
                ? `${AMPS(found.fuse.low)}${found.fuse.low === found.fuse.high ? "" : ` to ${AMPS(found.fuse.high)}`}`
                : "no size serves"}
              .
            </p>
          )}
        </div>
      </div>
    </Group>
  );
}

/** The panels of a string in their order, and those that are free to be put in. */
function StringRow({ string, number }: { string: PanelString; number: number }) {
  const { handle, select } = useDesk();
  const job = useStoredJob();
  const names = new Map(job.panels.map((p) => [p.id, p.name]));
  const used = new Set(job.wiring.strings.flatMap((s) => s.panels));
  const free = job.panels.filter((p) => !used.has(p.id));
  const put = (panels: readonly string[]) =>
    handle.change([{ op: "set", path: `wiring.strings.${string.id}.panels`, value: panels }]);
  return (
    <div className="border-b border-hair py-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        <span className="label w-16">string {number}</span>
        <span aria-hidden="true" className="font-sign text-[17px]">
          +
        </span>
        {string.panels.map((panel, index) => (
          <span key={panel} className="flex items-center gap-1.5">
            {index > 0 && <span aria-hidden="true">—</span>}
            <button
              type="button"
              className="act !h-[30px] !px-2 bg-tape/40"
              aria-label={`Take ${names.get(panel) ?? panel} out of string ${number}`}
              title="take out"
              onFocus={() => select(`panels.${panel}`)}
              onClick={() => put(string.panels.filter((p) => p !== panel))}
            >
              {names.get(panel) ?? "gone"} ×
            </button>
          </span>
        ))}
        <span aria-hidden="true" className="font-sign text-[17px]">
          −
        </span>
        <button
          type="button"
          className="underline text-[13px] ml-auto"
          aria-label={`Remove string ${number}`}
          onClick={() => handle.change([{ op: "remove", path: `wiring.strings.${string.id}` }])}
        >
          remove
        </button>
      </div>
      {free.length > 0 && (
        <div className="flex flex-wrap items-center gap-1.5 pt-1.5 pl-[70px]">
          {free.map((panel) => (
            <button
              key={panel.id}
              type="button"
              className="act !h-[30px] !px-2"
              aria-label={`Put ${panel.name} into string ${number}`}
              onFocus={() => select(`panels.${panel.id}`)}
              onClick={() => put([...string.panels, panel.id])}
            >
              + {panel.name}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}
