/**
 * Edits on their way, kept in local storage until the server has answered: a crash of either side loses nothing.
 *
 * Each window has a box of its own and each parcel keeps the revision it was made on, so that a window that comes back asks
 * before it goes over newer work. Boxes that closed windows left behind are taken up by the next window on that job; a parcel
 * that goes out twice is done once, by its edit id.
 */
import { newUuid } from "../api/ids";
import type { Edit } from "../api/types";

export type Parcel = { editId: string; edits: Edit[]; base: number };

const PREFIX = "outbox:";
export const WINDOW: string = newUuid();

const boxOf = (job: string, window: string) => `${PREFIX}${job}:${window}`;

export function keepParcels(storage: Storage, job: string, parcels: readonly Parcel[], window = WINDOW): void {
  const plain = parcels.map(({ editId, edits, base }) => ({ editId, edits, base }));
  if (plain.length) storage.setItem(boxOf(job, window), JSON.stringify(plain));
  else storage.removeItem(boxOf(job, window));
}

/** What other windows of this job left, oldest first; their boxes are emptied, the parcels are this window's now. */
export function takeLeftParcels(storage: Storage, job: string, window = WINDOW): Parcel[] {
  const found: Parcel[] = [];
  for (const key of Object.keys(storage)) {
    if ((key !== `${PREFIX}${job}` && !key.startsWith(boxOf(job, ""))) || key === boxOf(job, window)) continue;
    found.push(...readParcels(storage.getItem(key)));
    storage.removeItem(key);
  }
  return found.sort((a, b) => a.base - b.base);
}

function readParcels(text: string | null): Parcel[] {
  try {
    const read: unknown = JSON.parse(text ?? "[]");
    return Array.isArray(read) ? read.filter(isParcel).map((p) => ({ ...p, base: p.base ?? 0 })) : [];
  } catch {
    return [];
  }
}

function isParcel(value: unknown): value is Parcel {
  return typeof value === "object" && value !== null && "editId" in value && "edits" in value;
}

const GROW = ["workshop.packed", "readings", "care.looks"];

/**
 * Whether edits stand for themselves, whatever others did meanwhile: new records of the roof, readings and looks, ticks of the kit.
 * They go on top of newer work; a second record of a foot is refused by the core, and of readings the log keeps every one. What
 * changes an entry that is there asks.
 */
export const standAlone = (edits: readonly Edit[]): boolean =>
  edits.every(
    (edit) =>
      (edit.op === "add" && GROW.includes(edit.path)) ||
      (edit.op === "record_foot" && edit.anew) ||
      edit.op === "note_reading" ||
      (edit.op === "remove" && edit.path.startsWith("workshop.packed.")),
  );

/** The revision a new edit is made on: on top of what is already on its way, or on what the window has seen. */
export const baseFor = (queue: readonly Parcel[], seen: number): number => queue.at(-1)?.base ?? seen;

/** After a parcel was stored: those made on top of it now stand on the revision it became. */
export function restOn(queue: readonly Parcel[], sentOn: number, stored: number): void {
  for (const parcel of queue) if (parcel.base === sentOn) parcel.base = stored;
}

/** Entries of a list with what is on its way: added ones are there already, removed ones are gone, fields are as set. */
export function withWaiting<T extends { id: string }>(
  list: readonly T[],
  waiting: readonly Edit[],
  path: string,
): readonly T[] {
  let now = list;
  for (const edit of waiting) {
    if (edit.op === "add" && edit.path === path && isEntry<T>(edit.value)) {
      const added = edit.value;
      now = [...now.filter((e) => e.id !== added.id), added];
    } else if (edit.op === "remove" && edit.path.startsWith(`${path}.`))
      now = now.filter((e) => `${path}.${e.id}` !== edit.path);
    else if (edit.op === "set" && edit.path.startsWith(`${path}.`)) {
      const [id, field, deeper] = edit.path.slice(path.length + 1).split(".");
      if (field && !deeper) now = now.map((e) => (e.id === id ? { ...e, [field]: edit.value } : e));
    }
  }
  return now;
}

const isEntry = <T extends { id: string }>(value: unknown): value is T =>
  typeof value === "object" && value !== null && "id" in value;
