/** The look itself, a roof day in small: from place to place, with what was seen there last, and pictures. */
import { useState } from "react";
import type { Findings, Job } from "../../api/types";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { withWaiting } from "../../job/outbox";
import { type JobLog, useLog } from "../../job/useLog";
import { dayWords } from "../days/road";
import { newId } from "../wire/words";
import { Picture, SeenBefore } from "./PlacePictures";
import { FOUND, today } from "./words";

type Place = Findings["to_look_at"][number];
type Look = Job["care"]["looks"][number];

export function GoRound() {
  const { id, handle } = useDesk();
  const places = useFinding("to_look_at");
  const looks = withWaiting(useStoredJob().care.looks, handle.waiting, "care.looks");
  const log = useLog(id);
  const day = today();
  const seenToday = (where: string) => looks.filter((l) => l.day === day && l.where === where).at(-1);
  const open = places.filter((p) => !seenToday(p.where));
  const allSound = !open.length && places.every((p) => seenToday(p.where)?.found === "sound");
  const whole = seenToday("");
  if (!places.length) return <p>Nothing stands on the roof yet.</p>;
  const add = (where: string, found: Look["found"]) =>
    handle.change([{ op: "add", path: "care.looks", value: { id: newId("l"), day, found, where } }]);
  return (
    <div>
      <p className="pb-1 text-[17px]" aria-live="polite">
        {whole
          ? "Looked at all round today."
          : open.length
            ? `${open.length} of ${places.length} places still to look at.`
            : allSound
              ? "Every place is sound."
              : "Mend what was found, then look there again."}
      </p>
      <ul>
        {places.map((place) => (
          <PlaceRow
            key={place.where}
            place={place}
            look={seenToday(place.where)}
            found={(state) => add(place.where, state)}
            log={log}
          />
        ))}
      </ul>
      {!whole && (
        <button
          type="button"
          className="thumb w-full mt-2 disabled:opacity-70"
          disabled={!allSound}
          onClick={() => add("", "sound")}
        >
          All round: sound
        </button>
      )}
    </div>
  );
}

type RowProps = { place: Place; look: Look | undefined; found: (state: Look["found"]) => void; log: JobLog };

function PlaceRow({ place, look, found, log }: RowProps) {
  const { handle } = useDesk();
  const [asking, setAsking] = useState(false);
  const verdict = useFinding("judged").find((v) => v.look === look?.id);
  const before = place.seen.find((one) => one.day < today());
  const bad = look && look.found !== "sound";
  return (
    <li className="border-b border-hair py-2">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 items-start">
        <div>
          <p className="font-sign font-semibold text-[20px] leading-tight">{place.where}</p>
          <p className="text-[16px] leading-snug">{place.look}</p>
          <p className="text-soft">
            {before
              ? `Last: ${foundWords(before.found)}, ${dayWords(before.day)} ${before.day.slice(0, 4)}${before.note ? `, ${before.note}` : ""}`
              : "Never looked at before"}
          </p>
        </div>
        <SeenBefore where={place.where} />
      </div>
      <div className="flex flex-wrap gap-2 pt-1.5">
        {look ? (
          <>
            <span className={`font-sign font-semibold text-[19px] self-center ${bad ? "text-signal" : ""}`}>
              {foundWords(look.found)}
            </span>
            <button
              type="button"
              className="act !h-11"
              aria-label={`Take back what was found at ${place.where}`}
              onClick={() => handle.change([{ op: "remove", path: `care.looks.${look.id}` }])}
            >
              Take back
            </button>
          </>
        ) : (
          <>
            <button
              type="button"
              className="act !h-11"
              aria-label={`${place.where} is sound`}
              onClick={() => found("sound")}
            >
              Sound
            </button>
            <button
              type="button"
              className="act !h-11"
              aria-expanded={asking}
              aria-label={`${place.where} is not sound`}
              onClick={() => setAsking(!asking)}
            >
              Not sound …
            </button>
          </>
        )}
        <Picture where={place.where} log={log} />
      </div>
      {asking && !look && (
        <div className="flex flex-wrap gap-2 pt-2">
          {FOUND.filter(([state]) => state !== "sound").map(([state, words]) => (
            <button
              key={state}
              type="button"
              className="act !h-11 !border-signal text-signal"
              onClick={() => {
                setAsking(false);
                found(state);
              }}
            >
              {words}
            </button>
          ))}
        </div>
      )}
      {verdict && bad && (
        <p role="status" className="pt-1 text-signal text-[17px]">
          <b className="font-sign text-[20px]">{verdict.verdict}</b>: {verdict.words}
        </p>
      )}
    </li>
  );
}

const foundWords = (state: Look["found"]): string => FOUND.find(([s]) => s === state)?.[1] ?? state;
