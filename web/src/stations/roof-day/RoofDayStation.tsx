/** The work sheet: what to take, every mark by number, the steps in order. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { Mark } from "../../api/types";
import { Group } from "../../fields/Field";
import { selectedFoot, useDesk, useEvaluation, useFinding, useStoredJob } from "../../job/JobContext";
import { useLog } from "../../job/useLog";
import { inches } from "../../ui/format";
import { TradeWord } from "../../ui/TradeWord";
import { CrewPhones } from "./CrewPhones";
import { ReallyThere } from "./ReallyThere";
import { Recorded } from "./Recorded";
import { OtherTimers } from "./Timers";
import { WaysOut } from "./WaysOut";

export function RoofDayStation() {
  const evaluation = useEvaluation();
  const findings = evaluation.findings;
  const stops = evaluation.snags.filter((s) => s.severity === "stop").length;
  return (
    <>
      <Downloads />
      {findings.questions.length > 0 && (
        <p className="pb-1">
          <span className="font-semibold">Still open:</span> {findings.questions.map((q) => q.ask).join(" ")}
        </p>
      )}
      {stops > 0 && (
        <p className="text-signal font-semibold pb-1">
          {stops === 1 ? "1 stop: clear it" : `${stops} stops: clear them`} before you drill.
        </p>
      )}
      <p className="pb-2 text-soft">
        Ladder on firm ground, goggles on, look behind the skin for wires and lines, panels covered: they are live in
        light.
      </p>
      <div className="grid grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-6">
        <div>
          <AsBuiltPart marks={findings.marks} />
          <Marks marks={findings.marks} />
        </div>
        <div>
          <CrewPhones />
          <Steps />
          <Materials />
        </div>
      </div>
    </>
  );
}

function Downloads() {
  const { id } = useDesk();
  const catalogue = useQuery({
    queryKey: ["catalogue"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => unwrap(http.GET("/api/catalogue")),
  });
  return (
    <div className="flex flex-wrap gap-2 py-2">
      {catalogue.data?.exports
        .filter((file) => file.station === "roof-day")
        .map((file) => (
          <a key={file.value} className="act" href={`/api/jobs/${id}/files/${file.value}`} download>
            {file.words}, {file.value.split(".").at(-1)?.toUpperCase()}
          </a>
        ))}
    </div>
  );
}

/** What was built beside what was planned, and the record of the foot that is picked. */
function AsBuiltPart({ marks }: { marks: Mark[] }) {
  const { id, selection, select } = useDesk();
  const built = useFinding("as_built");
  const log = useLog(id);
  const foot = selectedFoot(selection);
  const mark = foot && marks.find((m) => m.panel === foot.panel && m.foot === foot.foot);
  const recorded = useStoredJob().built;
  if (!marks.length && !recorded.feet.length && !recorded.torques.length) return null;
  return (
    <Group title="As built">
      <WaysOut />
      <ul>
        {built.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3 border-b border-hair py-1">
            <button
              type="button"
              className="underline font-semibold"
              onClick={() => select(`panels.${one.holder}.feet.${one.foot}`)}
            >
              {one.where}
            </button>
            <span className={one.state === "off" || one.pilot === "through" ? "text-signal font-semibold" : ""}>
              {one.words}
              {one.pilot ? `, pilot ${one.pilot === "solid" ? "met metal" : "met nothing"}` : ""}
            </span>
          </li>
        ))}
      </ul>
      <Recorded />
      {mark ? (
        <ReallyThere key={`${mark.panel}.${mark.foot}`} mark={mark} log={log} />
      ) : (
        <p className="py-1">Pick a foot on the roof to write down where it really is.</p>
      )}
    </Group>
  );
}

function Marks({ marks }: { marks: Mark[] }) {
  const { go } = useDesk();
  return (
    <Group
      title={`${marks.length} marks from the datum`}
      aside={
        <span className="text-soft">
          datum <TradeWord word="datum" />
        </span>
      }
    >
      {!marks.length && <p>No feet yet. Give the panels their feet under Layout.</p>}
      {marks.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>no.</th>
              <th className="num">along mm</th>
              <th className="num">inch</th>
              <th className="num">across mm</th>
              <th className="num">inch</th>
              <th>side</th>
              <th className="num">drill</th>
              <th className="num">stop</th>
              <th>into</th>
            </tr>
          </thead>
          <tbody>
            {marks.map((mark) => (
              <tr key={mark.number}>
                <td className="font-semibold">
                  <button
                    type="button"
                    className="underline"
                    aria-label={`Mark ${mark.number}: show its foot`}
                    onClick={() => go("hold", `panels.${mark.panel}.feet.${mark.foot}`)}
                  >
                    {mark.number}
                  </button>
                </td>
                <td className="num">{mark.x_mm.toFixed(0)}</td>
                <td className="num whitespace-nowrap">{inches(mark.x_mm)}</td>
                <td className="num">{Math.abs(mark.y_mm).toFixed(0)}</td>
                <td className="num whitespace-nowrap">{inches(Math.abs(mark.y_mm))}</td>
                <td>{Math.abs(mark.y_mm) < 0.5 ? "centre" : mark.y_mm < 0 ? "port" : "starboard"}</td>
                <td className="num whitespace-nowrap">
                  {mark.kind === "pad" ? "pad" : `${mark.pilot_mm}${mark.final_mm ? ` / ${mark.final_mm}` : ""}`}
                </td>
                <td className="num">{mark.depth_stop_mm ? mark.depth_stop_mm.toFixed(0) : ""}</td>
                <td className="whitespace-nowrap">{mark.into.replace("member ", "m")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Group>
  );
}

function Steps() {
  const { id } = useDesk();
  const steps = useFinding("steps");
  const log = useLog(id);
  return (
    <Group
      title="Steps in order"
      aside={
        <span className="text-soft">
          {steps.filter((s) => log.done.has(s.title)).length} of {steps.length} done
        </span>
      }
    >
      <ol>
        {steps.map((step) => (
          <li key={step.number} className="grid grid-cols-[28px_24px_1fr] items-start border-b border-hair py-1">
            <input
              type="checkbox"
              className="w-[18px] h-[18px] !min-h-0 mt-[3px] accent-[var(--color-ink)]"
              checked={log.done.has(step.title)}
              aria-label={`Step ${step.number} is done: ${step.title}`}
              onChange={(event) => log.write({ kind: "step", step: step.title, done: event.target.checked })}
            />
            <span className="font-sign font-semibold text-[16px]">{step.number}</span>
            <span className={log.done.has(step.title) ? "text-soft" : ""}>
              <span className="font-semibold">{step.title}.</span> {step.detail}{" "}
              <span className="text-chalk font-semibold">{step.check}</span>
              {step.wait_h > 0 && <span className="font-semibold"> Wait {step.wait_h} h.</span>}
            </span>
          </li>
        ))}
      </ol>
      <OtherTimers step="" log={log} />
      {log.refusal && <p className="text-signal font-semibold">{log.refusal}</p>}
      {log.waiting > 0 && <p className="text-soft">{log.waiting} not stored yet: kept in this window.</p>}
    </Group>
  );
}

function Materials() {
  const evaluation = useEvaluation();
  return (
    <Group title="Materials">
      <table className="sheet-table">
        <thead>
          <tr>
            <th>item</th>
            <th className="num">needed</th>
            <th className="num">spare</th>
            <th>unit</th>
          </tr>
        </thead>
        <tbody>
          {evaluation.findings.materials.map((m) => (
            <tr key={m.item}>
              <td>
                {m.item}
                {m.note && <span className="text-soft text-[13px]">, {m.note}</span>}
              </td>
              <td className="num">{m.needed}</td>
              <td className="num">{m.spare}</td>
              <td>{m.unit}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Group>
  );
}
