/** The box: everything that has to be in it before anybody climbs, ticked off. */
import { Group } from "../../fields/Field";
import { useDesk, useFinding } from "../../job/JobContext";
import { counted } from "../../ui/format";

const SHELVES = ["drilling", "tightening", "measuring", "setting", "protection", "fasteners", "by the roll"] as const;

export function KitPart() {
  const { handle } = useDesk();
  const kit = useFinding("kit");
  const open = kit.filter((line) => !line.packed).length;
  return (
    <>
      <p className="pb-2">
        <span className="font-sign font-semibold text-[21px]">{open === 0 ? "All packed" : `${open} to pack`}</span>
        <span className="text-[13.5px] ml-3">Fasteners are counted with their spares: count them into the box.</span>
      </p>
      <div className="grid md:grid-cols-2 gap-x-8">
        {SHELVES.map((shelf) => {
          const lines = kit.filter((line) => line.shelf === shelf);
          if (!lines.length) return null;
          return (
            <Group key={shelf} title={`${shelf[0]?.toUpperCase()}${shelf.slice(1)}`}>
              <ul>
                {lines.map((line) => (
                  <li key={line.id} className="border-b border-hair">
                    <label className="flex items-center gap-2.5 py-1 min-h-[30px]">
                      <input
                        type="checkbox"
                        className="size-5 accent-[var(--color-ink)] shrink-0"
                        checked={line.packed}
                        onChange={(event) =>
                          handle.change([
                            event.target.checked
                              ? { op: "add", path: "workshop.packed", value: { id: line.id } }
                              : { op: "remove", path: `workshop.packed.${line.id}` },
                          ])
                        }
                      />
                      <span className="num font-semibold min-w-[3.2rem] text-right whitespace-nowrap">
                        {counted(line)}
                      </span>
                      <span className={line.packed ? "line-through text-soft" : ""}>{line.item}</span>
                    </label>
                  </li>
                ))}
              </ul>
            </Group>
          );
        })}
      </div>
    </>
  );
}
