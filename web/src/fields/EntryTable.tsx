/** A list of the job as a table: each cell saves itself, the last row takes a new entry: type, Enter, next. */
import { type KeyboardEvent, useRef, useState } from "react";
import { ApiError } from "../api/client";
import { useKept } from "../job/drafts";
import { useDesk, useUnits } from "../job/JobContext";
import { example, type Quantity } from "../ui/format";
import { Choice, Field, Tick } from "./Field";

export type Cell = Quantity | string | number | boolean | null | undefined;
export type Column = {
  key: string;
  label: string;
  placeholder?: string;
  /** Left out of a new entry while empty; every other column must be filled. */
  optional?: boolean;
  tick?: boolean;
  options?: readonly (readonly [string, string])[];
  width?: string;
};
type Entry = { id: string } & Record<string, Cell>;

type Props = {
  path: string;
  noun: string;
  columns: readonly Column[];
  entries: readonly { id: string }[];
  /** Fields of a new entry that no column shows. */
  fresh?: (() => Record<string, unknown>) | undefined;
  empty: string;
  told?: (id: string) => React.ReactNode;
  toldLabel?: string;
};

export function EntryTable({ path, noun, columns, entries, fresh, empty, told, toldLabel = "means" }: Props) {
  const { handle, selection, select } = useDesk();
  return (
    <>
      {!entries.length && <p className="pb-1">{empty}</p>}
      <table className="sheet-table">
        <thead>
          <tr>
            {columns.map((column) => (
              <th key={column.key} style={{ width: column.width }}>
                {column.label}
              </th>
            ))}
            {told && <th>{toldLabel}</th>}
            <th>
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {(entries as readonly Entry[]).map((entry, index) => (
            <tr
              key={entry.id}
              className={selection === `${path}.${entry.id}` ? "bg-tape/40" : ""}
              onFocus={() => select(`${path}.${entry.id}`)}
            >
              {columns.map((column) => (
                <td key={column.key}>
                  <TableCell
                    column={column}
                    path={`${path}.${entry.id}.${column.key}`}
                    value={entry[column.key]}
                    row={index + 1}
                  />
                </td>
              ))}
              {told && <td className="text-[13px]">{told(entry.id)}</td>}
              <td className="num">
                <button
                  type="button"
                  className="underline text-[13px]"
                  aria-label={`Remove ${noun} ${index + 1}`}
                  onClick={(event) => {
                    // the focus goes to the next row's button, or to the row that takes a new entry
                    const row = event.currentTarget.closest("tr");
                    const next = row?.nextElementSibling ?? row?.previousElementSibling;
                    handle.change([{ op: "remove", path: `${path}.${entry.id}` }]);
                    next?.querySelector<HTMLElement>("td:last-child button, input")?.focus();
                  }}
                >
                  remove
                </button>
              </td>
            </tr>
          ))}
          <NewRow path={path} noun={noun} columns={columns} fresh={fresh} wide={Boolean(told)} />
        </tbody>
      </table>
    </>
  );
}

function TableCell({ column, path, value, row }: { column: Column; path: string; value: Cell; row: number }) {
  const label = `${column.label}, row ${row}`;
  if (column.tick) return <Tick label={column.label} path={path} value={value === true} bare />;
  if (column.options)
    return (
      <Choice
        bare
        label={label}
        path={path}
        value={typeof value === "string" ? value : null}
        options={column.options}
      />
    );
  return (
    <Field
      bare
      label={label}
      path={path}
      value={typeof value === "boolean" ? null : value}
      clearable={column.optional ?? false}
      {...(column.placeholder ? { placeholder: column.placeholder } : {})}
    />
  );
}

function NewRow({
  path,
  noun,
  columns,
  fresh,
  wide,
}: Pick<Props, "path" | "noun" | "columns" | "fresh"> & { wide: boolean }) {
  const { id, handle } = useDesk();
  const units = useUnits();
  const [kept, setTyped] = useKept<Record<string, string>>(id, `new ${path}`, {});
  // what was chosen may be gone since: then it is the first of those that are left, as the box shows it
  const chosen = columns.flatMap(({ key, options }) => {
    if (!options) return [];
    const there = options.some(([option]) => option === kept[key]);
    return [[key, there ? (kept[key] ?? "") : (options[0]?.[0] ?? "")]];
  });
  const typed: Record<string, string> = { ...kept, ...Object.fromEntries(chosen) };
  const [problem, setProblem] = useState<string | null>(null);
  const row = useRef<HTMLTableRowElement>(null);
  const typing = columns.filter((c) => !c.options && !c.tick);

  const take = async () => {
    const missing = typing.find((c) => !c.optional && !typed[c.key]?.trim());
    if (missing) {
      setProblem(`Type ${missing.label}.`);
      row.current?.querySelector<HTMLInputElement>(`[data-new="${missing.key}"]`)?.focus();
      return;
    }
    const value: Record<string, unknown> = { ...fresh?.() };
    for (const column of columns) {
      const text = typed[column.key]?.trim();
      if (text) value[column.key] = text;
    }
    try {
      await handle.edit([{ op: "add", path, value }]);
      setTyped(Object.fromEntries(chosen));
      setProblem(null);
    } catch (failure) {
      setProblem(failure instanceof ApiError ? failure.message : "Not saved.");
    }
    row.current?.querySelector<HTMLInputElement>("input")?.focus();
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>, index: number) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const next = typing[index + 1];
    const box = next && row.current?.querySelector<HTMLInputElement>(`[data-new="${next.key}"]`);
    if (box && !box.value && !next.optional) box.focus();
    else void take();
  };

  return (
    <>
      <tr ref={row}>
        {columns.map((column) => (
          <td key={column.key}>
            {column.tick ? null : column.options ? (
              <select
                className="box"
                aria-label={`New ${noun}: ${column.label}`}
                value={typed[column.key]}
                onChange={(event) => setTyped({ ...typed, [column.key]: event.target.value })}
              >
                {column.options.map(([key, words]) => (
                  <option key={key} value={key}>
                    {words}
                  </option>
                ))}
              </select>
            ) : (
              <input
                className="box"
                data-new={column.key}
                aria-label={`New ${noun}: ${column.label}`}
                placeholder={column.placeholder === undefined ? undefined : example(column.placeholder, units)}
                autoComplete="off"
                value={typed[column.key] ?? ""}
                onChange={(event) => setTyped({ ...typed, [column.key]: event.target.value })}
                onKeyDown={(event) => keys(event, typing.indexOf(column))}
              />
            )}
          </td>
        ))}
        {wide && <td />}
        <td className="num">
          <button type="button" className="act !h-[28px]" onClick={() => void take()} aria-label={`Add ${noun}`}>
            Add
          </button>
        </td>
      </tr>
      {problem && (
        <tr>
          <td colSpan={columns.length + 2} role="alert" className="text-signal font-semibold text-[13px]">
            {problem}
          </td>
        </tr>
      )}
    </>
  );
}
