/** Every piece with its length and mark; the chosen one drawn with its holes, all measured from its marked end. */
import type { Piece } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useUnits } from "../../job/JobContext";
import { length, mass } from "../../ui/format";

const WIDTH = 860;
const LEFT = 30;
const END = { front: "front end", port: "port end", lower: "lower end" } as const;
const FACES = ["upper", "lower", "front", "rear", "port", "starboard"] as const;

export function Pieces({ pieces }: { pieces: readonly Piece[] }) {
  const { selection, select } = useDesk();
  const units = useUnits();
  const chosen = pieces.find((p) => selection === `pieces.${p.id}`) ?? pieces[0];
  return (
    <Group title="Pieces" aside={<span className="text-[13px]">{pieces.length} to make</span>}>
      <div className="flex flex-wrap gap-1.5 pb-2">
        {pieces.map((piece) => (
          <button
            key={piece.id}
            type="button"
            className={`act !h-auto py-0.5 ${piece === chosen ? "!bg-ink !text-paper" : ""}`}
            aria-pressed={piece === chosen}
            onClick={() => select(`pieces.${piece.id}`)}
          >
            <span className="font-semibold">{piece.id}</span>
            <span className="text-[13px]"> {length(Math.round(piece.length_mm), units)}</span>
          </button>
        ))}
      </div>
      {chosen && <Sheet piece={chosen} />}
    </Group>
  );
}

function Sheet({ piece }: { piece: Piece }) {
  const units = useUnits();
  const faces = FACES.filter((face) => piece.holes.some((h) => h.face === face));
  const x = (mm: number) => LEFT + (mm / piece.length_mm) * (WIDTH - 2 * LEFT);
  return (
    <>
      <p>
        <span className="font-semibold">{piece.name}</span>: {piece.says},{" "}
        <span className="font-sign font-semibold text-[17px]">{length(piece.length_mm, units)}</span>, cut square,{" "}
        {mass(piece.mass_kg, units)}. Mark the {END[piece.marked]} with {piece.id}; all measures run from there.
      </p>
      {faces.map((face) => (
        <svg
          key={face}
          viewBox={`0 0 ${WIDTH} 44`}
          className="w-full max-w-[860px]"
          role="img"
          aria-label={`${face} face: ${piece.holes.filter((h) => h.face === face).length} holes`}
        >
          <rect x={x(0)} y={10} width={x(piece.length_mm) - x(0)} height={18} fill="none" stroke="var(--color-ink)" />
          <path d={`M${x(0) - 8} 10 v18 M${x(0) - 12} 19 h8`} stroke="var(--color-ink)" strokeWidth={2} />
          {piece.holes
            .filter((h) => h.face === face)
            .map((hole) => (
              <g key={`${hole.at_mm} ${hole.what}`} transform={`translate(${x(hole.at_mm)} 19)`}>
                <circle r={3.6} fill="var(--color-ink)" />
                <path d="M0 9 v5" stroke="var(--color-ink)" />
              </g>
            ))}
          <text x={x(0)} y={42} className="font-sign text-[13px] fill-ink">
            {face} face
          </text>
        </svg>
      ))}
      {piece.holes.length > 0 ? (
        <table className="sheet-table max-w-[760px]">
          <thead>
            <tr>
              <th className="!text-right">from the {END[piece.marked]}</th>
              <th>face</th>
              <th className="!text-right">drill</th>
              <th>for</th>
            </tr>
          </thead>
          <tbody>
            {piece.holes.map((hole) => (
              <tr key={`${hole.at_mm} ${hole.face} ${hole.what}`}>
                <td className="num">{length(hole.at_mm, units)}</td>
                <td>{hole.face}</td>
                <td className="num">
                  {length(hole.diameter_mm, units)}
                  {hole.through ? ", through" : ""}
                </td>
                <td>{hole.what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p>No hole: it is welded, clamped, or takes bolts in its slot.</p>
      )}
    </>
  );
}
