/** Panel models: the job's copies with everything their sheets say, the shop's list, a table to load. */
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { http, unwrap } from "../../api/client";
import type { PanelModel, PanelTable } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useStoredJob, useUnits } from "../../job/JobContext";
import { FileButton } from "../../ui/FileButton";
import { length, plainNumber } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { OwnModel } from "./OwnModel";
import { copyEdits, useModels, useShop } from "./useModels";

export function ModelsPart() {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-2 gap-x-8">
      <OwnModels />
      <div>
        <Shop />
        <LoadTable />
      </div>
    </div>
  );
}

function OwnModels() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const models = useModels();
  const [open, setOpen] = useState(0);
  const [attempt, problem] = useTry();
  const shown = job.own_models[open];
  return (
    <Group
      title="Models of this job"
      aside={<span className="text-soft text-[13px]">copies: later changes elsewhere do not reach them</span>}
    >
      {!job.own_models.length && (
        <p className="pb-1">Type a panel from its data sheet, or copy one from the shop or from those to start from.</p>
      )}
      <div className="flex flex-wrap gap-1.5 pb-2">
        {job.own_models.map((model, i) => (
          <button
            key={model.name}
            type="button"
            className="act !h-[27px] !px-2"
            data-on={i === open}
            aria-pressed={i === open}
            onClick={() => setOpen(i)}
          >
            {model.name}
          </button>
        ))}
      </div>
      {shown && <ModelFields key={shown.name} model={shown} path={`own_models.${open}`} />}
      <div className="flex flex-wrap items-center gap-2 pt-2">
        <OwnModel />
        <label className="label flex items-center gap-2">
          copy
          <select
            className="box !w-48 text-ink"
            value=""
            onChange={(event) => {
              const entry = models.find((m) => m.model.name === event.target.value);
              if (entry)
                void attempt(async () => {
                  await handle.edit([...copyEdits({ ...entry, from: "shop" })]);
                  setOpen(job.own_models.length);
                });
            }}
          >
            <option value="">choose …</option>
            {models
              .filter((m) => m.from !== "job")
              .map((m) => (
                <option key={m.model.name}>{m.model.name}</option>
              ))}
          </select>
        </label>
      </div>
      {problem}
    </Group>
  );
}

function ModelFields({ model, path }: { model: PanelModel; path: string }) {
  const queries = useQueryClient();
  const { handle } = useDesk();
  const [attempt, problem] = useTry();
  const field = (key: keyof PanelModel, label: string, placeholder = "") => (
    <Field
      label={label}
      path={`${path}.${key}`}
      value={model[key] as never}
      placeholder={placeholder}
      clearable={!["name", "length", "width", "frame_height", "mass", "power"].includes(key)}
    />
  );
  return (
    <>
      <div className="grid grid-cols-3 sm:grid-cols-5 gap-x-4 gap-y-1.5">
        {field("name", "Name")}
        {field("length", "Length")}
        {field("width", "Width")}
        {field("frame_height", "Frame height")}
        {field("mass", "Mass")}
        {field("power", "Power")}
        {field("voc", "Voc, open", "37.2 V")}
        {field("vmp", "Vmp, working", "30.6 V")}
        {field("isc", "Isc, short", "8.6 A")}
        {field("imp", "Imp, working", "8.2 A")}
        <NumberField model={model} path={path} of="voc_per_k" label="Voc per K, %" hint="-0.30" />
        <NumberField model={model} path={path} of="isc_per_k" label="Isc per K, %" hint="0.05" />
        <NumberField model={model} path={path} of="power_per_k" label="Power per K, %" hint="-0.38" />
        {field("noct", "NOCT", "45 °C")}
        <NumberField model={model} path={path} of="cells" label="Cells" hint="60" />
        <NumberField model={model} path={path} of="bypass_diodes" label="Bypass diodes" hint="3" />
        {field("max_fuse", "Largest fuse", "15 A")}
        {field("flange", "Lower flange", "30 mm")}
        <Holes model={model} path={path} />
        <Choice
          label="Build"
          path={`${path}.build`}
          value={model.build}
          options={[
            ["framed", "framed"],
            ["flexible", "flexible"],
          ]}
        />
        <NumberField model={model} path={path} of="price" label="Price" hint="180" />
        <NumberField model={model} path={path} of="stock" label="In stock" hint="4" />
      </div>
      <div className="flex gap-2 pt-2">
        <button
          type="button"
          className="act !h-[27px]"
          onClick={() =>
            void attempt(async () => {
              await unwrap(http.POST("/api/shop/panels", { body: { models: [model] } }));
              await queries.invalidateQueries({ queryKey: ["shop"] });
            })
          }
        >
          Put into the shop
        </button>
        <button
          type="button"
          className="underline text-[13px]"
          aria-label={`Remove the model ${model.name}`}
          onClick={() => handle.change([{ op: "remove", path }])}
        >
          remove
        </button>
      </div>
      {problem}
    </>
  );
}

type Numbered = "voc_per_k" | "isc_per_k" | "power_per_k" | "cells" | "bypass_diodes" | "price" | "stock";

/** A bare number of a sheet. The value goes as a number, blank as unknown. */
function NumberField({
  model,
  path,
  of,
  label,
  hint,
}: {
  model: PanelModel;
  path: string;
  of: Numbered;
  label: string;
  hint: string;
}) {
  const { handle } = useDesk();
  const stored = model[of];
  const text = stored === null || stored === undefined ? "" : String(stored);
  const [typed, setTyped] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const commit = () => {
    if (typed === null || typed.trim() === text) return setTyped(null);
    void attempt(async () => {
      await handle.edit([{ op: "set", path: `${path}.${of}`, value: typed.trim() || null }]);
      setTyped(null);
    });
  };
  return (
    <label className="label min-w-0">
      {label}
      <input
        className="box font-sans text-ink"
        inputMode="decimal"
        autoComplete="off"
        placeholder={hint}
        data-path={`${path}.${of}`}
        value={typed ?? text}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
      />
      {problem}
    </label>
  );
}

/** The frame's mounting holes along each long side, from one end. */
function Holes({ model, path }: { model: PanelModel; path: string }) {
  const { handle } = useDesk();
  const units = useUnits();
  const text = model.holes.map((h) => h.text ?? length(h.mm, units)).join("; ");
  const [typed, setTyped] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const commit = () => {
    if (typed === null || typed === text) return setTyped(null);
    const value = typed
      .split(";")
      .map((h) => h.trim())
      .filter(Boolean);
    void attempt(async () => {
      await handle.edit([{ op: "set", path: `${path}.holes`, value }]);
      setTyped(null);
    });
  };
  return (
    <label className="label min-w-0 col-span-2">
      Frame holes from one end
      <input
        className="box font-sans text-ink"
        autoComplete="off"
        placeholder="240 mm; 410 mm; 1312 mm; 1482 mm"
        data-path={`${path}.holes`}
        value={typed ?? text}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
      />
      {problem}
    </label>
  );
}

function Shop() {
  const units = useUnits();
  const shop = useShop();
  const queries = useQueryClient();
  const [attempt, problem] = useTry();
  const remove = (name: string) =>
    attempt(async () => {
      await unwrap(http.DELETE("/api/shop/panels/{name}", { params: { path: { name } } }));
      await queries.invalidateQueries({ queryKey: ["shop"] });
    });
  return (
    <Group
      title="The shop"
      aside={
        shop.length > 0 && (
          <a className="underline text-[13px]" href="/api/shop/panels.csv">
            as CSV
          </a>
        )
      }
    >
      {!shop.length && (
        <p>Models the workshop deals with, for all jobs. Load a table below, or put a job’s model in.</p>
      )}
      {shop.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>model</th>
              <th className="num">size</th>
              <th className="num">power</th>
              <th className="num">price</th>
              <th className="num">stock</th>
              <th>
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shop.map((m) => (
              <tr key={m.name}>
                <td className="font-semibold">{m.name}</td>
                <td className="num whitespace-nowrap">
                  {length(m.length.mm, units).replace(" mm", "")} × {length(m.width.mm, units)}
                </td>
                <td className="num">{m.power.w} W</td>
                <td className="num">{m.price ?? ""}</td>
                <td className="num">{m.stock ?? ""}</td>
                <td className="num">
                  <button
                    type="button"
                    className="underline text-[13px]"
                    aria-label={`Remove ${m.name} from the shop`}
                    onClick={() => void remove(m.name)}
                  >
                    remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {problem}
    </Group>
  );
}

function LoadTable() {
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [frame, setFrame] = useState("");
  const [mass, setMass] = useState("");
  const [found, setFound] = useState<PanelTable | null>(null);
  const asked = useRef(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const understand = (given: string, frameMm: string, massKg: string) =>
    attempt(async () => {
      const own = ++asked.current;
      setText(given);
      setFound(null);
      if (!given.trim()) return;
      const body = { text: given, frame_mm: plainNumber(frameMm), mass_kg: plainNumber(massKg) };
      const table = await unwrap(http.POST("/api/calc/panels.parse", { body }));
      // a late answer is about what was typed before
      if (own === asked.current) setFound(table);
    });
  const take = () =>
    attempt(async () => {
      const models = (found?.rows ?? []).map((r) => r.model).filter((m): m is PanelModel => m !== null);
      await unwrap(http.POST("/api/shop/panels", { body: { models } }));
      await queries.invalidateQueries({ queryKey: ["shop"] });
      setFound(null);
      setText("");
    });
  return (
    <Group
      title="Load a table of models"
      aside={<span className="text-soft text-[13px]">CSV: Name, STC, Length, Width …</span>}
    >
      <div className="flex flex-wrap items-end gap-3">
        <FileButton
          label="Load a table of panel models"
          accept=".csv,.txt"
          most={2_000_000}
          tooLarge="The table is larger than 2 MB. Cut it down to the models you deal with."
          take={async (given) => {
            setRefused(null);
            await understand(given, frame, mass);
          }}
          refuse={setRefused}
        />
        <label className="label w-28">
          frame, if not in it
          <input
            className="box font-sans text-ink"
            placeholder="35"
            value={frame}
            onChange={(event) => setFrame(event.target.value)}
            onBlur={() => void understand(text, frame, mass)}
          />
        </label>
        <label className="label w-28">
          mass, if not in it
          <input
            className="box font-sans text-ink"
            placeholder="18"
            value={mass}
            onChange={(event) => setMass(event.target.value)}
            onBlur={() => void understand(text, frame, mass)}
          />
        </label>
      </div>
      {refused && (
        <p role="alert" className="text-signal font-semibold text-[13px]">
          {refused}
        </p>
      )}
      <p className="text-soft text-[13px] pt-1">Frame in mm, mass in kg: open module databases tell neither.</p>
      {found && (
        <>
          <p className="pt-1">
            {found.usable} can be taken, {found.left_out} not.
          </p>
          <ul className="max-h-40 overflow-auto text-[13px]">
            {found.rows.map((row) => (
              <li key={row.line} className="border-b border-hair py-0.5">
                <span className="font-semibold">{row.name || `line ${row.line}`}</span>{" "}
                {row.model ? (
                  `${row.model.length.mm} × ${row.model.width.mm} mm, ${row.model.power.w} W`
                ) : (
                  <span className="text-signal font-semibold">{row.problem}</span>
                )}
              </li>
            ))}
          </ul>
          <button type="button" className="act mt-1" disabled={!found.usable} onClick={() => void take()}>
            Take {found.usable} into the shop
          </button>
        </>
      )}
      {problem}
    </Group>
  );
}
