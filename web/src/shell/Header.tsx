import { useState } from "react";
import { Link } from "react-router";
import { useDrafts } from "../job/drafts";
import { useDesk, usePartOf } from "../job/JobContext";
import { stationOf } from "../stations";
import { applyTheme, currentTheme } from "./theme";
import { Wordmark } from "./Wordmark";

export function Header() {
  const { id, handle, go } = useDesk();
  const answer = usePartOf((shown) => shown.answer);
  const [theme, setTheme] = useState(currentTheme);
  const drafts = useDrafts(id);
  const stuck = handle.trouble !== null && handle.trouble.kind !== "moved-on";
  const status = stuck ? "not saved" : handle.saving ? "saving" : "saved";
  return (
    <header className="bg-ink text-paper min-h-11 px-3 py-1 flex flex-wrap items-center gap-x-4 gap-y-1 shrink-0 no-print [&_.act]:border-paper/60 [&_.act:hover:not(:disabled)]:bg-paper [&_.act:hover:not(:disabled)]:text-ink [&_.act:disabled]:text-paper/70 [&_:focus-visible]:outline-tape">
      <Link to="/" aria-label="Fahrtwind, list of jobs">
        <Wordmark />
      </Link>
      <span className="font-sign font-semibold text-[19px] truncate">{answer.job.name}</span>
      <span className="text-paper/80" role="status">
        {status}
      </span>
      {drafts[0] && (
        <button
          type="button"
          className="underline font-semibold text-tape min-h-6"
          onClick={() => go(stationOf(drafts[0] ?? "", "survey"), drafts[0])}
        >
          {drafts.length} typed, not stored
        </button>
      )}
      <span className="ml-auto flex gap-2">
        <button
          type="button"
          className="act"
          disabled={!answer.can_undo}
          onClick={() => void handle.travel("undo")}
          aria-keyshortcuts="Control+Z"
        >
          Undo
        </button>
        <button
          type="button"
          className="act"
          disabled={!answer.can_redo}
          onClick={() => void handle.travel("redo")}
          aria-keyshortcuts="Control+Y"
        >
          Redo
        </button>
        <a className="act" href={`/api/jobs/${id}/files/job.json`} download>
          Job file
        </a>
        <button
          type="button"
          className="act"
          aria-pressed={theme === "sun"}
          onClick={() => {
            const next = theme === "sun" ? "shop" : "sun";
            applyTheme(next);
            setTheme(next);
          }}
        >
          {theme === "sun" ? "Shop light" : "Sunlight"}
        </button>
      </span>
    </header>
  );
}
