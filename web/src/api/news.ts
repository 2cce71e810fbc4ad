/** What is new in an answer, put into the one that is here already: whatever did not change stays the same object. */
import type { New } from "./types";

/** The whole with the changed branches in it. Nothing that is here already is altered. */
export function withNews<T>(whole: T, news: readonly New[]): T {
  return news.reduce((now, change) => at(now, change.at, (branch) => changed(branch, change)), whole);
}

function changed(branch: unknown, change: New): unknown {
  if ("value" in change) return change.value;
  const list: readonly unknown[] = Array.isArray(branch) ? branch : [];
  return [...list.slice(0, change.start), ...change.items, ...list.slice(change.start + change.drop)];
}

/** ``holder`` with what stands at ``path`` replaced; only the objects along the path are new. */
function at<T>(holder: T, path: readonly (string | number)[], change: (branch: unknown) => unknown): T {
  const [name, ...rest] = path;
  if (name === undefined) return change(holder) as T;
  if (Array.isArray(holder)) {
    const list = [...holder];
    list[Number(name)] = at(list[Number(name)], rest, change);
    return list as T;
  }
  const before = holder as Record<string, unknown>;
  return { ...before, [name]: at(before[name], rest, change) } as T;
}
