/** The verdict: a word first, then the safe speed beside the speed that is driven, the let-go speed third. The slider drives the slipstream. */
import type { Evaluation } from "../api/types";
import { Worked } from "../fields/WorkingDialog";
import { useDesk, useEvaluation, useStoredJob, useUnits } from "../job/JobContext";
import { speedNumber, speedUnit } from "../ui/format";
import { Slide } from "../ui/Slide";
import { VerdictMark } from "../ui/StateMark";
import { TradeWord } from "../ui/TradeWord";

const FASTEST = 60;
const WORDS: Record<Evaluation["spoken"]["word"], string> = {
  holds: "Holds",
  thin: "Thin",
  refused: "Refused",
  "not known": "Not known",
};

export function Verdict() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const evaluation = useEvaluation();
  const units = useUnits();
  const { spoken } = evaluation;
  const plan = evaluation.findings.plan;
  const unit = speedUnit(units);
  const say = (mPerS: number) =>
    plan && mPerS >= plan.fastest_told_m_s ? `over ${speedNumber(mPerS, units)}` : String(speedNumber(mPerS, units));
  const foot = plan ? `hold/${plan.worst_panel}/${plan.worst_foot}` : "";
  const probe = handle.probe ?? job.vehicle.top_speed?.m_s ?? 0;
  const worst = [...job.panels, ...job.carriers].find((h) => h.id === plan?.worst_panel)?.name ?? "";
  const bad = spoken.word === "refused";
  const asked = evaluation.findings.questions[0];
  return (
    <section aria-label="Verdict" className="min-w-0" aria-live="polite">
      <p
        className={`font-sign font-semibold text-[34px] leading-9 flex items-center gap-2 ${bad ? "text-signal" : ""}`}
        data-figure="word"
      >
        <VerdictMark word={spoken.word} />
        {WORDS[spoken.word]}
      </p>
      {spoken.because.length > 0 && (
        <p className={`leading-snug text-[13.5px] ${bad ? "text-signal font-semibold" : ""}`}>
          {spoken.because.slice(0, 2).join("; ")}
          {spoken.because.length > 2 ? `; ${spoken.because.length - 2} more` : ""}
        </p>
      )}
      {!plan && asked && <p className="pt-1 text-soft">{asked.ask}</p>}
      {plan && (
        <>
          <dl className="grid grid-cols-2 gap-x-3 pt-1.5">
            <Large name={`safe, ${unit}`} bad={plan.safe_m_s < plan.required_m_s} figure="safe">
              <Worked place={`${foot}/safe speed`} title="safe speed">
                {say(plan.safe_m_s)}
              </Worked>
            </Large>
            <Large name="you drive" figure="driven">
              {speedNumber(plan.required_m_s, units)}
            </Large>
          </dl>
          <dl className="grid grid-cols-[1fr_auto] gap-x-3 py-1 border-y border-hair my-1.5">
            <Line
              name="lets go"
              word={<TradeWord word="let-go" />}
              figure="let-go"
              bad={plan.let_go_m_s < plan.required_m_s}
              value={
                <>
                  <Worked place={`${foot}/let-go speed`} title="let-go speed">
                    {say(plan.let_go_m_s)}
                  </Worked>{" "}
                  … {say(plan.let_go_typical_m_s)}
                </>
              }
            />
            <Line
              name="one foot lost"
              value={say(plan.lost_let_go_m_s)}
              bad={plan.lost_let_go_m_s < plan.required_m_s}
            />
            <Line
              name="parked, gusts"
              figure="parked"
              bad={plan.parked_let_go_m_s < plan.parked_gust_m_s}
              value={
                <>
                  {say(plan.parked_safe_m_s)} of{" "}
                  <Worked place="parked wind" title="gust at the site">
                    {say(plan.parked_gust_m_s)}
                  </Worked>
                </>
              }
            />
          </dl>
          <p className="text-soft leading-snug text-[13px]">
            first: {worst} {plan.worst_foot}
          </p>
          <Slide
            label="try a speed"
            spoken={`Try a speed, in ${unit}`}
            figure="probe"
            value={probe}
            shown={`${speedNumber(probe, units)} ${unit}`}
            min={0}
            max={FASTEST}
            step={units === "metric" ? 1 / 3.6 : 0.44704}
            onChange={handle.setProbe}
          />
          {handle.probe !== null && (
            <button type="button" className="underline" onClick={() => handle.setProbe(null)}>
              back to {speedNumber(plan.required_m_s, units)} {unit}
            </button>
          )}
        </>
      )}
    </section>
  );
}

function Large({
  name,
  bad = false,
  figure,
  children,
}: {
  name: string;
  bad?: boolean;
  figure: string;
  children: React.ReactNode;
}) {
  return (
    <div>
      <dt className="label">{name}</dt>
      <dd
        data-figure={figure}
        className={`font-sign font-semibold text-[40px] leading-[38px] whitespace-nowrap ${bad ? "text-signal" : ""}`}
      >
        {children}
      </dd>
    </div>
  );
}

function Line({
  name,
  word,
  value,
  bad = false,
  figure,
}: {
  name: string;
  word?: React.ReactNode;
  value: React.ReactNode;
  bad?: boolean;
  figure?: string;
}) {
  return (
    <>
      <dt>
        {name} {word}
      </dt>
      <dd data-figure={figure} className={`num font-semibold whitespace-nowrap ${bad ? "text-signal" : ""}`}>
        {value}
      </dd>
    </>
  );
}
