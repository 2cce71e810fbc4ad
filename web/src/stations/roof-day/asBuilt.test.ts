import { describe, expect, it } from "vitest";
import type { Edit, FootPlace, Job, Mark } from "../../api/types";
import { recording, recordOf, tickItem } from "./asBuilt";

const mark = { number: 7, panel: "p1", foot: "f1", x_mm: 1243, y_mm: -410 } as Mark;
const place = { x_mm: 1263, y_mm: -400 } as FootPlace;
const foot = { holder: "p1", foot: "f1" };

describe("a record of the roof", () => {
  it("is told with what was planned when it was measured, as new where nobody had one", () => {
    expect(recording(null, mark, place, { x: "1251" })).toMatchObject({
      ...foot,
      anew: true,
      mark_x: { mm: 1243 },
      foot_y: { mm: -400 },
      x: "1251",
    });
  });

  it("is shown while it is on its way, one part after the other, and is gone when it is taken back", () => {
    const first = recording(null, mark, place, { x: "1251" });
    const shown = recordOf([], [first], foot);
    expect(shown).toEqual({ x: "1251", y: null, mark: { x: 1243, y: -410 }, pilot: null });
    const second = recording(shown, mark, place, { pilot: "solid" });
    expect(second).toMatchObject({ anew: false });
    expect(recordOf([], [first, second], foot)).toMatchObject({ x: "1251", pilot: "solid" });
    const gone: Edit = { op: "forget_foot", ...foot };
    expect(recordOf([], [first, second, gone], foot)).toBeNull();
    expect(recordOf([], [first], { holder: "p1", foot: "f2" })).toBeNull();
  });

  it("shows what is stored where nothing waits", () => {
    const stored = [
      { id: "u1", ...foot, mark_x: { mm: 1 }, mark_y: { mm: 2 }, x: { mm: 9 }, y: null, pilot: "through" },
    ];
    const shown = recordOf(stored as unknown as Job["built"]["feet"], [], foot);
    expect(shown).toEqual({ x: { mm: 9 }, y: null, mark: { x: 1, y: 2 }, pilot: "through" });
  });

  it("ticks a mark by its place in its foot", () => {
    const second = { ...mark, number: 8 };
    expect(tickItem(second, [mark, second])).toBe("p1.f1.2");
  });
});
