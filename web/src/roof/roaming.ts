/**
 * Moving about the strip by keyboard. The strip is one tab stop; arrows go from thing to thing, Enter takes one, then arrows move
 * that thing on the roof; Escape lets go of it and arrows roam again.
 */
import type { KeyboardEvent } from "react";

let roaming = false;

/** Whether arrows now go from thing to thing instead of moving the one in focus. */
export const isRoaming = (): boolean => roaming;

export const stopRoaming = (): void => {
  roaming = false;
};

const THINGS = '[role="button"]';

/** ``letGo`` drops the selection. Reached only by keys that the thing in focus does not take for itself. */
export function roam(event: KeyboardEvent<SVGSVGElement>, letGo: () => void): void {
  const strip = event.currentTarget;
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
  if (event.key === "Escape") {
    roaming = event.target !== strip;
    letGo();
    return;
  }
  if (event.key === "Enter" || event.key === " ") {
    roaming = false;
    return;
  }
  if (!step || event.ctrlKey || event.metaKey || event.altKey) return;
  const things = [...strip.querySelectorAll<SVGElement>(THINGS)];
  const at = event.target instanceof SVGElement ? things.indexOf(event.target) : -1;
  if (at >= 0 && !roaming) return;
  roaming = true;
  event.preventDefault();
  things[(at + step + things.length) % things.length]?.focus();
}
