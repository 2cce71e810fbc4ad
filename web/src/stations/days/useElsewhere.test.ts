import { expect, test } from "vitest";
import type { DayPlan, Elsewhere } from "../../api/types";
import { clashesOf, daysTaken, spansWords } from "./useElsewhere";

const step = (persons: string[], starts: string, ends: string, done = false) => ({ persons, starts, ends, done });
const at = (name: string, job: string, starts: string, ends: string) =>
  ({ person: name, name, job, sure: true, taken: [{ job, starts, ends }] }) as Elsewhere;

test("who is wanted at two vehicles at once is told with the other vehicle, each once", () => {
  const plan = {
    steps: [
      step(["Ada", "Bo"], "2026-05-04T08:00+02:00", "2026-05-04T10:00+02:00"),
      step(["Bo"], "2026-05-04T13:00+02:00", "2026-05-04T14:00+02:00"),
      step(["Cy"], "2026-05-04T08:00+02:00", "2026-05-04T09:00+02:00", true),
    ],
  } as unknown as DayPlan;
  const others = [
    at("Ada", "Kiosk", "2026-05-04T09:30+02:00", "2026-05-04T11:00+02:00"),
    at("Bo", "Kiosk", "2026-05-04T10:00+02:00", "2026-05-04T13:00+02:00"),
    at("Bo", "Zirkus", "2026-05-04T11:30+00:00", "2026-05-04T12:30+00:00"),
    at("Cy", "Zirkus", "2026-05-04T08:00+02:00", "2026-05-04T09:00+02:00"),
  ];
  expect(clashesOf(plan, others)).toEqual([
    { job: "Kiosk", names: ["Ada"] },
    { job: "Zirkus", names: ["Bo"] },
  ]);
});

test("whole days end at midnight, hours of one day are told once", () => {
  const whole = { job: "K", starts: "2026-05-04T00:00:00+02:00", ends: "2026-05-06T00:00:00+02:00" };
  const hours = (from: string, to: string) => ({
    job: "K",
    starts: `2026-05-07T${from}+02:00`,
    ends: `2026-05-07T${to}+02:00`,
  });
  const taken = [whole, hours("08:00:00", "09:30:00"), hours("10:00:00", "12:00:00")];
  expect(spansWords(taken)).toBe("Mon 4 May to Tue 5 May, Thu 7 May");
  expect(daysTaken(taken)).toBe(3);
});
