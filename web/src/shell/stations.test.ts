import { describe, expect, it } from "vitest";
import { RoofScale } from "../roof/geometry";
import { STATIONS, stationInfo, stationOf } from "../stations";
import { ringPath } from "../stations/survey/SurveyShapes";
import { angle } from "../ui/format";

describe("the road", () => {
  it("leads a path to the station that shows it", () => {
    expect(stationOf("survey.scars.h1", "seal")).toBe("survey");
    expect(stationOf("obstacles.o1", "layout")).toBe("survey");
    expect(stationOf("scans.s1", "layout")).toBe("structure");
    expect(stationOf("mounting", "layout")).toBe("structure");
    expect(stationOf("panels.p1.feet.f2", "structure")).toBe("hold");
    expect(stationOf("panels.p1", "layout")).toBe("layout");
    expect(stationOf("workshop.stock", "hold")).toBe("build");
    expect(stationOf("days.crew", "roof-day")).toBe("days");
    expect(stationOf("care.looks.l1", "layout")).toBe("log");
  });
  it("has something to show or to say at every station", () => {
    expect(STATIONS.filter((s) => !s.body && !s.later)).toEqual([]);
    expect(stationInfo("nowhere").name).toBe("survey");
  });
});

describe("rings of the roof", () => {
  const scale = new RoofScale({ width: 1068, height: 330 }, { length: 10_000, across: 2000 });
  it("close at the strip's scale", () => {
    const path = ringPath(scale, [
      { x_mm: 0, y_mm: -1000 },
      { x_mm: 10_000, y_mm: -1000 },
      { x_mm: 10_000, y_mm: 1000 },
    ]);
    expect(path).toBe(
      `M${scale.x(0).toFixed(1)} ${scale.y(-1000).toFixed(1)}L${scale.x(10_000).toFixed(1)} ${scale.y(-1000).toFixed(1)}L${scale.x(10_000).toFixed(1)} ${scale.y(1000).toFixed(1)}Z`,
    );
    expect(ringPath(scale, [])).toBe("");
  });
});

it("shows no minus before nothing", () => {
  expect(angle(-0.02)).toBe("0.0°");
  expect(angle(-1.26)).toBe("−1.3°");
});
