/** Pieces of the layout station that need no job: what they say for what the server tells. */
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { LayoutChange, Panel, PanelModel, ShadeMoment, YieldFinding } from "../../api/types";
import { panelName } from "../../roof/names";
import { positionEdits, together } from "../../roof/useDrag";
import { dayEnergy, shown, yearEnergy } from "../../ui/format";
import { MomentInWords, momentAt } from "./DayShadows";
import { ChangeTable } from "./ReplaceModel";
import { ShadeClock } from "./ShadeClock";
import { copyEdits } from "./useModels";

const model = { name: "Stein 200" } as PanelModel;
const panel = (id: string, x: number, array: string | null = null): Panel =>
  ({ id, name: `Panel ${id}`, model, x: { mm: x }, y: { mm: -300 }, array, locked: false }) as Panel;

describe("moving panels", () => {
  const row = [panel("p1", 100, "rear"), panel("p2", 900, "rear"), panel("p3", 1700)];

  it("takes the whole array along, and a single panel alone", () => {
    expect(together(row, row[0] as Panel).map((p) => p.id)).toEqual(["p1", "p2"]);
    expect(together(row, row[2] as Panel).map((p) => p.id)).toEqual(["p3"]);
  });

  it("moves each by the same way, along only where it moved along", () => {
    const edits = positionEdits(row.slice(0, 2), 10, 0, () => undefined);
    expect(edits).toEqual([
      { op: "set", path: "panels.p1.x", value: { mm: 110 } },
      { op: "set", path: "panels.p2.x", value: { mm: 910 } },
    ]);
  });

  it("starts from where the last press will have got to", () => {
    const onItsWay = (path: string) => (path === "panels.p3.y" ? -250 : undefined);
    expect(positionEdits(row.slice(2), 0, 10, onItsWay)).toEqual([
      { op: "set", path: "panels.p3.y", value: { mm: -240 } },
    ]);
  });

  it("does nothing for no way at all", () => {
    expect(positionEdits(row, 0, 0, () => undefined)).toEqual([]);
  });
});

describe("models", () => {
  it("copies a model of the shop into the job before it is used", () => {
    expect(copyEdits({ model, from: "shop" })).toEqual([{ op: "add", path: "own_models", value: model }]);
    expect(copyEdits({ model, from: "job" })).toEqual([]);
    expect(copyEdits({ model, from: "start" })).toEqual([]);
  });
});

describe("what changes", () => {
  const change = (what: string, before: string, after: string, worse = false): LayoutChange => ({
    station: "roof-day",
    what,
    before,
    after,
    worse,
  });

  it("says so where nothing does", () => {
    expect(renderToStaticMarkup(<ChangeTable changes={[]} />)).toContain("Nothing that is derived changes");
  });

  it("shows before and after, new trouble in bold, a stop as a stop", () => {
    const html = renderToStaticMarkup(
      <ChangeTable
        changes={[change("power", "320 W", "410 W"), change("Panel over the roof edge: Rear", "", "stop", true)]}
      />,
    );
    expect(html).toContain("320 W");
    expect(html).toContain("roof day");
    expect(html).toMatch(/font-semibold.*Panel over the roof edge/);
    expect(html).toContain("text-signal");
    expect(html).toContain(">no<");
  });
});

describe("the hours of shadow", () => {
  const dark = Array.from({ length: 24 }, () => null);
  const month = (lost: (number | null)[]): YieldFinding["months"][number] => ({
    month: "December",
    day_wh: 1234,
    beam_lost: 0.1,
    lost: 0.1,
    lost_by_hour: lost,
  });
  const day = dark.map((_, h) => (h >= 9 && h <= 15 ? 0.02 : null)) as (number | null)[];

  it("shows only the hours with light, and figures only where they matter", () => {
    const html = renderToStaticMarkup(<ShadeClock months={[month(day.map((l, h) => (h === 10 ? 0.31 : l)))]} />);
    expect(html).toContain(">9<");
    expect(html).not.toContain(">8<");
    expect(html).toContain(">31<");
    expect(html).not.toContain(">2<");
    expect(html).toContain("1,230 Wh");
  });

  it("is silent where there is no light at all", () => {
    expect(renderToStaticMarkup(<ShadeClock months={[month(dark)]} />)).toBe("");
  });
});

describe("words", () => {
  it("says energy in round figures", () => {
    expect(yearEnergy(1_515_900)).toBe("1,516 kWh");
    expect(dayEnergy(1234)).toBe("1,230 Wh");
  });

  it("shows volts and amperes as they were typed or with their unit", () => {
    expect(shown({ v: 37.2 }, "metric")).toBe("37.2 V");
    expect(shown({ a: 8.6, text: "8,6 A" }, "imperial")).toBe("8,6 A");
  });

  it("names a locked panel as locked", () => {
    expect(panelName({ ...panel("p1", 200), locked: true }, [], "metric")).toContain("locked");
    expect(panelName(panel("p1", 200), [], "metric")).not.toContain("locked");
  });
});

describe("a moment of shadow", () => {
  const moment = (hour: number, share: number): ShadeMoment => ({
    hour,
    bearing_deg: 358,
    elevation_deg: 17.6,
    shadows: [
      { panel: "", rings: [], share: 0.4 },
      { panel: "p1", rings: [], share },
    ],
  });

  it("is the one nearest to the hour, also where the day is shorter", () => {
    const day = [8, 8.5, 9].map((h) => moment(h, 0));
    expect(momentAt(day, 8.4)?.hour).toBe(8.5);
    expect(momentAt(day, 17)?.hour).toBe(9);
    expect(momentAt([], 12)).toBeUndefined();
  });

  it("says from where and on what, the roof between left out", () => {
    const say = (share: number) =>
      renderToStaticMarkup(<MomentInWords moment={moment(12, share)} names={new Map([["p1", "Rear"]])} />);
    expect(say(0.23)).toContain("Sun from ahead, 18° high.");
    expect(say(0.23)).toContain("In shadow: Rear 23 %.");
    expect(say(0.001)).toContain("No panel in shadow.");
  });
});
