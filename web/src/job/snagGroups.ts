/** Snags as the list shows them: one row a rule with all its places, the station's own first, the others by station. Pure. */
import type { Snag, StationName } from "../api/types";

export type SnagGroup = {
  id: string;
  title: string;
  severity: Snag["severity"];
  station: StationName;
  source: string;
  open: readonly Snag[];
  dismissed: readonly Snag[];
};

export type SnagCounts = { stop: number; caution: number; note: number };

/** Rows in the order of their first snag, which is the core's: stops first. A rule whose places are partly dismissed stays one row. */
export function grouped(snags: readonly Snag[]): SnagGroup[] {
  const groups = new Map<string, Snag[]>();
  for (const snag of snags) groups.set(snag.id, [...(groups.get(snag.id) ?? []), snag]);
  return [...groups.values()].flatMap((own) => {
    const first = own[0];
    if (!first) return [];
    const { id, title, severity, station, source } = first;
    const isOpen = (s: Snag) => s.dismissed === null || s.dismissed === undefined;
    return [
      { id, title, severity, station, source, open: own.filter(isOpen), dismissed: own.filter((s) => !isOpen(s)) },
    ];
  });
}

/** What still stands: dismissed ones do not count. */
export function counted(groups: readonly SnagGroup[]): SnagCounts {
  const sum = (severity: Snag["severity"]) =>
    groups.filter((g) => g.severity === severity).reduce((n, g) => n + g.open.length, 0);
  return { stop: sum("stop"), caution: sum("caution"), note: sum("note") };
}

export const countWords = ({ stop, caution, note }: SnagCounts): string =>
  [
    stop ? `${stop} stop${stop > 1 ? "s" : ""}` : "",
    caution ? `${caution} caution${caution > 1 ? "s" : ""}` : "",
    note ? `${note} note${note > 1 ? "s" : ""}` : "",
  ]
    .filter(Boolean)
    .join(", ");
