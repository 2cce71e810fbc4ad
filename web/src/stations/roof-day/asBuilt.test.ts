import { describe, expect, it } from "vitest";
import type { FootPlace, Job, Mark } from "../../api/types";
import { fromCentre, newRecord, pilotReading, readingEdits, recorded, tickItem } from "./asBuilt";

const mark = { number: 7, panel: "p1", foot: "f1", x_mm: 1243, y_mm: -410 } as Mark;
const place = { x_mm: 1263, y_mm: -400 } as FootPlace;
const job = (readings: unknown[]) => ({ readings }) as unknown as Job;

describe("a record of the roof", () => {
  it("is added once and then set field by field", () => {
    const fresh = () => newRecord("u1", mark, place);
    expect(recorded(undefined, fresh, "x", "1251")).toEqual([
      { op: "add", path: "built.feet", value: { ...fresh(), x: "1251" } },
    ]);
    expect(recorded(fresh(), fresh, "pilot", "solid")).toEqual([
      { op: "set", path: "built.feet.u1.pilot", value: "solid" },
    ]);
  });

  it("tells the member finder what the pilot met, and corrects it", () => {
    expect(pilotReading(job([]), "u1", 1243, "solid")).toMatchObject({ op: "add", value: { kind: "pilot_solid" } });
    expect(pilotReading(job([{ id: "u1p" }]), "u1", 1243, "through")).toEqual({
      op: "set",
      path: "readings.u1p.kind",
      value: "pilot_through",
    });
  });

  it("reads the tape from the centre line on the mark's own side", () => {
    expect(fromCentre(" 412 ", mark)).toBe("-412");
    expect(fromCentre("-412", mark)).toBe("-412");
    expect(fromCentre("412", { y_mm: 3 })).toBe("412");
    expect(fromCentre("", mark)).toBe("");
  });

  it("ticks a mark by its place in its foot", () => {
    const second = { ...mark, number: 8 };
    expect(tickItem(second, [mark, second])).toBe("p1.f1.2");
  });

  it("tells the job how warm the roof is under tape and under sealant", () => {
    const panels = [
      { id: "p1", hold: { school: "tape" } },
      { id: "p2", hold: { school: "screws" } },
      { id: "p3", carrier: "c1", hold: { school: "tape" } },
    ];
    const on = { panels } as unknown as Job;
    expect(readingEdits(on, "stick", "skin temperature", "9 °C")).toEqual([
      { op: "set", path: "panels.p1.hold.temperature", value: "9 °C" },
    ]);
    expect(readingEdits(on, "seal", "humidity", "56 %")).toEqual([{ op: "set", path: "seal.humidity", value: "56" }]);
    expect(readingEdits(on, "tighten", "skin temperature", "9 °C")).toEqual([]);
  });
});
