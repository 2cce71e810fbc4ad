/** One job: header, road, the roof strip with its verdict, the station's own matter, and the snags. */
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { StationName } from "../api/types";
import { WorkingDialog } from "../fields/WorkingDialog";
import { JobContext, type JobDesk, type Selection, selectedPanel } from "../job/JobContext";
import { type Shown, useShown } from "../job/shown";
import { stationInfo } from "../job/stations";
import { type Trouble, useJob } from "../job/useJob";
import { CrossSection } from "../roof/CrossSection";
import { forgetCursor } from "../roof/cursor";
import { RoofStrip } from "../roof/RoofStrip";
import { HoldStation } from "../stations/hold/HoldStation";
import { LayoutStation } from "../stations/layout/LayoutStation";
import { RoofDayStation } from "../stations/roof-day/RoofDayStation";
import { StructureStation } from "../stations/structure/StructureStation";
import { SurveyStation } from "../stations/survey/SurveyStation";
import { Header } from "./Header";
import { focusBox, OpenQuestions } from "./OpenQuestions";
import { Road } from "./Road";
import { SnagList } from "./SnagList";
import { TroubleBar } from "./TroubleBar";
import { Verdict } from "./Verdict";

const nameOf = (shown: Shown) => shown.answer.job.name;
const BODIES: Partial<Record<StationName, () => ReactNode>> = {
  survey: SurveyStation,
  structure: StructureStation,
  layout: LayoutStation,
  hold: HoldStation,
  "roof-day": RoofDayStation,
};

export function JobPage() {
  const { id = "", station } = useParams();
  const navigate = useNavigate();
  const handle = useJob(id);
  const [params, setParams] = useSearchParams();
  // the selection is there at once; the address follows, for a reload or a link
  const [selection, setSelection] = useState<Selection>(() => params.get("at"));
  const [ledTo, setLedTo] = useState<Selection>(null);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const select = useCallback((path: Selection) => {
    setPicked([]);
    setSelection(path);
  }, []);
  useEffect(() => {
    setParams(
      (before) => {
        if (selection) before.set("at", selection);
        else before.delete("at");
        return before;
      },
      { replace: true },
    );
  }, [selection, setParams]);
  const pick = useCallback(
    (panel: string) => {
      const chosen = selectedPanel(selection);
      const before = picked.length ? picked : chosen && chosen !== panel ? [chosen] : [];
      setPicked(before.includes(panel) ? before.filter((p) => p !== panel) : [...before, panel]);
    },
    [picked, selection],
  );
  const main = useRef<HTMLElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  const [working, setWorking] = useState<{ place: string; title: string } | null>(null);
  const info = stationInfo(station);
  const [sections, setSections] = useState(() => localStorage.getItem("sections") === "shown");
  useEffect(() => forgetCursor, []);

  const go = useCallback(
    (name: StationName, path?: Selection) => {
      setLedTo(path ?? null);
      const at = path === undefined ? selection : path;
      select(at);
      void navigate(`/jobs/${id}/${name}${at ? `?at=${encodeURIComponent(at)}` : ""}`);
      if (path) setTimeout(() => focusBox(path), 80);
    },
    [id, navigate, select, selection],
  );
  const openWorking = useCallback((place: string, title: string) => setWorking({ place, title }), []);

  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.target instanceof HTMLInputElement) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      void handle.travel(key === "y" || event.shiftKey ? "redo" : "undo");
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [handle]);

  const open = handle.open;
  const name = useShown(id, nameOf);
  useEffect(() => {
    if (!open || !info.name) return;
    main.current?.scrollTo({ top: 0 });
    heading.current?.focus({ preventScroll: true });
  }, [info.name, open]);

  useEffect(() => {
    document.title = name ? `${name}: ${info.title}` : "Fahrtwind";
  }, [name, info.title]);

  const desk = useMemo<JobDesk>(
    () => ({ id, handle, selection, select, picked, pick, go, ledTo, openWorking }),
    [id, handle, selection, select, picked, pick, go, ledTo, openWorking],
  );

  if (!open)
    return (
      <main className="p-8">
        {handle.trouble?.kind === "unreadable" ? (
          <Unreadable id={id} trouble={handle.trouble} undo={() => void handle.travel("undo")} />
        ) : handle.trouble?.kind === "failing" ? (
          <p>{handle.trouble.message} Trying again …</p>
        ) : handle.trouble?.kind === "gone" ? (
          <p>
            {handle.trouble.message} <Link to="/">To the list of jobs</Link>
          </p>
        ) : (
          <p>{handle.trouble ? "The server does not answer. Trying again …" : "Opening the job …"}</p>
        )}
      </main>
    );

  const Body = BODIES[info.name];
  return (
    <JobContext value={desk}>
      <div className="lg:h-full flex flex-col bg-sheet">
        <button
          type="button"
          className="act sr-only focus:not-sr-only focus:!absolute focus:z-10 focus:bg-tape focus:text-[#1d2225]"
          onClick={() => heading.current?.focus()}
        >
          To the station
        </button>
        <Header />
        <Road current={info.name} />
        <TroubleBar />
        <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_218px] gap-2 px-3 pt-1.5 border-b-2 border-ink bg-sheet shrink-0">
          <RoofStrip sections={sections} />
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
                {info.title}
              </h1>
              <p className="text-soft">{info.question}</p>
            </div>
            <OpenQuestions station={info.name} />
            {Body ? <Body /> : <p className="py-3 max-w-[60ch]">{info.later}</p>}
          </main>
          <aside className="border-l border-hair px-3 py-2 min-h-0 bg-paper/60">
            <SnagList station={info.name} />
          </aside>
        </div>
      </div>
      <WorkingDialog place={working?.place ?? null} title={working?.title ?? ""} close={() => setWorking(null)} />
    </JobContext>
  );
}

/** A stored job that this program cannot read: its last change can be undone, and its file taken as it is. */
function Unreadable({
  id,
  trouble,
  undo,
}: {
  id: string;
  trouble: Extract<Trouble, { kind: "unreadable" }>;
  undo: () => void;
}) {
  return (
    <div className="grid gap-3 max-w-[70ch]">
      <h1 className="text-[28px]">This job cannot be read</h1>
      <p>{trouble.message}</p>
      <p className="flex flex-wrap gap-3">
        {trouble.canUndo && (
          <button type="button" className="act" onClick={undo}>
            Undo the last change
          </button>
        )}
        <a className="act" href={`/api/jobs/${id}/files/job.json`} download>
          Take the file as it is
        </a>
        <Link className="act" to="/">
          To the list of jobs
        </Link>
      </p>
    </div>
  );
}
