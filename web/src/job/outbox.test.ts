import { beforeEach, describe, expect, it } from "vitest";
import { baseFor, keepParcels, type Parcel, restOn, standAlone, takeLeftParcels, withWaiting } from "./outbox";

const parcel = (editId: string, base: number): Parcel => ({
  editId,
  base,
  edits: [{ op: "set", path: "name", value: editId }],
});

describe("the outbox", () => {
  beforeEach(() => localStorage.clear());

  it("is a window's own and keeps the revision each edit was made on", () => {
    keepParcels(localStorage, "j1", [parcel("a", 4)], "one");
    keepParcels(localStorage, "j1", [parcel("b", 7)], "two");
    keepParcels(localStorage, "j2", [parcel("c", 1)], "one");
    expect(takeLeftParcels(localStorage, "j1", "three").map((p) => [p.editId, p.base])).toEqual([
      ["a", 4],
      ["b", 7],
    ]);
    expect(takeLeftParcels(localStorage, "j1", "three")).toEqual([]);
    expect(takeLeftParcels(localStorage, "j2", "one"), "its own box is not left behind").toEqual([]);
  });

  it("asks about what an older version left without a revision", () => {
    localStorage.setItem("outbox:j1", JSON.stringify([{ editId: "old", edits: [] }]));
    localStorage.setItem("outbox:j1:x", "not JSON");
    expect(takeLeftParcels(localStorage, "j1").map((p) => p.base)).toEqual([0]);
  });

  it("stacks edits on one another", () => {
    const queue = [parcel("a", 4), parcel("b", 4)];
    expect(baseFor(queue, 9)).toBe(4);
    expect(baseFor([], 9)).toBe(9);
    restOn(queue.slice(1), 4, 5);
    expect(queue.map((p) => p.base)).toEqual([4, 5]);
  });

  it("lets records of the roof go on top of newer work, and nothing else", () => {
    const packed = { op: "add" as const, path: "workshop.packed", value: { id: "k1" } };
    const at = { foot_x: { mm: 1 }, foot_y: { mm: 2 }, mark_x: { mm: 3 }, mark_y: { mm: 4 } };
    const foot = { op: "record_foot" as const, holder: "p1", foot: "f1", ...at };
    const record = { ...foot, anew: true };
    expect(standAlone([{ ...foot, anew: false }])).toBe(false);
    expect(standAlone([{ op: "forget_foot", holder: "p1", foot: "f1" }])).toBe(false);
    expect(standAlone([{ op: "note_reading", step: "seal", what: "humidity", value: "55 %" }])).toBe(true);
    const moved = { op: "set" as const, path: "panels.p1.x", value: "2 m" };
    expect(standAlone([packed, record])).toBe(true);
    expect(standAlone([packed, moved])).toBe(false);
    expect(standAlone([{ op: "place_panel", model: "m" } as never])).toBe(false);
  });

  it("shows entries on their way at once, and none that is being removed", () => {
    const waiting = [
      { op: "add" as const, path: "workshop.packed", value: { id: "k2" } },
      { op: "remove" as const, path: "workshop.packed.k1" },
      { op: "add" as const, path: "care.looks", value: { id: "l1" } },
    ];
    expect(withWaiting([{ id: "k1" }, { id: "k3" }], waiting, "workshop.packed").map((e) => e.id)).toEqual([
      "k3",
      "k2",
    ]);
    const set = [{ op: "set" as const, path: "care.looks.l1.note", value: "dry" }];
    expect(withWaiting([{ id: "l1", note: "" }], set, "care.looks")).toEqual([{ id: "l1", note: "dry" }]);
    const kept = [{ id: "k1" }];
    expect(withWaiting(kept, [], "workshop.packed")).toBe(kept);
  });
});
