/** What is read in a step and written down: instruments fill the box that is in hand, typing always works. */
import { useRef, useState } from "react";
import type { Findings, WorkStep } from "../../api/types";
import { instrumentOf } from "../../fields/instruments";
import { useDesk, useFinding, useUnits } from "../../job/JobContext";
import type { JobLog } from "../../job/useLog";
import { torque } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { shrunk } from "../log/photograph";
import { TORQUE_WORDS } from "./torqueWords";

type InHand = Findings["in_hand"][number];
type ReadAt = InHand["read"][number];
const WORDS: Record<Exclude<ReadAt, "position" | "pilot hole" | "photograph">, [string, string]> = {
  torque: ["Torque", "8 N·m"],
  "skin temperature": ["Roof", "18 °C"],
  humidity: ["Moisture of the air", "55 %"],
  batch: ["Batch, and when opened", "lot 24, today"],
  volts: ["Meter", "38.2 V"],
};

type Props = { hand: InHand; step: WorkStep; log: JobLog };

export function Readings({ hand, step, log }: Props) {
  const place = step.title;
  return (
    <div className="grid gap-2 pt-3">
      {hand.read.map((what) =>
        what === "photograph" ? (
          <Photograph key={what} place={place} log={log} />
        ) : what === "position" || what === "pilot hole" ? null : what === "torque" && hand.torques.length ? (
          <Torque key={what} hand={hand} step={step} log={log} />
        ) : (
          <Reading key={what} what={what} step={step} log={log} />
        ),
      )}
    </div>
  );
}

/** The bolts of this step, each with how tight it goes; what the wrench shows is judged at once. */
function Torque({ hand, step, log }: Props) {
  const units = useUnits();
  const judged = useFinding("torques");
  const [at, setAt] = useState(0);
  const bolt = hand.torques[at] ?? hand.torques[0];
  if (!bolt) return null;
  const found = judged.find((t) => t.holder === bolt.holder && t.bolt === bolt.bolt);
  return (
    <div className="grid gap-2">
      {hand.torques.length > 1 && (
        <select
          className="box !h-[52px] !text-[18px]"
          aria-label="Which bolts"
          value={at}
          onChange={(event) => setAt(Number(event.target.value))}
        >
          {hand.torques.map((t, i) => (
            <option key={`${t.where} ${t.bolt}`} value={i}>
              {t.where}, {t.bolt}: {torque(t.torque_n_m, units)}
            </option>
          ))}
        </select>
      )}
      <p className="text-[20px]">
        {bolt.bolt}: <b className="font-sign">{torque(bolt.torque_n_m, units)}</b>
      </p>
      <Reading key={`${bolt.where} ${bolt.bolt}`} what="torque" step={step} log={log} bolt={bolt} />
      {found && <TorqueWord found={found} />}
    </div>
  );
}

function TorqueWord({ found }: { found: Findings["torques"][number] }) {
  const units = useUnits();
  const bad = found.state !== "right";
  return (
    <p role="status" className={`px-2 py-1 text-[20px] ${bad ? "bg-signal text-white font-semibold" : "bg-tape"}`}>
      {torque(found.read_n_m, units)}, {TORQUE_WORDS[found.state]}
    </p>
  );
}

type Bolt = InHand["torques"][number];
type Box = { what: keyof typeof WORDS; step: WorkStep; log: JobLog; bolt?: Bolt };

function Reading({ what, step, log, bolt }: Box) {
  const { handle } = useDesk();
  const [text, setText] = useState("");
  const [kept, setKept] = useState("");
  const box = useRef<HTMLInputElement>(null);
  const [label, hint] = WORDS[what];
  const put = () => {
    const value = text.trim().slice(0, 60);
    if (!value) return;
    const by = instrumentOf(box.current);
    const place = bolt ? `${bolt.where}, ${bolt.bolt}` : step.title;
    log.write({ kind: "measured", what, value, place, by });
    const of = bolt ? { holder: bolt.holder, bolt: bolt.bolt } : {};
    handle.change([{ op: "note_reading", step: step.kind, what, value, ...of }]);
    setKept(by ? `${value} by ${by}` : value);
    setText("");
  };
  return (
    <form
      className="grid grid-cols-[minmax(0,1fr)_88px] gap-2 items-end"
      onSubmit={(event) => {
        event.preventDefault();
        put();
      }}
    >
      <label>
        <span className="label">
          {label}
          {kept && <b className="text-ink"> — {kept} written down</b>}
        </span>
        <input
          ref={box}
          className="box !h-[52px] !text-[22px]"
          value={text}
          placeholder={hint}
          maxLength={60}
          autoComplete="off"
          data-reads={what}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button type="submit" className="thumb !min-h-[52px] !text-[18px]">
        Keep
      </button>
    </form>
  );
}

/** Shrunk in the page, kept here until the server has it; it never leaves the workshop. */
function Photograph({ place, log }: { place: string; log: JobLog }) {
  const [attempt, problem] = useTry();
  const [taken, setTaken] = useState(0);
  return (
    <>
      <label className="thumb !min-h-[52px] !text-[18px] grid place-items-center cursor-pointer">
        {taken ? `Another photograph (${taken} kept)` : "Photograph"}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file)
              void attempt(async () => {
                await log.photograph(await shrunk(file), { text: "", place });
                setTaken((before) => before + 1);
              });
          }}
        />
      </label>
      {problem}
    </>
  );
}
