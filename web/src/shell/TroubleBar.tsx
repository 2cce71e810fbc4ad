/** Said in a bar, not in a box that blocks: what was refused, another window's change, a server that does not answer. */
import { useDesk } from "../job/JobContext";

export function TroubleBar() {
  const { handle } = useDesk();
  return (
    <>
      {handle.refusal && (
        <Bar>
          <span>Not stored. {handle.refusal}</span>
          <button type="button" className="act" onClick={handle.forgetRefusal}>
            Understood
          </button>
        </Bar>
      )}
      <Trouble />
    </>
  );
}

function Bar({ children }: { children: React.ReactNode }) {
  return (
    <div
      role="alert"
      className="bg-tape text-[#1d2225] px-4 py-1.5 flex flex-wrap items-center gap-3 font-semibold [&_.act]:border-[#1d2225]"
    >
      {children}
    </div>
  );
}

function Trouble() {
  const { handle } = useDesk();
  const trouble = handle.trouble;
  if (!trouble || trouble.kind === "gone" || trouble.kind === "unreadable") return null;
  if (trouble.kind === "offline")
    return <Bar>The server does not answer. Your last changes are kept here and go out when it is back.</Bar>;
  if (trouble.kind === "failing")
    return (
      <Bar>
        <span>{trouble.message} Your change is kept here and is tried again.</span>
        <button type="button" className="act" onClick={handle.dropFirst}>
          Drop my change
        </button>
      </Bar>
    );
  const conflict = trouble.kind === "conflict";
  return (
    <Bar>
      <span>
        {conflict
          ? "The job has moved on in another window: your last change is not stored yet."
          : "Another window changed this job."}
      </span>
      <button type="button" className="act" onClick={() => void handle.reload()}>
        {conflict ? "Reload, drop my change" : "Reload"}
      </button>
      {conflict && (
        <button type="button" className="act" onClick={handle.takeOver}>
          Take over, store mine on top
        </button>
      )}
    </Bar>
  );
}
