/** This vehicle and others that want the same people, planned as one: who waits for whom, and who is where. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { ApiError, http, unwrap } from "../../api/client";
import { newUuid } from "../../api/ids";
import type { Edit, Job, Neighbour, PlannedStep, ShopPlan, VehiclePlan } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { CLIENT } from "../../job/useJob";
import { type Answer, useLookedAt } from "../../job/useSlow";
import { keepEdits, takenEdit } from "./pins";
import { dayWords, whenWords } from "./road";
import { Swatch, YardRoad } from "./YardRoad";

const MOST_OTHERS = 5;

export function YardPart() {
  const { id } = useDesk();
  const revision = useRevision();
  const neighbours = useQuery({
    queryKey: ["neighbours", id, revision],
    placeholderData: keepPreviousData,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/neighbours", { params: { path: { job_id: id } } })),
  }).data;
  const [chosen, setChosen] = useState<readonly string[] | null>(null);
  if (!neighbours) return null;
  const able = neighbours.filter((n) => n.shared.answered);
  const others = (chosen ?? able.filter((n) => n.shared.overlaps).map((n) => n.id)).slice(0, MOST_OTHERS);
  const toggle = (other: string) =>
    setChosen(others.includes(other) ? others.filter((o) => o !== other) : [...others, other]);
  return (
    <>
      <Others neighbours={neighbours} others={others} toggle={toggle} />
      {others.length > 0 && <Together key={others.join(" ")} others={others} />}
    </>
  );
}

function Others({
  neighbours,
  others,
  toggle,
}: {
  neighbours: readonly Neighbour[];
  others: readonly string[];
  toggle: (id: string) => void;
}) {
  if (!neighbours.length) return <p>No other vehicle wants the same people: names are compared.</p>;
  return (
    <Group title="Together with">
      <ul className="flex flex-wrap gap-x-6 gap-y-1">
        {neighbours.map((n) => (
          <li key={n.id}>
            <label className="flex items-center gap-2 min-h-[28px]">
              <input
                type="checkbox"
                checked={others.includes(n.id)}
                disabled={!n.shared.answered || (!others.includes(n.id) && others.length >= MOST_OTHERS)}
                onChange={() => toggle(n.id)}
              />
              <span>
                <b className="font-sign text-[17px]">{n.name}</b>{" "}
                <span className="text-soft text-[13px]">
                  {n.shared.people.join(", ")}
                  {n.first ? `, from ${dayWords(n.first)}` : ""}
                </span>
              </span>
            </label>
            {!n.shared.answered && (
              <Link className="underline text-[13px]" to={`/jobs/${n.id}/days`}>
                answer there first: days, people, weather
              </Link>
            )}
          </li>
        ))}
      </ul>
    </Group>
  );
}

function Together({ others }: { others: readonly string[] }) {
  const { id } = useDesk();
  const revision = useRevision();
  const { days } = useStoredJob();
  const [kept, setKept] = useState<ShopPlan | null>(null);
  const work = useLookedAt(id, "together", revision, kept === null, others);
  const answer = work.growing ?? work.data ?? null;
  const plan = kept ?? answer?.result ?? null;
  return (
    <>
      {work.isError && (
        <p role="alert" className="text-signal font-semibold">
          {work.error.message}
        </p>
      )}
      {work.isFetching && (
        <p className="text-[13px]" aria-live="polite">
          {plan ? "looking for better" : "working"}: {work.doing || "each by itself"} …
        </p>
      )}
      {plan?.state === "not found" && <p>No plan was found in the time there was; nor that there is none.</p>}
      {plan?.state === "impossible" && <NoPlan plan={plan} />}
      {plan?.state === "found" && answer && (
        <>
          <Headline plan={plan} busy={work.isFetching}>
            {keptHere(days, plan) ? (
              <p className="font-sign font-semibold">kept for all</p>
            ) : (
              <KeepAll plan={plan} answer={answer} busy={work.isFetching} done={() => setKept(plan)} />
            )}
          </Headline>
          <YardRoad vehicles={plan.vehicles} />
        </>
      )}
    </>
  );
}

/** The open job keeps its plan last: what is kept here is kept for all. */
function keptHere(days: Job["days"], plan: ShopPlan): boolean {
  const steps = plan.vehicles[0]?.plan.steps ?? [];
  const same = (s: PlannedStep, k: Job["days"]["kept"][number]) =>
    s.id === k.step && Date.parse(s.starts) === Date.parse(k.starts) && s.persons.join() === k.persons.join();
  return days.kept.length === steps.length && steps.every((s) => days.kept.some((k) => same(s, k)));
}

function NoPlan({ plan }: { plan: ShopPlan }) {
  return (
    <div role="alert" className="pb-2">
      <p className="font-sign font-semibold text-[26px] leading-8 text-signal">
        {plan.blocked ? `${plan.blocked}: not within its days` : "Not together within these days"}
      </p>
      <ul>
        {plan.reasons.map((r) => (
          <li key={r.name + r.step}>
            <b>{r.name}</b>: {r.words}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Headline({ plan, busy, children }: { plan: ShopPlan; busy: boolean; children: React.ReactNode }) {
  return (
    <div className="flex flex-wrap items-end gap-x-8 gap-y-1 pb-2">
      {plan.vehicles.map((v, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two vehicles may bear one name; their order is fixed
        <section key={k} aria-label={v.name}>
          <h3 className="flex items-center gap-2 text-[15px]">
            <Swatch vehicle={k} /> {v.name}
          </h3>
          <p className="font-sign font-semibold text-[21px] leading-6">
            {v.plan.finish ? whenWords(v.plan.finish) : "done"}
          </p>
          <p className="text-[13px]">{waitWords(v)}</p>
        </section>
      ))}
      <div className="ml-auto text-right">
        <p className="text-[13px] max-w-[34ch]">{busy ? "" : proofWords(plan)}</p>
        {children}
      </div>
    </div>
  );
}

function waitWords(vehicle: VehiclePlan): string {
  const { waits_h: waits } = vehicle;
  if (waits === null) return vehicle.plan.state === "nothing to do" ? "nothing left to do" : "";
  if (waits < 0.25) return "as soon as alone";
  const days = Math.floor(waits / 24);
  const hours = Math.round((waits % 24) * 2) / 2;
  const told = [days ? `${days} ${days === 1 ? "day" : "days"}` : "", hours ? `${hours} h` : ""].filter(Boolean);
  return `waits ${told.join(" ")} for the others`;
}

function proofWords(plan: ShopPlan): string {
  if (plan.proved.includes("finish")) return "Proved: in sum they cannot drive earlier.";
  return plan.spare_h ? `In sum perhaps up to ${Math.ceil(plan.spare_h)} h earlier.` : "";
}

type Keeping = { state: "no" } | { state: "working" } | { state: "failed"; words: string };

/** Keeps each plan in its job, and when its people are at the others: the other jobs first, each as it was planned. */
function KeepAll({
  plan,
  answer,
  busy,
  done,
}: {
  plan: ShopPlan;
  answer: Answer<"together">;
  busy: boolean;
  done: () => void;
}) {
  const { handle } = useDesk();
  const { days } = useStoredJob();
  const [keeping, setKeeping] = useState<Keeping>({ state: "no" });
  const keep = async () => {
    setKeeping({ state: "working" });
    for (const [k, vehicle] of plan.vehicles.slice(1).entries()) {
      const other = answer.others[k];
      if (!other) continue;
      try {
        await keepIn(other.job, other.revision, plan, k + 1);
      } catch (problem) {
        const why =
          problem instanceof ApiError && problem.status === 409 ? "it has changed meanwhile" : String(problem);
        setKeeping({ state: "failed", words: `Not kept for ${vehicle.name}: ${why}. Open this part again.` });
        return;
      }
    }
    handle.change(editsOf(days, plan, 0));
    done();
  };
  return (
    <>
      {keeping.state === "failed" && (
        <p role="alert" className="text-signal font-semibold">
          {keeping.words}
        </p>
      )}
      <button type="button" className="act" disabled={busy || keeping.state === "working"} onClick={keep}>
        Keep for all
      </button>
    </>
  );
}

async function keepIn(job: string, revision: number, plan: ShopPlan, place: number) {
  const params = { path: { job_id: job } };
  const now = await unwrap(http.GET("/api/jobs/{job_id}", { params }));
  const edits = editsOf(now.job.days, plan, place);
  const body = { base_revision: revision, client: CLIENT, edit_id: newUuid(), edits };
  await unwrap(http.POST("/api/jobs/{job_id}/edits", { params, body }));
}

/** What one of the jobs keeps: its plan, and when its people are at the others; two may bear one name. */
function editsOf(days: Job["days"], plan: ShopPlan, place: number): Edit[] {
  const vehicle = plan.vehicles[place];
  if (!vehicle) return [];
  const others = plan.vehicles.filter((_, k) => k !== place).map((v) => v.name);
  return [
    ...keepEdits(vehicle.plan),
    ...vehicle.occupied.flatMap((one) => takenEdit(days, one.person, others, [...one.taken])),
  ];
}
