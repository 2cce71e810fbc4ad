/** How sure the plan is over all courses of the forecast, what breaks it, and the plan that holds most often. */
import { Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { percent } from "../../ui/format";
import { keepEdits } from "./pins";
import { dateOf, dayWords, timeOf, whenWords } from "./road";

export function SurePart() {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const { days } = useStoredJob();
  const work = useLookedAt(id, "sure", revision);
  const found = work.data?.result ?? null;
  return (
    <>
      {work.isError && (
        <p role="alert" className="text-signal font-semibold">
          {work.error.message}
        </p>
      )}
      {work.isFetching && (
        <p className="text-[13px]" aria-live="polite">
          working: {work.doing || "the fastest plan"} …
        </p>
      )}
      {found && found.members === 1 && (
        <p>One course of weather says nothing about chance: load a forecast with several.</p>
      )}
      {found && found.members > 1 && (
        <div className="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-2 gap-x-10">
          <Group title={days.kept.length ? "The kept plan" : "The fastest plan"}>
            <p className="font-sign font-semibold text-[28px] leading-9">
              holds in {found.holds} of {found.members}
              <span className="text-[17px] font-normal"> courses, {percent(found.holds / found.members)}</span>
            </p>
            {found.weak.length > 0 && <h3 className="label pt-1">what breaks it</h3>}
            <ul>
              {found.weak.map((w) => (
                <li key={w.step} className="border-b border-hair py-0.5">
                  <b>{w.title}</b> in {w.breaks}: {w.words}
                </li>
              ))}
            </ul>
          </Group>
          {found.safest && (
            <Group
              title="The plan that holds most often"
              aside={
                <button
                  type="button"
                  className="act !h-[26px]"
                  onClick={() => found.safest && handle.change(keepEdits(found.safest))}
                >
                  Keep it
                </button>
              }
            >
              <p className="font-sign font-semibold text-[28px] leading-9">
                holds in {found.safest_holds} of {found.members}
                <span className="text-[17px] font-normal">
                  {found.safest.finish ? `, drive from ${whenWords(found.safest.finish)}` : ""}
                </span>
              </p>
              <p className="text-[13px]">
                {found.safest_proved ? "Proved: none holds in more." : "The best that was found."}
              </p>
              <ul className="text-[13px] columns-2">
                {found.safest.steps
                  .filter((s) => s.kind !== "drive")
                  .map((s) => (
                    <li key={s.id}>
                      {dayWords(dateOf(s.starts))} {timeOf(s.starts)} {s.title}
                    </li>
                  ))}
              </ul>
            </Group>
          )}
        </div>
      )}
    </>
  );
}
