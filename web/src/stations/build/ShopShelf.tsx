/** The shop's shelf, shared by all jobs: stock, who keeps what of it, prices; a line to add, tables in and out. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import type { ItemTable, ShopItem } from "../../api/types";
import { Group } from "../../fields/Field";
import { FileButton } from "../../ui/FileButton";
import { plainNumber } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { useShelf } from "./useShelf";

const KINDS = [
  "section",
  "fastener",
  "bracket",
  "clamp",
  "tape",
  "sealant",
  "cable",
  "connector",
  "panel",
  "tool",
  "other",
] as const;

export function ShopShelf() {
  const shelf = useShelf();
  const [sought, setSought] = useState("");
  const queries = useQueryClient();
  const [attempt, problem] = useTry();
  const fresh = () => queries.invalidateQueries({ queryKey: ["shelf"] });
  const found = shelf.filter((s) => s.item.name.toLowerCase().includes(sought.toLowerCase()));
  return (
    <Group
      title="The shop's shelf"
      aside={
        <span className="flex gap-3 text-[13px]">
          <span>shared by all jobs; a job keeps the copy it was planned with</span>
          <a className="underline" href="/api/shop/items.csv" download>
            CSV
          </a>
        </span>
      }
    >
      <NewItem taken={fresh} />
      <LoadItems taken={fresh} />
      {shelf.length > 8 && (
        <label className="label flex items-center gap-2 pt-2">
          find
          <input className="box !w-56 text-ink" value={sought} onChange={(event) => setSought(event.target.value)} />
        </label>
      )}
      {shelf.length === 0 ? (
        <p className="pt-1">
          Nothing yet. Type an item, or load a table with the columns name, kind, pack, price, stock.
        </p>
      ) : (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>item</th>
              <th>kind</th>
              <th className="!text-right">pack</th>
              <th className="!text-right">price</th>
              <th className="!text-right">in the shop</th>
              <th className="!text-right">free</th>
              <th>kept for</th>
              <th>supplier</th>
              <th className="!text-right">working days</th>
              <th>maker's sheet</th>
              <th>
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {found.slice(0, 60).map(({ item, kept, free }) => (
              <tr key={item.name}>
                <td>{item.name}</td>
                <td>{item.kind}</td>
                <td className="num">
                  {item.pack} {item.unit}
                </td>
                <td className="num">{item.price?.toFixed(2) ?? "missing"}</td>
                <td className="num">{item.stock}</td>
                <td className="num">{free}</td>
                <td className="text-[13px]">{kept.map((k) => `${k.name}: ${k.amount}`).join(", ")}</td>
                <td>{item.supplier}</td>
                <td className="num">{item.lead_days ?? ""}</td>
                <td className="text-[13px]">{item.sheet}</td>
                <td className="num">
                  <button
                    type="button"
                    className="underline text-[13px]"
                    aria-label={`Remove ${item.name} from the shop`}
                    onClick={() =>
                      void attempt(async () => {
                        await unwrap(http.DELETE("/api/shop/items/{name}", { params: { path: { name: item.name } } }));
                        await fresh();
                      })
                    }
                  >
                    remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found.length > 60 && <p className="text-[13px]">And {found.length - 60} more: type a part of the name.</p>}
      {problem}
    </Group>
  );
}

const BLANK = { name: "", kind: "fastener", pack: "1", price: "", stock: "", supplier: "", lead_days: "", sheet: "" };

/** A new item, or a known one by its name with other values. */
function NewItem({ taken }: { taken: () => Promise<void> }) {
  const [typed, setTyped] = useState(BLANK);
  const [attempt, problem] = useTry();
  const box = (key: keyof typeof BLANK, label: string, hint: string, wide = "w-24") => (
    <label className={`label ${wide}`}>
      {label}
      <input
        className="box text-ink font-sans"
        placeholder={hint}
        value={typed[key]}
        onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
      />
    </label>
  );
  const take = () =>
    attempt(async () => {
      const body: Record<string, unknown> = { name: typed.name.trim(), kind: typed.kind };
      for (const key of ["pack", "price", "stock", "lead_days"] as const)
        if (typed[key].trim()) body[key] = plainNumber(typed[key]);
      for (const key of ["supplier", "sheet"] as const) if (typed[key].trim()) body[key] = typed[key].trim();
      await unwrap(http.POST("/api/shop/items", { body: { items: [body as ShopItem] } }));
      await taken();
      setTyped({ ...BLANK, kind: typed.kind, supplier: typed.supplier });
    });
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void take();
      }}
    >
      {box("name", "item", "hex bolt M8 × 60", "w-56")}
      <label className="label">
        kind
        <select
          className="box text-ink font-sans"
          value={typed.kind}
          onChange={(event) => setTyped({ ...typed, kind: event.target.value })}
        >
          {KINDS.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      </label>
      {box("pack", "in a pack", "25", "w-20")}
      {box("price", "price of it", "9.50")}
      {box("stock", "in the shop", "40")}
      {box("supplier", "supplier", "", "w-36")}
      {box("lead_days", "working days", "5")}
      {box("sheet", "maker's sheet, date", "", "w-40")}
      <button type="submit" className="act">
        Put on the shelf
      </button>
      {problem}
    </form>
  );
}

function LoadItems({ taken }: { taken: () => Promise<void> }) {
  const [found, setFound] = useState<ItemTable | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [attempt, problem] = useTry();
  const take = () =>
    attempt(async () => {
      const items = (found?.rows ?? []).map((row) => row.item).filter((item): item is ShopItem => item !== null);
      await unwrap(http.POST("/api/shop/items", { body: { items } }));
      await taken();
      setFound(null);
    });
  return (
    <div className="pt-2">
      <FileButton
        label="Load a table of items"
        accept=".csv,.txt"
        most={1_000_000}
        tooLarge="The table is larger than 1 MB. Cut it down to what the shop deals with."
        take={async (text) => {
          setRefused(null);
          await attempt(async () => {
            setFound(await unwrap(http.POST("/api/calc/items.parse", { body: { text } })));
          });
        }}
        refuse={setRefused}
      />
      {refused && (
        <p role="alert" className="text-signal font-semibold text-[13px]">
          {refused}
        </p>
      )}
      {problem}
      {found && (
        <div className="pt-1">
          <p>
            {found.usable} items can be taken{found.left_out > 0 ? `, ${found.left_out} cannot:` : "."}
          </p>
          <ul className="text-[13px]">
            {found.rows
              .filter((row) => row.problem)
              .slice(0, 8)
              .map((row) => (
                <li key={row.line}>
                  Line {row.line}, {row.name || "no name"}: {row.problem}
                </li>
              ))}
          </ul>
          <button type="button" className="act mt-1" disabled={found.usable === 0} onClick={() => void take()}>
            Take {found.usable} items
          </button>
        </div>
      )}
    </div>
  );
}
