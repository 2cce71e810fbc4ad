import { describe, expect, it } from "vitest";
import { merged, stepsDone, waitingEntries } from "./useLog";

describe("the log in a window", () => {
  it("lays its own ticks over what the server says", () => {
    const tick = (step: string, done: boolean) => ({ entryId: step, entry: { kind: "step" as const, step, done } });
    expect([...stepsDone(["Mark", "Dry-fit"], [tick("Drill", true), tick("Mark", false)])]).toEqual([
      "Dry-fit",
      "Drill",
    ]);
    expect(stepsDone([], [{ entryId: "r", entry: { kind: "remark", text: "rain", place: "" } }]).size).toBe(0);
  });

  it("keeps what the answer that knows more says, in whatever order they come in", () => {
    const told = (number: number, steps: string[]) => ({
      entries: [
        { number, at: "", client: "", digest: "", entry: { kind: "step" as const, step: `s${number}`, done: true } },
      ],
      steps_done: steps,
      broken_at: null,
    });
    const late = merged(merged(told(1, ["s1"]), told(3, ["s1", "s2", "s3"])), told(2, ["s1", "s2"]));
    expect(late.steps_done).toEqual(["s1", "s2", "s3"]);
    expect(late.entries.map((e) => e.number)).toEqual([1, 2, 3]);
    expect(merged(undefined, told(1, ["s1"])).steps_done).toEqual(["s1"]);
  });

  it("takes a spoilt box for an empty one", () => {
    localStorage.setItem("log:a", "{not json");
    expect(waitingEntries(localStorage, "a")).toEqual([]);
  });
});
