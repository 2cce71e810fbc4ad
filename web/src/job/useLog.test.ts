import { describe, expect, it } from "vitest";
import { stepsDone, waitingEntries } from "./useLog";

describe("the log in a window", () => {
  it("lays its own ticks over what the server says", () => {
    const tick = (step: string, done: boolean) => ({ entryId: step, entry: { kind: "step" as const, step, done } });
    expect([...stepsDone(["Mark", "Dry-fit"], [tick("Drill", true), tick("Mark", false)])]).toEqual([
      "Dry-fit",
      "Drill",
    ]);
    expect(stepsDone([], [{ entryId: "r", entry: { kind: "remark", text: "rain", place: "" } }]).size).toBe(0);
  });

  it("takes a spoilt box for an empty one", () => {
    localStorage.setItem("log:a", "{not json");
    expect(waitingEntries(localStorage, "a")).toEqual([]);
  });
});
