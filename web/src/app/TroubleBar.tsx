/** Said in a bar, not in a box that blocks: another window changed the job, or the server does not answer. */
import { useJobView } from "./JobContext";

export function TroubleBar() {
  const { handle } = useJobView();
  const trouble = handle.trouble;
  if (!trouble || trouble.kind === "gone") return null;
  return (
    <div
      role="alert"
      className="bg-tape text-[#1d2225] px-4 py-1.5 flex flex-wrap items-center gap-3 font-semibold [&_.act]:border-[#1d2225]"
    >
      {trouble.kind === "offline" && (
        <span>The server does not answer. Your last changes are kept here and go out when it is back.</span>
      )}
      {trouble.kind !== "offline" && (
        <>
          <span>
            {trouble.kind === "conflict"
              ? "Another window changed this job first: your last change is not stored yet."
              : "Another window changed this job."}
          </span>
          <button type="button" className="act" onClick={() => void handle.reload()}>
            {trouble.kind === "conflict" ? "Reload, drop my change" : "Reload"}
          </button>
          {trouble.kind === "conflict" && (
            <button type="button" className="act" onClick={handle.takeOver}>
              Take over, store mine on top
            </button>
          )}
        </>
      )}
    </div>
  );
}
