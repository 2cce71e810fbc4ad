/** A phone on the roof: what is to be done now first, stops before all else, the roof when it is wanted. */
import { useEffect, useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import { useDesk, usePartOf } from "../job/JobContext";
import { useKeptInPocket } from "../job/pocket";
import { RoofStrip } from "../roof/RoofStrip";
import { LAYERS, STATIONS } from "../stations";
import type { ShellProps } from "./Desk";
import { TroubleBar } from "./TroubleBar";
import { applyTheme, currentTheme } from "./theme";

const NARROW = "(max-width: 640px)";

/** Whether the screen is a phone's. */
export function usePhone(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const media = matchMedia(NARROW);
      media.addEventListener("change", changed);
      return () => media.removeEventListener("change", changed);
    },
    () => matchMedia(NARROW).matches,
  );
}

export function Phone({ station, heading }: ShellProps) {
  const { id, handle } = useDesk();
  const name = usePartOf((shown) => shown.answer.job.name);
  const [roof, setRoof] = useState(false);
  const [theme, setTheme] = useState(currentTheme);
  const [road, setRoad] = useState(false);
  const Body = station.phone;
  useKeptInPocket(true, id);
  // what others did comes in by itself: nothing typed here is on its way, or it would be a conflict
  useEffect(() => {
    if (handle.trouble?.kind === "moved-on") void handle.reload();
  }, [handle]);
  return (
    <div className="h-dvh flex flex-col bg-sheet px-3">
      <header className="-mx-3 px-3 bg-ink text-paper flex items-center gap-2 h-12 shrink-0 [&_.act]:border-paper/60 [&_:focus-visible]:outline-tape">
        <h1 ref={heading} tabIndex={-1} className="text-[19px] truncate flex-1 outline-none">
          {name}: {station.title}
        </h1>
        <button
          type="button"
          className="act !h-10"
          aria-pressed={theme === "sun"}
          onClick={() => {
            const next = theme === "sun" ? "shop" : "sun";
            applyTheme(next);
            setTheme(next);
          }}
        >
          Sun
        </button>
        <button type="button" className="act !h-10" aria-expanded={roof} onClick={() => setRoof(!roof)}>
          Roof
        </button>
        <button type="button" className="act !h-10" aria-expanded={road} onClick={() => setRoad(!road)}>
          Plan
        </button>
      </header>
      {road && (
        <nav aria-label="Stations" className="grid grid-cols-2 gap-2 py-2 border-b-2 border-ink">
          {STATIONS.filter((s) => s.body).map((s) => (
            <Link
              key={s.name}
              to={`/jobs/${id}/${s.name}`}
              className="act !h-11 justify-center"
              onClick={() => setRoad(false)}
            >
              {s.title}
            </Link>
          ))}
          <Link to="/" className="act !h-11 justify-center">
            All jobs
          </Link>
        </nav>
      )}
      <main className="flex flex-col flex-1 min-h-0">
        <TroubleBar />
        <Stops />
        {roof && (
          <div className="py-2 border-b-2 border-ink shrink-0">
            <RoofStrip sections={false} layers={LAYERS} station={station.name} />
          </div>
        )}
        {Body && <Body />}
      </main>
    </div>
  );
}

/** Stops are said before anything is done. */
function Stops() {
  const stops = usePartOf((shown) => shown.evaluation.snags).filter((s) => s.severity === "stop");
  const [open, setOpen] = useState(false);
  if (!stops.length) return null;
  const found = stops.every((s) => s.station === "log");
  return (
    <div className="-mx-3 px-3 py-1 bg-signal text-white shrink-0" role="alert">
      <button
        type="button"
        className="w-full min-h-10 flex items-center justify-between font-sign font-semibold text-[19px]"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        <span>
          {stops.length === 1 ? "1 stop" : `${stops.length} stops`}: {found ? "do not drive on" : "do not drill"}
        </span>
        <span className="underline text-[16px]">{open ? "hide" : "why?"}</span>
      </button>
      {open && (
        <ul className="pb-2 text-[16px] leading-snug max-h-[45dvh] overflow-y-auto">
          {stops.map((s) => (
            <li key={`${s.id} ${s.place} ${s.where}`} className="pt-1">
              <span className="font-semibold">{s.title}.</span> {s.where}. {s.remedy}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
