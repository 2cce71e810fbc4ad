/** What is on offer, what is wanted most, and the layouts found: side by side as small roofs with their figures. */
import { useState } from "react";
import type { Proposal, Proposals, SlowAnswer } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { goesOn, startWork, stopWork, useRun } from "../../job/useSlow";
import { feetInMembers, mass, percent, speed, yearEnergy } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { MiniRoof } from "./MiniRoof";
import { copyEdits, useModels } from "./useModels";

const keyOf = (job: string) => `search:${job}`;

export function ProposalsPart() {
  const { id } = useDesk();
  const revision = useRevision();
  const [search, setSearch] = useState(() => sessionStorage.getItem(keyOf(id)));
  const [attempt, problem] = useTry();
  const answer = useRun(id, "proposals", search);
  const running = goesOn(answer);
  const start = () =>
    attempt(async () => {
      const begun = await startWork(id, "proposals");
      sessionStorage.setItem(keyOf(id), begun.id);
      setSearch(begun.id);
    });
  const stop = () => attempt(() => stopWork(id, "proposals", search ?? ""));
  const stale = answer !== undefined && !running && answer.revision !== revision;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[250px_minmax(0,1fr)] gap-x-7">
      <div>
        <Offers />
        <Group title="Look for layouts">
          <WishFields />
          <div className="flex flex-wrap items-center gap-2 pt-2">
            <button type="button" className="act" disabled={running} onClick={() => void start()}>
              Propose layouts
            </button>
            {running && (
              <button type="button" className="act" onClick={() => void stop()}>
                Enough
              </button>
            )}
            <Progress answer={answer} />
          </div>
          {answer?.problem && (
            <p role="alert" className="text-signal font-semibold text-[13px] pt-1">
              {answer.problem.message} {answer.problem.remedy}
            </p>
          )}
          {problem}
        </Group>
      </div>
      {answer?.result ? (
        <Found proposals={answer.result} stale={stale} running={running} />
      ) : (
        <p className="py-2 max-w-[60ch]">
          Say what is on offer and what counts most. The best layouts come side by side, with the proof of how much the
          roof takes at all, and what stops one more panel.
        </p>
      )}
    </div>
  );
}

function Progress({ answer }: { answer: SlowAnswer | undefined }) {
  if (!answer || !goesOn(answer)) return null;
  if (answer.state === "waiting")
    return (
      <span className="text-[13px]" aria-live="polite">
        waits for its turn: other work runs …
      </span>
    );
  return (
    <span className="flex items-center gap-2 text-[13px]" aria-live="polite">
      <progress aria-label="Goals answered" className="w-28" value={answer.share} />
      {answer.seconds.toFixed(0)} of at most {answer.most_seconds.toFixed(0)} s, {answer.doing || "starting …"}
    </span>
  );
}

function Offers() {
  const { handle } = useDesk();
  const job = useStoredJob();
  const models = useModels();
  const [attempt, problem] = useTry();
  const offered = new Set(job.wish.offers.map((o) => o.model));
  const free = models.filter((m) => !offered.has(m.model.name));
  return (
    <Group title="On offer">
      {!job.wish.offers.length && <p className="pb-1">Add the models you have or can get.</p>}
      {job.wish.offers.map((offer) => {
        const model = models.find((m) => m.model.name === offer.model)?.model;
        return (
          <div key={offer.id} className="flex items-center gap-2 border-b border-hair">
            <span className="flex-1 font-semibold min-w-0 truncate">{offer.model}</span>
            <span className="text-soft text-[13px]">
              {model ? `${shownWatts(model.power.w)}` : "not known any more"}
            </span>
            <span className="w-12">
              <Field
                bare
                label={`At most, ${offer.model}`}
                path={`wish.offers.${offer.id}.at_most`}
                value={offer.at_most}
                placeholder={model?.stock === null || model?.stock === undefined ? "any" : String(model.stock)}
                clearable
              />
            </span>
            <button
              type="button"
              className="underline text-[13px]"
              aria-label={`Take ${offer.model} off the offer`}
              onClick={() => handle.change([{ op: "remove", path: `wish.offers.${offer.id}` }])}
            >
              remove
            </button>
          </div>
        );
      })}
      <div className="flex flex-wrap gap-1.5 pt-2">
        {free.map((entry) => (
          <button
            key={entry.model.name}
            type="button"
            className="act !h-[27px] !text-[14px] !px-2"
            onClick={() =>
              void attempt(async () => {
                await handle.edit([
                  ...copyEdits(entry),
                  { op: "add", path: "wish.offers", value: { model: entry.model.name } },
                ]);
              })
            }
          >
            + {entry.model.name}
          </button>
        ))}
      </div>
      {problem}
    </Group>
  );
}

const shownWatts = (w: number): string => `${Math.round(w)} W`;

function WishFields() {
  const job = useStoredJob();
  return (
    <>
      <Choice
        label="What counts most"
        path="wish.aim"
        value={job.wish.aim}
        options={[
          ["balance", "balance: watts, holes, feet on members, price"],
          ["watts", "most watts"],
          ["energy", "most energy over the year"],
        ]}
      />
      <p className="text-soft text-[13px] pt-1">
        Locked panels stay. Margins, lids, walkways and the roof load limit are kept.
        {job.site.climate || job.site.months.length ? "" : " For energy say under Sun and shade where it stands."}
      </p>
    </>
  );
}

function Found({ proposals, stale, running }: { proposals: Proposals; stale: boolean; running: boolean }) {
  const units = useUnits();
  return (
    <section aria-label="Proposals">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-hair mb-2">
        <h2 className="text-[17px] leading-7">
          {proposals.proposals.length} layouts{running ? " so far" : ""}
        </h2>
        {proposals.most_watts ? (
          <p>No layout gives more than {shownWatts(proposals.most_watts)}: proved.</p>
        ) : (
          <p className="text-soft">
            {running ? "Not proved yet how good they are." : "How much more would fit was not settled in this time."}
          </p>
        )}
        {stale && <p className="font-semibold">The job has changed since: propose anew.</p>}
      </div>
      <ul className="grid sm:grid-cols-2 2xl:grid-cols-3 gap-x-6 gap-y-4">
        {proposals.proposals.map((proposal) => (
          <Tile key={proposal.id + proposal.title} proposal={proposal} units={units} />
        ))}
      </ul>
      {proposals.one_more.length > 0 && (
        <div className="pt-3">
          <h3 className="text-[16px]">What stops one more panel</h3>
          <ul>
            {proposals.one_more.map((miss) => (
              <li key={miss.model} className="border-b border-hair py-1">
                <span className="font-semibold">{miss.model}</span>: {miss.why}{" "}
                <span className="text-chalk font-semibold">{miss.remedies.join("; or ")}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {proposals.note && <p className="text-soft text-[13px] pt-2">{proposals.note}</p>}
      <p className="text-soft text-[13px] pt-1">{proposals.weights}</p>
    </section>
  );
}

function Tile({ proposal, units }: { proposal: Proposal; units: "metric" | "imperial" }) {
  const { handle } = useDesk();
  const [attempt, problem] = useTry();
  const f = proposal.figures;
  const keep = async () => {
    const answer = await handle.edit([
      {
        op: "keep_variant",
        name: proposal.title,
        note: [proposal.words, proposal.made.length ? `Made to hold: ${proposal.made.join(", ")}.` : ""]
          .join(" ")
          .trim(),
        panels: proposal.panels,
      },
    ]);
    return answer.job.variants.at(-1)?.id;
  };
  const use = async () => {
    const variant = await keep();
    if (variant) await handle.edit([{ op: "use_variant", variant }, ...proposal.edits]);
  };
  return (
    <li className="min-w-0">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="text-[17px] truncate" title={proposal.words}>
          {proposal.title}
          {f.stops > 0 && <span className="text-signal">, refused</span>}
        </h3>
        <span className="font-sign font-semibold text-[19px] whitespace-nowrap">
          {shownWatts(f.watts)}
          {proposal.share !== null && proposal.share !== undefined && (
            <span className="text-soft text-[14px]"> {percent(proposal.share)}</span>
          )}
        </span>
      </div>
      <MiniRoof rects={proposal.rects} label={`${proposal.title}: ${f.panels} panels`} />
      <p className="text-[13px] leading-snug pt-1">
        {f.models.map((m) => `${m.count} × ${m.model}`).join(", ")}
        {proposal.best ? ". Best there is at this." : proposal.draft ? ". A first draft." : "."}
      </p>
      <p className="text-[13px] leading-snug text-soft">
        {f.holes} holes, feet in members {feetInMembers(f)}, {mass(f.mass_kg, units)}
        {f.year_wh !== null && f.year_wh !== undefined ? `, ${yearEnergy(f.year_wh)} a year` : ""}
        {f.price !== null && f.price !== undefined ? `, price ${f.price.toFixed(0)}` : ""}
        {f.stops === 0 && f.safe_m_s !== null && f.safe_m_s !== undefined
          ? `, safe to ${speed(f.safe_m_s, units)}`
          : ""}
      </p>
      <p className="text-[13px] leading-snug">
        {f.stop_titles.length > 0 ? (
          <>
            <span className="text-signal font-semibold">Stop:</span> {f.stop_titles.join("; ")}
          </>
        ) : (
          <span className="font-semibold">No stop.</span>
        )}
        {proposal.made.length > 0 && ` Made to hold: ${proposal.made.join(", ")}.`}
      </p>
      {proposal.why_not && f.stops > 0 && <p className="text-[13px] leading-snug">{proposal.why_not}</p>}
      <div className="flex gap-2 pt-1">
        <button type="button" className="act !h-[27px]" onClick={() => void attempt(use)}>
          Put on the roof
        </button>
        <button
          type="button"
          className="act !h-[27px] plain"
          onClick={() =>
            void attempt(async () => {
              await keep();
            })
          }
        >
          Keep as variant
        </button>
      </div>
      {problem}
    </li>
  );
}
