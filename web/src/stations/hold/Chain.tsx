/** The load path of the selected foot: links in a row, each as thick as its margin; the weakest is named. */
import type { FootVerdict, Link, LinkVerdict, Panel } from "../../api/types";
import { Group } from "../../fields/Field";
import { Worked } from "../../fields/WorkingDialog";
import { useDesk, useFinding, usePartOf, useUnits } from "../../job/JobContext";
import { footState, landingWords } from "../../roof/names";
import { force, percent, speed } from "../../ui/format";
import { StateMark, stateWords } from "../../ui/StateMark";
import { FootDetail } from "./FootDetail";

/** The chain of a panel's feet or clamps. */
export function PanelChain({ panel, foot }: { panel: Panel; foot: string | undefined }) {
  const { select } = useDesk();
  const questions = useFinding("questions");
  const places = useFinding("feet");
  const verdict = useFinding("verdicts").find((v) => v.panel === panel.id);
  if (!verdict)
    return (
      <Group title="Chain">
        <p>
          Not known yet. Still open:{" "}
          {questions
            .filter((q) => q.station !== "layout" || q.path.includes(panel.id))
            .map((q) => q.ask)
            .slice(0, 3)
            .join(" ") || "give the panel its feet."}
        </p>
      </Group>
    );
  const chosen = verdict.feet.find((f) => f.foot === foot) ?? verdict.feet.find((f) => f.foot === verdict.worst_foot);
  const place = places.find((p) => p.panel === panel.id && p.foot === chosen?.foot);
  return (
    <>
      <Chain
        of={panel.carrier ? "clamp" : "foot"}
        holder={panel.id}
        feet={verdict.feet}
        chains={verdict.chains}
        chosen={chosen?.foot ?? verdict.worst_foot}
        choose={(f) => select(`panels.${panel.id}.feet.${f}`)}
        ends={panel.carrier ? ["panel", "rail"] : ["panel", "vehicle"]}
      />
      {!panel.carrier && chosen && place && (
        <FootDetail panel={panel} place={place} links={verdict.chains[chosen.chain]?.links ?? []} />
      )}
    </>
  );
}

type ChainProps = {
  of: "foot" | "clamp";
  holder: string;
  feet: readonly FootVerdict[];
  chains: readonly { links: readonly Link[] }[];
  chosen: string;
  choose: (foot: string) => void;
  /** What its ends hold together. */
  ends: readonly [string, string];
};

export function Chain({ of, holder, feet, chains, chosen: wanted, choose, ends }: ChainProps) {
  const places = useFinding("feet");
  const spoken = usePartOf((shown) => shown.evaluation.spoken);
  const units = useUnits();
  const chosen = feet.find((f) => f.foot === wanted) ?? feet[0];
  if (!chosen) return null;
  const place = places.find((f) => f.panel === holder && f.foot === chosen.foot);
  const key = `hold/${holder}/${chosen.foot}`;
  const refused = new Set(spoken.refused_feet);
  const stateOf = (f: FootVerdict) => footState(f, refused.has(`${f.panel}.${f.foot}`));
  const told = (where: string, title: string, words: string) => (
    <Worked place={`${key}/${where}`} title={title}>
      {words}
    </Worked>
  );
  return (
    <Group
      title={`Chain of ${of} ${chosen.foot}`}
      aside={
        <span className="flex flex-wrap gap-1" role="group" aria-label={of === "foot" ? "Foot" : "Clamp"}>
          {feet.map((f) => (
            <button
              key={f.foot}
              type="button"
              className="act !h-7 !px-1.5"
              data-on={f.foot === chosen.foot}
              aria-pressed={f.foot === chosen.foot}
              aria-label={`${of} ${f.foot}, ${stateWords(stateOf(f))}`}
              onClick={() => choose(f.foot)}
            >
              <span className="bg-paper text-ink rounded-full leading-none">
                <StateMark state={stateOf(f)} />
              </span>
              {f.foot}
            </button>
          ))}
        </span>
      }
    >
      <p>
        <span className="font-semibold">{stateWords(stateOf(chosen))}</span>
        {place ? `, ${landingWords(place, units)}` : ""}. Worst case {chosen.case}:{" "}
        {place?.landing === "deck" ? "pull, the turning of its post counted," : "pull"}{" "}
        {told("force", `force on the ${of}`, force(chosen.pull_n, units))}, along {force(chosen.shear_n, units)}. Lets
        go at {told("let-go speed", `let-go speed of the ${of}`, speed(chosen.let_go_m_s, units))}, safe to{" "}
        {told("safe speed", `safe speed of the ${of}`, speed(chosen.safe_m_s, units))}.{" "}
        {lostWords(chosen, (v) => speed(v, units))}
      </p>
      <ol className="flex items-start py-2 overflow-x-auto" aria-label="Links of the chain">
        <LinkEnd words={ends[0]} />
        {chosen.links.map((used, i) => {
          const link = chains[chosen.chain]?.links[i];
          return (
            link && (
              <LinkView
                key={used.id}
                link={link}
                used={used}
                weakest={used.id === chosen.weakest}
                number={i + 1}
                place={`${key}/link ${used.id}`}
              />
            )
          );
        })}
        <LinkEnd words={ends[1]} />
      </ol>
    </Group>
  );
}

function lostWords(foot: FootVerdict, say: (speed: number) => string): string {
  if (!foot.lost_next) return "If it is lost, the feet left stand in one line and hold nothing.";
  return `If it is lost, ${foot.lost_next} lets go next at ${say(foot.lost_let_go_m_s)}.`;
}

const THICKEST = 34;
const THINNEST = 3;

/** Thickness of a drawn link: proportional to capacity over load, capped at three times. */
export function linkThickness(used: number): number {
  const margin = Math.min(1 / Math.max(used, 1e-3), 3) / 3;
  return Math.max(margin * THICKEST, THINNEST);
}

type LinkProps = { link: Link; used: LinkVerdict; weakest: boolean; number: number; place: string };

function LinkView({ link, used, weakest, number, place }: LinkProps) {
  const { openWorking } = useDesk();
  const bad = used.utilisation > 1;
  return (
    <li className="flex-1 min-w-[118px]">
      <button
        type="button"
        className="w-full text-left group"
        onClick={() => openWorking(place, link.title)}
        aria-label={`${link.title}, ${percent(used.utilisation)} used${weakest ? ", the weakest link" : ""}: show the working`}
      >
        <span className="flex items-center h-[40px]">
          <span className="h-[3px] w-2 bg-ink" />
          <span
            className={`flex-1 border-2 ${bad ? "border-signal" : "border-ink"} ${weakest ? "bg-tape" : "bg-paper"} group-hover:bg-tape`}
            style={{ height: linkThickness(used.utilisation), borderRadius: THICKEST }}
          />
          <span className="h-[3px] w-2 bg-ink" />
        </span>
        <span className="block leading-tight px-2">
          <span className={`font-sign font-semibold text-[17px] ${bad ? "text-signal" : ""}`}>
            {percent(used.utilisation)} used
          </span>
          {weakest && <span className="font-sign font-semibold"> · weakest</span>}
          <span className="block text-[13px]">
            {number} · {link.title}
          </span>
          {link.confidence !== "published" && <span className="block text-[12px] text-soft">{link.confidence}</span>}
        </span>
      </button>
    </li>
  );
}

function LinkEnd({ words }: { words: string }) {
  return <li className="self-start mt-[9px] font-sign font-semibold text-soft shrink-0 px-1">{words}</li>;
}
