/** Let-go speed as one large figure with the required speed beside it; the slider drives the slipstream. */
import { speedNumber, speedUnit } from "../ui/format";
import { Slide } from "../ui/Slide";
import { Worked } from "../ui/WorkingDialog";
import { useJobView } from "./JobContext";

const FASTEST = 60;

export function Verdict() {
  const { job, evaluation, units, handle } = useJobView();
  const plan = evaluation.findings.plan;
  const unit = speedUnit(units);
  const say = (mPerS: number) =>
    plan && mPerS >= plan.fastest_told_m_s ? `over ${speedNumber(mPerS, units)}` : String(speedNumber(mPerS, units));
  if (!plan) {
    const missing = evaluation.findings.questions[0];
    return (
      <section aria-label="Verdict" className="">
        <p className="label">let-go speed</p>
        <p className="font-sign font-semibold text-[34px] leading-9">not known yet</p>
        <p className="pt-1 text-soft">{missing ? missing.ask : "Give each panel its feet."}</p>
      </section>
    );
  }
  const low = plan.let_go_m_s < plan.required_m_s;
  const foot = `hold/${plan.worst_panel}/${plan.worst_foot}`;
  const probe = handle.probe ?? job.vehicle.top_speed?.m_s ?? 0;
  const worst = job.panels.find((p) => p.id === plan.worst_panel)?.name ?? "";
  return (
    <section aria-label="Verdict" className="min-w-0">
      <p className="label">lets go at, cautious</p>
      <p
        className={`font-sign font-semibold text-[52px] leading-[46px] whitespace-nowrap ${low ? "text-signal" : ""}`}
        data-figure="let-go"
      >
        <Worked place={`${foot}/let-go speed`} title="let-go speed">
          {say(plan.let_go_m_s)}
        </Worked>{" "}
        <span className="text-[20px]">{unit}</span>
      </p>
      <p className="text-soft leading-snug">
        {low ? "below what you drive" : `typical ${say(plan.let_go_typical_m_s)}`}; first: {worst} {plan.worst_foot}
      </p>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 py-1 border-y border-hair my-1.5">
        <Line name="you drive" value={speedNumber(plan.required_m_s, units)} />
        <Line
          name="safe speed"
          value={
            <Worked place={`${foot}/safe speed`} title="safe speed">
              {say(plan.safe_m_s)}
            </Worked>
          }
          bad={plan.safe_m_s < plan.required_m_s}
        />
        <Line name="one foot lost" value={say(plan.lost_let_go_m_s)} bad={plan.lost_let_go_m_s < plan.required_m_s} />
      </dl>
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
    </section>
  );
}

function Line({ name, value, bad = false }: { name: string; value: React.ReactNode; bad?: boolean }) {
  return (
    <>
      <dt>{name}</dt>
      <dd className={`num font-semibold ${bad ? "text-signal" : ""}`}>{value}</dd>
    </>
  );
}
