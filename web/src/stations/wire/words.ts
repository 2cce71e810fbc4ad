/** Small words of the wiring. */
import { newUuid } from "../../api/ids";

export const AMPS = (a: number): string => `${a.toFixed(a < 10 && a % 1 ? 1 : 0)} A`;

/** An id of our own where several entries have to name one another in one edit. */
export const newId = (kind: string): string => `${kind}${newUuid().slice(0, 8)}`;

export const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
] as const;
