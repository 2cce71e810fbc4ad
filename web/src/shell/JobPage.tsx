/** One job: what is selected and where one is, handed to the shell that fits the screen. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { StationName } from "../api/types";
import { useInstruments } from "../fields/instruments";
import { WorkingDialog } from "../fields/WorkingDialog";
import { putInAddress } from "../job/address";
import { JobContext, type JobDesk, type Selection, selectedPanel } from "../job/JobContext";
import { type Shown, useShown } from "../job/shown";
import { type Trouble, useJob } from "../job/useJob";
import { forgetCursor } from "../roof/cursor";
import { stationInfo } from "../stations";
import { Desk } from "./Desk";
import { focusBox } from "./OpenQuestions";
import { Phone, usePhone } from "./Phone";

const nameOf = (shown: Shown) => shown.answer.job.name;

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
  useEffect(() => putInAddress(setParams, "at", selection), [selection, setParams]);
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
  const phone = usePhone();
  useEffect(() => forgetCursor, []);
  useInstruments();

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

  return (
    <JobContext value={desk}>
      {phone && info.phone ? (
        <Phone station={info} heading={heading} />
      ) : (
        <Desk station={info} main={main} heading={heading} />
      )}
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
