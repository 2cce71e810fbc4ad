/** What would help most: each change planned anew, with the days it saves; taken over with one press. */
import type { Edit } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { whenWords } from "./road";

export function HelpsPart() {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const { days } = useStoredJob();
  const work = useLookedAt(id, "helps", revision);
  const found = work.growing?.result ?? work.data?.result ?? null;
  return (
    <Group
      title="What would help"
      aside={work.isFetching ? <span aria-live="polite">tries: {work.doing || "the plan as it is"} …</span> : null}
    >
      {work.isError && (
        <p role="alert" className="text-signal font-semibold">
          {work.error.message}
        </p>
      )}
      {found && found.length === 0 && !work.isFetching && (
        <p>Nothing that was tried ends it earlier: people, hours, shelter, sealants, other ways to hold.</p>
      )}
      {found && found.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>with</th>
              <th>drive from</th>
              <th className="!text-right">earlier by</th>
              <th className="!text-right">days on the roof</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {found.map((help) => (
              <tr key={help.words}>
                <td className="font-semibold">{help.words}</td>
                <td>{help.finish ? whenWords(help.finish) : ""}</td>
                <td className="num">{savedWords(help.days_saved)}</td>
                <td className="num">{help.roof_days}</td>
                <td className="!text-right">
                  <button
                    type="button"
                    className="act !h-[26px]"
                    aria-label={`Plan with ${help.words}`}
                    onClick={() => handle.change(help.edits as Edit[])}
                  >
                    Plan with it
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {days.weather === "ignored" && <p className="pt-1">Shelter saves nothing while weather is left out.</p>}
    </Group>
  );
}

function savedWords(saved: number | null | undefined): string {
  if (saved === null || saved === undefined) return "only so";
  return saved >= 1 ? `${saved.toFixed(1)} days` : `${Math.round(saved * 24)} h`;
}
