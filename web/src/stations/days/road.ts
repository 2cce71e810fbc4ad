/**
 * Where times lie on the road of days. Times are read as the place's clock has them, never in the zone of whoever looks.
 * Days on which something is done are wide, the others narrow; nights are drawn short. Pure.
 */
import type { DayPlan, PlannedStep } from "../../api/types";

export type DayBox = { date: string; x: number; width: number; busy: boolean };
export type Road = { days: readonly DayBox[]; width: number; open: number; close: number };

const DAY_MS = 86_400_000;
const WIDE = 1;
const NARROW = 0.24;
const NIGHT_SHARE = 0.07;

export const dateOf = (moment: string): string => moment.slice(0, 10);
export const hourOf = (moment: string): number => Number(moment.slice(11, 13)) + Number(moment.slice(14, 16)) / 60;
export const timeOf = (moment: string): string => moment.slice(11, 16);

export function nextDay(date: string, by = 1): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + by * DAY_MS).toISOString().slice(0, 10);
}

export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY_MS);
}

const dayFormat = new Intl.DateTimeFormat("en-GB", {
  weekday: "short",
  day: "numeric",
  month: "short",
  timeZone: "UTC",
});
export const dayWords = (date: string): string => dayFormat.format(new Date(`${date}T00:00:00Z`)).replace(",", "");
export const whenWords = (moment: string): string => `${dayWords(dateOf(moment))}, ${timeOf(moment)}`;

/** All days from the first that is planned to the last on which something happens; working hours take most of each. */
export function roadOf(
  plan: Pick<DayPlan, "steps" | "finish">,
  first: string,
  left: number,
  width: number,
  hours: readonly string[],
): Road {
  const last = plan.finish ? dateOf(plan.finish) : first;
  const start = plan.steps.reduce((least, s) => (dateOf(s.starts) < least ? dateOf(s.starts) : least), first);
  const dates = Array.from({ length: Math.min(daysBetween(start, last) + 1, 60) }, (_, i) => nextDay(start, i));
  const busy = new Set(plan.steps.filter((s) => s.kind !== "drive").map((s) => dateOf(s.starts)));
  const shares = dates.map((d) => (busy.has(d) ? WIDE : NARROW));
  const unit = (width - left) / shares.reduce((sum, s) => sum + s, 0);
  let x = left;
  const days = dates.map((date, i) => {
    const box = { date, x, width: (shares[i] ?? NARROW) * unit, busy: busy.has(date) };
    x += box.width;
    return box;
  });
  const told = [...hours.map((h) => hourOf(`2000-01-01T${h}`)), 8, 17];
  return { days, width, open: Math.max(Math.min(...told) - 0.5, 1), close: Math.min(Math.max(...told) + 0.5, 23) };
}

/** Where an hour lies in its day. */
export function hourShare(road: Road, hour: number): number {
  const { open, close } = road;
  if (hour <= open) return (hour / open) * NIGHT_SHARE;
  if (hour >= close) return 1 - NIGHT_SHARE + ((hour - close) / (24 - close)) * NIGHT_SHARE;
  return NIGHT_SHARE + ((hour - open) / (close - open)) * (1 - 2 * NIGHT_SHARE);
}

export function xOf(road: Road, moment: string): number {
  const box = road.days.find((d) => d.date === dateOf(moment));
  if (box) return box.x + hourShare(road, hourOf(moment)) * box.width;
  const first = road.days[0];
  return first && dateOf(moment) < first.date ? first.x : road.width;
}

/** The half hour under a place on the road; null beside it. */
export function momentAt(road: Road, x: number): { date: string; time: string } | null {
  const box = road.days.find((d) => x >= d.x && x < d.x + d.width);
  if (!box) return null;
  const share = ((x - box.x) / box.width - NIGHT_SHARE) / (1 - 2 * NIGHT_SHARE);
  const hour = Math.min(Math.max(road.open + share * (road.close - road.open), road.open), road.close);
  const half = Math.round(hour * 2) / 2;
  return { date: box.date, time: `${String(Math.floor(half)).padStart(2, "0")}:${half % 1 ? "30" : "00"}` };
}

/** Steps by whom: a lane for each person who does something, then what nobody has to do. */
export function lanesOf(plan: DayPlan, crew: readonly string[]): readonly { who: string; steps: PlannedStep[] }[] {
  return crew.map((who) => ({ who, steps: plan.steps.filter((s) => s.persons.includes(who)) }));
}

/** Whether all steps of a kind have ended by a moment. */
export function allDone(plan: DayPlan, kinds: readonly string[], moment: string): boolean {
  const own = plan.steps.filter((s) => kinds.includes(s.kind));
  return own.length > 0 && own.every((s) => Date.parse(s.ends) <= Date.parse(moment));
}
