/** Before the ladder: the box is ticked off, and what is missing is said before anybody climbs. */
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { withWaiting } from "../../job/outbox";
import { counted } from "../../ui/format";

export function KitPage({ climb }: { climb: () => void }) {
  const { handle } = useDesk();
  const { workshop } = useStoredJob();
  const packed = new Set(withWaiting(workshop.packed, handle.waiting, "workshop.packed").map((p) => p.id));
  const kit = useFinding("kit").map((line) => ({ ...line, packed: packed.has(line.id) }));
  const missing = kit.filter((line) => !line.packed);
  return (
    <>
      <section className="flex-1 min-h-0 overflow-y-auto py-3" aria-label="The box">
        <h2 className="text-[28px] leading-[1.1]">Before the ladder</h2>
        <p className="text-[18px] pt-1" aria-live="polite">
          {missing.length ? `${missing.length} of ${kit.length} not in the box yet.` : "Everything is in the box."}
        </p>
        <ul className="pt-2">
          {[...missing, ...kit.filter((line) => line.packed)].map((line) => (
            <li key={line.id} className="border-b border-hair">
              <label className="flex items-center gap-3 min-h-[52px] text-[18px]">
                <input
                  type="checkbox"
                  className="size-8 accent-[var(--color-ink)] shrink-0"
                  checked={line.packed}
                  onChange={(event) =>
                    handle.change([
                      event.target.checked
                        ? { op: "add", path: "workshop.packed", value: { id: line.id } }
                        : { op: "remove", path: `workshop.packed.${line.id}` },
                    ])
                  }
                />
                <span className={line.packed ? "line-through text-soft" : ""}>
                  <b>{counted(line)}</b> {line.item}
                </span>
              </label>
            </li>
          ))}
        </ul>
      </section>
      <div className="pb-2 shrink-0">
        <button type="button" className="thumb w-full !bg-tape !text-[#1d2225]" onClick={climb}>
          {missing.length ? `Climb without ${missing.length}` : "Climb"}
        </button>
      </div>
    </>
  );
}
