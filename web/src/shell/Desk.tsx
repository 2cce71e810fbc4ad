/** The desk: header, road, the roof strip with its verdict, the station's own matter, and the snags beside it. */
import { type RefObject, useState } from "react";
import { CrossSection } from "../roof/CrossSection";
import { RoofStrip } from "../roof/RoofStrip";
import { LAYERS } from "../stations";
import type { Station } from "../stations/station";
import { Header } from "./Header";
import { OpenQuestions } from "./OpenQuestions";
import { Road } from "./Road";
import { SnagList } from "./SnagList";
import { TroubleBar } from "./TroubleBar";
import { Verdict } from "./Verdict";

export type ShellProps = { station: Station; heading: RefObject<HTMLHeadingElement | null> };

export function Desk({ station, heading, main }: ShellProps & { main: RefObject<HTMLElement | null> }) {
  const [sections, setSections] = useState(() => localStorage.getItem("sections") === "shown");
  const Body = station.body;
  return (
    <div className="lg:h-full flex flex-col bg-sheet">
      <button
        type="button"
        className="act sr-only focus:not-sr-only focus:!absolute focus:z-10 focus:bg-tape focus:text-[#1d2225]"
        onClick={() => heading.current?.focus()}
      >
        To the station
      </button>
      <Header />
      <Road current={station.name} />
      <TroubleBar />
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_218px] gap-2 px-3 pt-1.5 border-b-2 border-ink bg-sheet shrink-0">
        <RoofStrip sections={sections} layers={LAYERS} station={station.name} />
        <div className="border-l border-hair pl-4 min-w-0 flex flex-col">
          <Verdict />
          <div className="mt-auto">
            {sections && <CrossSection />}
            <button
              type="button"
              className="underline text-[13px] no-print"
              aria-pressed={sections}
              onClick={() => {
                localStorage.setItem("sections", sections ? "hidden" : "shown");
                setSections(!sections);
              }}
            >
              {sections ? "Hide side and cross-section" : "Show side and cross-section"}
            </button>
          </div>
        </div>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_340px] flex-1 min-h-0">
        <main ref={main} id="station" className="overflow-auto px-4 py-2 min-h-0 min-w-0">
          <div className="flex items-baseline gap-3">
            <h1 ref={heading} tabIndex={-1} className="text-[22px] outline-none">
              {station.title}
            </h1>
            <p className="text-soft">{station.question}</p>
          </div>
          <OpenQuestions station={station.name} />
          {Body ? <Body /> : <p className="py-3 max-w-[60ch]">{station.later}</p>}
        </main>
        <aside className="border-l border-hair px-3 py-2 min-h-0 bg-paper/60">
          <SnagList station={station.name} />
        </aside>
      </div>
    </div>
  );
}
