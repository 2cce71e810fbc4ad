/** Is it still tight: since when it drives, what is due, what was found and what that means for the road. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { Job } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useRevision, useStoredJob } from "../../job/JobContext";
import { DateBox } from "../days/DateBox";
import { dayWords } from "../days/road";
import { newId } from "../wire/words";
import { GoRound } from "./GoRound";
import { FOUND, today } from "./words";

type Look = Job["care"]["looks"][number];

export function TightPart() {
  const { care } = useStoredJob();
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-10">
      <div>
        <Group title="On the road">
          <div className="grid grid-cols-2 gap-x-4">
            <DateBox label="Drives since" path="care.drives_since" value={care.drives_since ?? null} />
            <Field
              label="Kilometres a month"
              path="care.km_a_month"
              value={care.km_a_month}
              placeholder="800"
              clearable
            />
          </div>
        </Group>
        <DueList />
        <Happenings />
      </div>
      <div>
        <Group title="Go round">
          <GoRound />
        </Group>
        <Looks />
      </div>
    </div>
  );
}

function DueList() {
  const { id } = useDesk();
  const revision = useRevision();
  const { care } = useStoredJob();
  const due = useQuery({
    queryKey: ["due", id, revision],
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/due", { params: { path: { job_id: id } } })),
  }).data;
  return (
    <Group title="Due">
      {!care.drives_since && <p>Type since when it drives: then it says what to look at, and when.</p>}
      <ul>
        {due?.map((d) => (
          <li key={d.what + d.by} className="grid grid-cols-[104px_minmax(0,1fr)] gap-x-3 border-b border-hair py-1">
            <span className={`font-semibold ${d.late ? "text-signal" : ""}`}>
              {dayWords(d.by)} {d.by.slice(0, 4)}
            </span>
            <span>
              <b>{d.what}</b>
              {d.late ? " — late" : ""}: {d.why}
            </span>
          </li>
        ))}
      </ul>
    </Group>
  );
}

function Happenings() {
  const { handle } = useDesk();
  const { care } = useStoredJob();
  const add = (what: "storm" | "scrape") =>
    handle.change([{ op: "add", path: "care.happenings", value: { id: newId("h"), day: today(), what } }]);
  return (
    <Group title="What happened to it">
      {care.happenings.map((h) => (
        <div key={h.id} className="flex flex-wrap items-end gap-3 border-b border-hair py-1">
          <span className="font-semibold pb-1">{h.what}</span>
          <DateBox label="On" path={`care.happenings.${h.id}.day`} value={h.day} />
          <button
            type="button"
            className="underline text-[13px] ml-auto"
            aria-label={`Remove the ${h.what} of ${dayWords(h.day)}`}
            onClick={() => handle.change([{ op: "remove", path: `care.happenings.${h.id}` }])}
          >
            remove
          </button>
        </div>
      ))}
      <div className="flex gap-2 pt-2">
        <button type="button" className="act" onClick={() => add("storm")}>
          A storm
        </button>
        <button type="button" className="act" onClick={() => add("scrape")}>
          A scrape
        </button>
      </div>
    </Group>
  );
}

function Looks() {
  const { handle } = useDesk();
  const { care } = useStoredJob();
  const looks = [...care.looks].sort((a, b) => b.day.localeCompare(a.day));
  return (
    <Group title="Looked at">
      <button
        type="button"
        className="act mb-1"
        onClick={() => handle.change([{ op: "add", path: "care.looks", value: { id: newId("l"), day: today() } }])}
      >
        Write down a look
      </button>
      {!looks.length && <p>Nobody has looked yet.</p>}
      {looks.map((look) => (
        <LookRow key={look.id} look={look} />
      ))}
    </Group>
  );
}

function LookRow({ look }: { look: Look }) {
  const { handle } = useDesk();
  const verdict = useFinding("judged").find((v) => v.look === look.id);
  const path = `care.looks.${look.id}`;
  const bad = verdict && verdict.verdict !== "drive on" && look.found !== "leak";
  return (
    <div className="border-b border-hair py-1.5">
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1">
        <DateBox label="On" path={`${path}.day`} value={look.day} />
        <Choice label="Found" path={`${path}.found`} value={look.found} options={FOUND} />
        <Field label="Where, if at one place" path={`${path}.where`} value={look.where} placeholder="Front port f2" />
        <Field label="Kilometres since built" path={`${path}.km`} value={look.km} placeholder="120" clearable />
        <div className="col-span-2 sm:col-span-3">
          <Field label="Note" path={`${path}.note`} value={look.note} />
        </div>
        <button
          type="button"
          className="underline text-[13px] self-end justify-self-end"
          aria-label={`Remove the look of ${dayWords(look.day)}`}
          onClick={() => handle.change([{ op: "remove", path }])}
        >
          remove
        </button>
      </div>
      {verdict && look.found !== "sound" && (
        <p aria-live="polite" className={`pt-1 ${bad ? "text-signal" : ""}`}>
          <b className="font-sign text-[19px]">{verdict.verdict}</b>: {verdict.words}
        </p>
      )}
    </div>
  );
}
