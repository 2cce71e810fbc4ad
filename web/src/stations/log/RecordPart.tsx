/** The record: entries are added and never changed; a correction is an entry that names the old one. */
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { http, unwrap } from "../../api/client";
import { Group, Pick } from "../../fields/Field";
import { useDesk } from "../../job/JobContext";
import { type JobLog, useLog } from "../../job/useLog";
import { useTry } from "../../ui/useTry";
import { shrunk } from "./photograph";
import { entryWords, MEASURED, type MeasuredWhat } from "./words";

export function RecordPart() {
  const { id } = useDesk();
  const log = useLog(id);
  const stored = useQuery({
    queryKey: ["log", id],
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/log", { params: { path: { job_id: id } } })),
  }).data;
  const entries = [...(stored?.entries ?? [])].reverse();
  const [correcting, setCorrecting] = useState<number | null>(null);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-10">
      <WriteDown log={log} correcting={correcting} done={() => setCorrecting(null)} />
      <Group
        title="Record"
        aside={
          <span className={stored?.broken_at ? "text-signal font-semibold" : "text-[13px]"} role="status">
            {stored?.broken_at
              ? `Entry ${stored.broken_at} is not as it was written.`
              : stored
                ? `${stored.entries.length} entries, the chain is whole`
                : ""}
          </span>
        }
      >
        {log.waiting > 0 && <p>{log.waiting} not stored yet: kept in this window.</p>}
        {log.refusal && <p className="text-signal font-semibold">{log.refusal}</p>}
        <p className="flex gap-2 py-1.5">
          <a className="act" href={`/api/jobs/${id}/record.pdf`} download>
            Record, PDF
          </a>
          <a className="act" href={`/api/jobs/${id}/record.json`} download>
            Job with its record, JSON
          </a>
        </p>
        {stored && !entries.length && <p>Nothing is written down yet. Steps ticked on Roof day stand here too.</p>}
        <ul aria-label="Entries">
          {entries.map((e) => (
            <li
              key={e.number}
              className="grid grid-cols-[36px_118px_minmax(0,1fr)_auto] gap-x-3 border-b border-hair py-1"
            >
              <span className="num font-semibold">{e.number}</span>
              <span className="text-[13px]">{new Date(e.happened).toLocaleString("en-GB", WHEN)}</span>
              <span className="break-words">
                {whoWords(e.client)}
                {entryWords(e.entry)}
                {e.entry.kind === "photograph" && (
                  <a href={`/api/jobs/${id}/attachments/${e.entry.digest}`} target="_blank" rel="noreferrer">
                    <img
                      className="block max-h-24 mt-1 border border-hair"
                      src={`/api/jobs/${id}/attachments/${e.entry.digest}`}
                      alt={e.entry.text || "photograph"}
                    />
                  </a>
                )}
              </span>
              <button
                type="button"
                className="underline text-[13px] self-start"
                aria-label={`Correct entry ${e.number}`}
                onClick={() => setCorrecting(e.number)}
              >
                correct
              </button>
            </li>
          ))}
        </ul>
      </Group>
    </div>
  );
}

/** A phone that was let in writes under its owner's name; windows of the desk have none. */
const whoWords = (client: string) => (/^[0-9a-f-]{32,36}$/.test(client) ? "" : `${client}: `);

const WHEN = { day: "numeric", month: "short", year: "2-digit", hour: "2-digit", minute: "2-digit" } as const;

function WriteDown({ log, correcting, done }: { log: JobLog; correcting: number | null; done: () => void }) {
  const box = useId();
  const [text, setText] = useState("");
  const [place, setPlace] = useState("");
  const [what, setWhat] = useState<MeasuredWhat | "remark">("remark");
  const write = log.write;
  const put = () => {
    const words = text.trim();
    if (!words) return;
    if (correcting !== null) write({ kind: "correction", corrects: correcting, text: words });
    else if (what === "remark") write({ kind: "remark", text: words, place });
    else write({ kind: "measured", what, value: words, place, by: "" });
    setText("");
    done();
  };
  return (
    <Group title={correcting === null ? "Write down" : `Correct entry ${correcting}`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          put();
        }}
      >
        {correcting === null && (
          <div className="grid grid-cols-2 gap-x-4">
            <Pick
              label="It is"
              value={what}
              options={[["remark", "a remark"], ...MEASURED]}
              onChange={(v) => setWhat(v as MeasuredWhat | "remark")}
            />
            <div>
              <label className="label block" htmlFor={`${box}-place`}>
                Where
              </label>
              <input
                id={`${box}-place`}
                className="box"
                maxLength={160}
                value={place}
                placeholder="Front port f2"
                onChange={(event) => setPlace(event.target.value)}
              />
            </div>
          </div>
        )}
        <label className="label block pt-1" htmlFor={`${box}-text`}>
          {correcting === null ? "What" : "What is right"}
        </label>
        <textarea
          id={`${box}-text`}
          className="box !h-20 py-1"
          maxLength={what === "remark" || correcting !== null ? 500 : 60}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <div className="flex flex-wrap gap-2 pt-2">
          <button type="submit" className="act" disabled={!text.trim()}>
            Write it down
          </button>
          {correcting !== null && (
            <button type="button" className="act" onClick={done}>
              Leave it
            </button>
          )}
          {correcting === null && <Photograph text={text} place={place} log={log} done={() => setText("")} />}
        </div>
      </form>
      <p className="text-soft text-[13px] pt-2 max-w-[60ch]">
        Entries are never changed: each carries a hash over the one before. A correction stands beside what it corrects.
      </p>
    </Group>
  );
}

/** Shrunk in the page, stored with the job; it never leaves this machine. */
function Photograph(props: { text: string; place: string; log: JobLog; done: () => void }) {
  const [attempt, problem] = useTry();
  const [busy, setBusy] = useState(false);
  const take = async (file: File) => {
    setBusy(true);
    await attempt(async () => {
      await props.log.photograph(await shrunk(file), { text: props.text.trim(), place: props.place });
      props.done();
    });
    setBusy(false);
  };
  return (
    <>
      <label className={`act cursor-pointer ${busy ? "opacity-60" : ""}`}>
        Add a photograph
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={busy}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) void take(file);
          }}
        />
      </label>
      {problem}
    </>
  );
}
