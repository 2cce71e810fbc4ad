/** Feet that do not go together as they are: what can be done about each, with what it comes to. */
import type { Edit } from "../../api/types";
import { useDesk, useFinding, useRevision, useUnits } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { speed } from "../../ui/format";

export function WaysOut() {
  const { id, handle } = useDesk();
  const revision = useRevision();
  const units = useUnits();
  const troubled = useFinding("as_built").some((f) => f.state === "off" || f.pilot === "through");
  const { data, isFetching } = useLookedAt(id, "reality", revision, troubled);
  if (!troubled) return null;
  const told = data?.result;
  return (
    <section aria-label="Not as planned" className="py-2">
      {!told && isFetching && <p>Works out what can be done …</p>}
      {told?.feet.map((foot) => (
        <div key={foot.id} className="border-l-[6px] border-signal pl-3 py-1 mb-1">
          <p className="font-sign font-semibold text-[19px]">
            {foot.where}: {foot.words}
          </p>
          {foot.ways.map((way) => (
            <button
              key={way.words}
              type="button"
              className="block w-full text-left border-2 border-ink bg-paper px-3 py-2 mt-1.5 text-[16px] leading-snug min-h-[52px]"
              onClick={() => handle.change(way.edits as Edit[])}
            >
              {way.words}
              {way.lacks.length > 0 && (
                <span className="block text-signal font-semibold">not in the box: {way.lacks.join(", ")}</span>
              )}
            </button>
          ))}
          {!foot.ways.length && <p>No way out could be worked out: ask at the desk.</p>}
        </div>
      ))}
      {told?.planned.let_go_m_s != null && told.now.let_go_m_s != null && (
        <p className="text-[16px]">
          Planned it lets go at {speed(told.planned.let_go_m_s, units)}, as it stands at{" "}
          {speed(told.now.let_go_m_s, units)}.
        </p>
      )}
    </section>
  );
}
