/** How numbers are shown. Display only: no verdict is computed here. */
import type { Units } from "../api/types";

export type Quantity = {
  text?: string | null;
  mm?: number;
  m_s?: number;
  kg?: number;
  w?: number;
  deg_c?: number;
  deg?: number;
  v?: number;
  pa?: number;
  a?: number;
  n_m?: number;
};

const MM_PER_INCH = 25.4;
const M_S_PER_MPH = 0.44704;
const KG_PER_LB = 0.45359237;
/** Beyond this a length is an altitude, told in feet. */
const FEET_FROM_MM = 30_000;

export function inches(mm: number): string {
  const parts = Math.round((Math.abs(mm) / MM_PER_INCH) * 16);
  const whole = Math.floor(parts / 16);
  const rest = parts % 16;
  const sign = mm < 0 && parts > 0 ? "−" : "";
  if (rest === 0) return `${sign}${whole}"`;
  const divisor = rest % 8 === 0 ? 8 : rest % 4 === 0 ? 4 : rest % 2 === 0 ? 2 : 1;
  const fraction = `${rest / divisor}/${16 / divisor}`;
  return `${sign}${whole ? `${whole} ` : ""}${fraction}"`;
}

export function length(mm: number, units: Units): string {
  if (units === "imperial") return inches(mm);
  const digits = Math.abs(mm) < 100 && Math.abs(mm - Math.round(mm)) > 0.05 ? 1 : 0;
  return `${mm.toFixed(digits).replace("-", "−")} mm`;
}

/** Rounded down: a limit is never rounded up. */
export function speedNumber(mPerS: number, units: Units): number {
  return Math.floor((units === "metric" ? mPerS * 3.6 : mPerS / M_S_PER_MPH) + 1e-9);
}

/** A pressure in whole pascals, or pounds per square foot. */
export const pressure = (pa: number, units: Units): string =>
  units === "metric" ? `${Math.round(pa)} Pa` : `${(pa / 47.88026).toFixed(1)} psf`;

export const speedUnit = (units: Units): string => (units === "metric" ? "km/h" : "mph");
export const speed = (mPerS: number, units: Units): string => `${speedNumber(mPerS, units)} ${speedUnit(units)}`;

/** Stress in N/mm², told as tape makers tell it. */
export const stress = (nPerMm2: number, units: Units): string =>
  units === "metric" ? `${(nPerMm2 * 1000).toFixed(1)} kPa` : `${(nPerMm2 * 145.0377).toFixed(2)} psi`;

export function mass(kg: number, units: Units): string {
  return units === "metric" ? `${kg.toFixed(1)} kg` : `${(kg / KG_PER_LB).toFixed(1)} lb`;
}

export function force(newton: number, units: Units): string {
  return units === "metric" ? `${Math.round(newton)} N` : `${Math.round(newton / 4.4482216)} lbf`;
}

/** A small angle with one digit and its sign. */
export function angle(deg: number): string {
  return `${deg
    .toFixed(1)
    .replace(/^-(?=0\.0$)/, "")
    .replace("-", "−")}°`;
}

/** A chance that is never told as certain. */
export function likely(share: number): string {
  return share >= 0.995 ? "over 99 %" : percent(share);
}

export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** A year's energy in whole kilowatt hours; a day's, in watt hours. */
const MM_PER_FOOT = 304.8;

/** From which distance a panel shows over the roof's edge; rounded down, nobody is told to be hidden who is not. */
export function seenInTheStreet(seen: { distance_m?: number | null } | null | undefined, units: Units): string {
  if (!seen) return "vehicle's height not given";
  if (seen.distance_m === null || seen.distance_m === undefined) return "never";
  return units === "metric"
    ? `from ${Math.floor(seen.distance_m)} m`
    : `from ${Math.floor((seen.distance_m * 1000) / MM_PER_FOOT)} ft`;
}

export const yearEnergy = (wh: number): string => `${Math.round(wh / 1000).toLocaleString("en")} kWh`;
export const dayEnergy = (wh: number): string => `${(Math.round(wh / 10) * 10).toLocaleString("en")} Wh`;

/** Feet that are in members for sure, and those that may be: members are only known so well. */
export const feetInMembers = (f: { feet: number; feet_on_members: number; feet_perhaps: number }): string =>
  `${f.feet_on_members} of ${f.feet}${f.feet_perhaps ? `, ${f.feet_perhaps} perhaps` : ""}`;

/** Hours since midnight as a clock shows them. */
export const clock = (hours: number): string =>
  `${Math.floor(hours)}:${String(Math.round((hours % 1) * 60)).padStart(2, "0")}`;

/** How much more something costs than before. */
export const dearer = (by: number, currency: string): string =>
  Math.abs(by) < 0.005 ? "costs the same" : `${by > 0 ? "+" : "−"}${Math.abs(by).toFixed(2)} ${currency}`;

/** So many of something: pieces bare, metres as metres, packs as packs. */
export const counted = ({ count, unit }: { count: number; unit: string }): string =>
  unit === "pc" ? `${count}` : unit === "m" ? `${count} m` : `${count} × ${unit}`;

/** A torque as wrenches show it. */
export const torque = (newtonMetres: number, units: Units): string =>
  units === "imperial" ? `${Math.round(newtonMetres / 0.1129848)} in·lb` : `${newtonMetres.toFixed(1)} N·m`;

/** A temperature to the degree. */
export const temperature = (degC: number, units: Units): string =>
  units === "imperial" ? `${Math.round(degC * 1.8 + 32)} °F` : `${Math.round(degC)} °C`;

/** What stands in an input box: the text as it was typed, or the value in the job's units. */
export function shown(quantity: Quantity | null | undefined, units: Units): string {
  if (!quantity) return "";
  if (quantity.text) return quantity.text;
  if (quantity.mm !== undefined && units === "imperial" && Math.abs(quantity.mm) > FEET_FROM_MM)
    return `${Math.round(quantity.mm / 304.8)} ft`;
  if (quantity.mm && Math.abs(quantity.mm) < 1) return `${quantity.mm} mm`;
  if (quantity.mm !== undefined) return length(quantity.mm, units).replace("−", "-");
  if (quantity.m_s !== undefined) return speed(quantity.m_s, units);
  if (quantity.kg !== undefined) return mass(quantity.kg, units);
  if (quantity.w !== undefined) return `${quantity.w} W`;
  if (quantity.deg !== undefined) return `${quantity.deg}°`;
  if (quantity.deg_c !== undefined) return `${quantity.deg_c} °C`;
  if (quantity.pa !== undefined) return pressure(quantity.pa, units);
  if (quantity.v !== undefined) return `${quantity.v} V`;
  if (quantity.a !== undefined) return `${quantity.a} A`;
  if (quantity.n_m !== undefined) return torque(quantity.n_m, units);
  return "";
}

/** A number as it is typed, with a decimal comma too; null where nothing is. Throws where it is none. */
export function plainNumber(typed: string): number | null {
  const text = typed.trim();
  const value = Number(text.replace(/^([+-]?\d+),(\d{1,2})$/, "$1.$2"));
  if (!Number.isFinite(value)) throw new Error(`“${text}” is not a number. Type for example 12 or 38.50.`);
  return text === "" ? null : value;
}

const EXAMPLE = /^(-?[\d.,]+)\s*(mm|cm|m|km\/h|kg|°C)$/;
const MM_IN: Record<string, number> = { mm: 1, cm: 10, m: 1000 };

/** An example in an empty box, in the units of the job. */
export function example(text: string, units: Units): string {
  const match = units === "imperial" ? EXAMPLE.exec(text) : null;
  const [, number, unit] = match ?? [];
  if (number === undefined || unit === undefined) return text;
  const value = Number(number.replace(",", "."));
  if (unit === "km/h") return `${Math.round(value / 1.609344 / 5) * 5} mph`;
  if (unit === "kg") return `${Math.round(value / KG_PER_LB)} lb`;
  if (unit === "°C") return `${Math.round(value * 1.8 + 32)} °F`;
  const mm = value * (MM_IN[unit] ?? 1);
  return mm >= 50_000 ? `${Math.round(mm / 304.8 / 50) * 50} ft` : inches(mm).replace("−", "-");
}

/** A number of a working sheet in the units of the job beside the one it was computed in; empty where that says nothing new. */
export function alsoIn(value: number, unit: string, units: Units): string {
  if (units === "metric") return "";
  const factor: Record<string, [number, string]> = {
    mm: [1 / MM_PER_INCH, "in"],
    N: [1 / 4.4482216, "lbf"],
    kg: [1 / KG_PER_LB, "lb"],
    "m/s": [1 / M_S_PER_MPH, "mph"],
    Pa: [1 / 47.880259, "psf"],
    m: [1 / 0.3048, "ft"],
  };
  const to = factor[unit];
  return to ? `${Number((value * to[0]).toPrecision(4))} ${to[1]}` : "";
}

/** A signed offset from the centre line as people say it. */
export function across(mm: number, units: Units): string {
  if (Math.abs(mm) < 0.05) return "on the centre line";
  return `${length(Math.abs(mm), units)} to ${mm < 0 ? "port" : "starboard"}`;
}
