import { describe, expect, it } from "vitest";
import { clocksRunning, itemsTicked, merged, stepsDone, waitingEntries } from "./useLog";

describe("the log in a window", () => {
  it("lays its own ticks over what the server says", () => {
    const tick = (step: string, done: boolean) => ({
      entryId: step,
      entry: { kind: "step" as const, step, done, ago_s: 0 },
    });
    expect([...stepsDone(["Mark", "Dry-fit"], [tick("Drill", true), tick("Mark", false)])]).toEqual([
      "Dry-fit",
      "Drill",
    ]);
    expect(stepsDone([], [{ entryId: "r", entry: { kind: "remark", text: "rain", place: "" } }]).size).toBe(0);
  });

  it("keeps what the answer that knows more says, in whatever order they come in", () => {
    const told = (number: number, steps: string[]) => ({
      entries: [
        {
          number,
          at: "",
          happened: "",
          client: "",
          digest: "",
          entry: { kind: "step" as const, step: `s${number}`, done: true, ago_s: 0 },
        },
      ],
      steps_done: steps,
      ticked: [],
      clocks: [],
      now: "",
      broken_at: null,
    });
    const late = merged(merged(told(1, ["s1"]), told(3, ["s1", "s2", "s3"])), told(2, ["s1", "s2"]));
    expect(late.steps_done).toEqual(["s1", "s2", "s3"]);
    expect(late.entries.map((e) => e.number)).toEqual([1, 2, 3]);
    expect(merged(undefined, told(1, ["s1"])).steps_done).toEqual(["s1"]);
  });

  it("tells when a clock ends by the difference to the server's time, whatever the day is here", () => {
    const stored = {
      now: "2026-05-01T10:00:00Z",
      clocks: [{ step: "Seal", name: "tool the bead", ends: "2026-05-01T10:20:00Z" }],
    };
    const yesterday = Date.parse("2026-04-30T09:00:00Z");
    const started = { kind: "timer" as const, step: "Hose", name: "jet", minutes: 5 };
    const here = clocksRunning(stored, [{ entryId: "a", written: yesterday, entry: started }], yesterday);
    expect(here.map((c) => [c.name, c.endsMs - yesterday])).toEqual([
      ["jet", 300_000],
      ["tool the bead", 1_200_000],
    ]);
    const off = { kind: "timer off" as const, step: "Seal", name: "tool the bead" };
    expect(clocksRunning(stored, [{ entryId: "b", entry: off }], yesterday)).toEqual([]);
  });

  it("lays ticked items over what the server says", () => {
    const tick = (item: string, done: boolean) => ({
      entryId: item,
      entry: { kind: "tick" as const, step: "Drill", item, done },
    });
    const ticked = itemsTicked([{ step: "Drill", item: "p1.f1.1" }], [tick("p1.f1.2", true), tick("p1.f1.1", false)]);
    expect([...ticked]).toEqual(["Drill|p1.f1.2"]);
  });

  it("takes a spoilt box for an empty one", () => {
    localStorage.setItem("log:a", "{not json");
    expect(waitingEntries(localStorage, "a")).toEqual([]);
  });
});
