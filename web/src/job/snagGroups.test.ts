import { describe, expect, it } from "vitest";
import type { Snag } from "../api/types";
import { counted, countWords, grouped } from "./snagGroups";

const snag = (id: string, place: string, severity: Snag["severity"], dismissed: string | null = null): Snag => ({
  id,
  place,
  severity,
  dismissed,
  station: "hold",
  title: id,
  where: place,
  why: "why",
  remedy: "remedy",
  source: "source",
  quantity: "",
  value: null,
  limit: null,
  unit: "",
});

describe("the rows of the snag list", () => {
  it("has one row a rule, also where two places have the same words", () => {
    const twice = [
      snag("crowd", "panels.p1", "stop"),
      snag("crowd", "panels.p1", "stop"),
      snag("lid", "o1", "caution"),
    ];
    const rows = grouped(twice);
    expect(rows.map((r) => [r.id, r.open.length])).toEqual([
      ["crowd", 2],
      ["lid", 1],
    ]);
    expect(countWords(counted(rows))).toBe("2 stops, 1 caution");
  });

  it("does not count what was dismissed, but keeps it in its row", () => {
    const rows = grouped([snag("lean", "a", "caution"), snag("lean", "b", "caution", "looked at it")]);
    expect(rows).toHaveLength(1);
    expect(rows[0]?.dismissed).toHaveLength(1);
    expect(counted(rows)).toEqual({ stop: 0, caution: 1, note: 0 });
  });
});
