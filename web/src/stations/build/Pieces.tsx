/** Every piece with its length and mark; the chosen one drawn with its holes, all measured from its marked end. */
import type { Piece } from "../../api/types";
import { Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { angle, length, mass } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { NoPieces } from "./NoPieces";

const WIDTH = 860;
const LEFT = 30;
const END = { front: "front end", port: "port end", lower: "lower end" } as const;
const FACES = ["upper", "lower", "front", "rear", "port", "starboard"] as const;
const KINDS = {
  rail: "Rails",
  bar: "Bars",
  crossbar: "Crossbars",
  post: "Posts",
  strut: "Struts",
  corner: "Corner angles",
  "splice plate": "Splice plates",
  bracket: "Brackets",
  bridge: "Bars under feet",
} as const satisfies Record<Piece["kind"], string>;
const FILES = [
  ["pieces.pdf", "Sheets of all pieces, PDF"],
  ["templates.pdf", "Drilling templates 1:1, PDF"],
  ["panel-templates.dxf", "Cardboard templates of panels, DXF"],
  ["labels.pdf", "Labels, PDF"],
  ["pieces.csv", "Pieces and holes, CSV"],
  ["pieces.dxf", "Pieces 1:1, DXF"],
  ["pieces.svg", "Pieces 1:1, SVG"],
  ["cut-list.csv", "Cut list, CSV"],
] as const;

function Files() {
  const { id } = useDesk();
  return (
    <div className="flex flex-wrap gap-2 py-2">
      {FILES.map(([name, words]) => (
        <a key={name} className="act" href={`/api/jobs/${id}/files/${name}`} download>
          {words}
        </a>
      ))}
    </div>
  );
}

/** Pieces that are made the same way: one drawing serves them all. */
function shapeOf(piece: Piece): string {
  const { kind, material, length_mm, holes, bends, cut_marked_deg, cut_far_deg } = piece;
  const told = holes.map(({ what: _, ...hole }) => hole);
  return JSON.stringify([kind, material, length_mm, told, bends, cut_marked_deg, cut_far_deg]);
}

export function PiecesPart() {
  const { selection, select, handle } = useDesk();
  const pieces = useFinding("pieces");
  const { brackets } = useStoredJob().workshop;
  const units = useUnits();
  const chosen = pieces.find((p) => selection === `pieces.${p.id}`) ?? pieces[0];
  const chosenShape = chosen && shapeOf(chosen);
  const bent = brackets === "bent here";
  return (
    <>
      <label className="inline-flex items-center gap-2 h-[30px]">
        <input
          type="checkbox"
          className="size-4 accent-[var(--color-ink)]"
          checked={bent}
          onChange={(event) =>
            handle.change([
              { op: "set", path: "workshop.brackets", value: event.target.checked ? "bent here" : "bought" },
            ])
          }
        />
        <span className="label">Brackets are bent here, from strip</span>
      </label>
      {!pieces.length && <NoPieces />}
      {(Object.keys(KINDS) as (keyof typeof KINDS)[]).map((kind) => {
        const shapes = new Map<string, Piece[]>();
        for (const piece of pieces.filter((p) => p.kind === kind)) {
          const shape = shapeOf(piece);
          shapes.set(shape, [...(shapes.get(shape) ?? []), piece]);
        }
        if (!shapes.size) return null;
        return (
          <div key={kind} className="flex flex-wrap items-center gap-1.5 pb-1.5">
            <span className="label w-28">{KINDS[kind]}</span>
            {[...shapes].map(([shape, alike]) => {
              const first = alike[0];
              if (!first) return null;
              return (
                <button
                  key={first.id}
                  type="button"
                  className={`act !h-auto py-0.5 ${shape === chosenShape ? "!bg-ink !text-paper" : ""}`}
                  aria-pressed={shape === chosenShape}
                  onClick={() => select(`pieces.${first.id}`)}
                >
                  <span className="font-semibold">{alike.length > 2 ? `${alike.length} alike` : idsOf(alike)}</span>
                  <span className="text-[13px]"> {length(Math.round(first.length_mm), units)}</span>
                </button>
              );
            })}
          </div>
        );
      })}
      {chosen && <Sheet piece={chosen} alike={pieces.filter((p) => shapeOf(p) === chosenShape)} />}
      {pieces.length > 0 && <Files />}
    </>
  );
}

const idsOf = (pieces: readonly Piece[]) => pieces.map((p) => p.id).join(", ");

function Sheet({ piece, alike }: { piece: Piece; alike: readonly Piece[] }) {
  const units = useUnits();
  const faces = FACES.filter((face) => piece.holes.some((h) => h.face === face));
  const x = (mm: number) => LEFT + (mm / piece.length_mm) * (WIDTH - 2 * LEFT);
  const square = piece.cut_marked_deg === 0 && piece.cut_far_deg === 0;
  const wide = (face: string) => (face === "upper" || face === "lower" ? piece.wide_mm : piece.high_mm);
  return (
    <Group
      title={alike.length > 1 ? `${alike.length} of these` : piece.name}
      aside={alike.length > 1 && <span className="text-[13px]">{idsOf(alike)}</span>}
    >
      <p>
        {alike.length > 1 && <span className="font-semibold">{piece.name} and alike: </span>}
        {piece.says}, <span className="font-sign font-semibold text-[17px]">{length(piece.length_mm, units)}</span>
        {square
          ? ", cut square"
          : `, ends cut ${angle(piece.cut_marked_deg)} and ${angle(piece.cut_far_deg)} off square`}
        , {mass(piece.mass_kg, units)}. Mark the {END[piece.marked]} with its number; all measures run from there.
      </p>
      {faces.map((face) => (
        <svg
          key={face}
          viewBox={`0 0 ${WIDTH} 58`}
          className="w-full max-w-[860px]"
          role="img"
          aria-label={`${face} face: ${piece.holes.filter((h) => h.face === face).length} holes`}
        >
          <rect x={x(0)} y={18} width={x(piece.length_mm) - x(0)} height={22} fill="none" stroke="var(--color-ink)" />
          <path d={`M${x(0) - 8} 18 v22 M${x(0) - 12} 29 h8`} stroke="var(--color-ink)" strokeWidth={2} />
          {piece.bends.map((bend) => (
            <path
              key={bend.at_mm}
              d={`M${x(bend.at_mm)} 14 v30`}
              stroke="var(--color-chalk)"
              strokeDasharray="5 3"
              strokeWidth={1.6}
            />
          ))}
          {piece.holes.map((hole, i) =>
            hole.face === face ? (
              <g
                key={`${hole.at_mm} ${hole.off_mm} ${hole.what}`}
                transform={`translate(${x(hole.at_mm)} ${29 + (hole.off_mm / wide(face)) * 22})`}
              >
                <circle r={3.4} fill="var(--color-ink)" />
                <text
                  y={-15 - (hole.off_mm / wide(face)) * 22}
                  textAnchor="middle"
                  className="font-sign font-semibold text-[13px] fill-ink"
                >
                  {i + 1}
                </text>
              </g>
            ) : null,
          )}
          <text x={x(0)} y={55} className="font-sign text-[13px] fill-ink">
            {face} face
          </text>
        </svg>
      ))}
      <p className="flex gap-3 pb-1 text-[13px]">
        <PieceFile piece={piece} form="dxf" />
        <PieceFile piece={piece} form="svg" />
      </p>
      {piece.bends.length > 0 && <Bends piece={piece} />}
      {piece.holes.length > 0 ? (
        <Holes piece={piece} />
      ) : (
        <p>No hole: it is welded, clamped, or takes bolts in its slot.</p>
      )}
      <ChangedByHand piece={piece} />
    </Group>
  );
}

function PieceFile({ piece, form }: { piece: Piece; form: "dxf" | "svg" }) {
  const { id } = useDesk();
  return (
    <a className="underline" href={`/api/jobs/${id}/pieces/${piece.id}/${form}`} download>
      {piece.id} 1:1, {form.toUpperCase()}
    </a>
  );
}

function Bends({ piece }: { piece: Piece }) {
  const units = useUnits();
  return (
    <table className="sheet-table max-w-[760px] mb-2">
      <thead>
        <tr>
          <th className="!text-right">bend at</th>
          <th>way</th>
          <th className="!text-right">inside radius</th>
          <th className="!text-right">angle</th>
          <th className="!text-right">tool goes to</th>
        </tr>
      </thead>
      <tbody>
        {piece.bends.map((bend) => (
          <tr key={bend.at_mm}>
            <td className="num">{length(bend.at_mm, units)}</td>
            <td>{bend.up ? "up" : "down"}</td>
            <td className="num">{length(bend.inside_mm, units)}</td>
            <td className="num">{angle(bend.angle_deg)}</td>
            <td className="num font-semibold">{angle(bend.tool_deg)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Holes({ piece }: { piece: Piece }) {
  const units = useUnits();
  const aside = piece.holes.some((h) => h.off_mm !== 0);
  return (
    <table className="sheet-table max-w-[860px]">
      <thead>
        <tr>
          <th className="!text-right">no.</th>
          <th className="!text-right">from the {END[piece.marked]}</th>
          <th>face</th>
          {aside && <th className="!text-right">off its middle</th>}
          <th className="!text-right">pilot</th>
          <th className="!text-right">drill</th>
          <th>for</th>
        </tr>
      </thead>
      <tbody>
        {piece.holes.map((hole, i) => (
          <tr key={`${hole.at_mm} ${hole.off_mm} ${hole.face} ${hole.what}`}>
            <td className="num">{i + 1}</td>
            <td className="num font-semibold">{length(hole.at_mm, units)}</td>
            <td>{hole.face}</td>
            {aside && <td className="num">{hole.off_mm ? length(hole.off_mm, units) : "–"}</td>}
            <td className="num">{hole.pilot_mm ? length(hole.pilot_mm, units) : "–"}</td>
            <td className="num">
              {length(hole.diameter_mm, units)}
              {hole.through ? ", through" : ""}
              {hole.thread ? `, ${hole.thread}` : ""}
              {hole.slot_mm > 0 &&
                `, slot ${length(Math.ceil(hole.slot_mm), units)} ${hole.slot_across ? "across" : "along"}`}
            </td>
            <td>{hole.what}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A length that is cut otherwise than the plan says; kept, and told when the plan moves under it. */
function ChangedByHand({ piece }: { piece: Piece }) {
  const units = useUnits();
  const { handle } = useDesk();
  const [attempt, problem] = useTry();
  const { changes } = useStoredJob().workshop;
  const own = changes.find((change) => change.piece === piece.id);
  if (!own)
    return (
      <p className="pt-2">
        <button
          type="button"
          className="underline text-[13px]"
          onClick={() =>
            void attempt(async () => {
              await handle.edit([
                {
                  op: "add",
                  path: "workshop.changes",
                  value: { piece: piece.id, planned: { mm: piece.length_mm }, length: { mm: piece.length_mm } },
                },
              ]);
            })
          }
        >
          Cut {piece.id} otherwise
        </button>
        {problem}
      </p>
    );
  const path = `workshop.changes.${own.id}`;
  return (
    <div className="pt-2 max-w-[860px]">
      <div className="grid grid-cols-2 sm:grid-cols-5 gap-x-4 items-end">
        <Field label={`Length of ${piece.id}`} path={`${path}.length`} value={own.length} />
        <Field label="Marked end, off square" path={`${path}.cut_marked`} value={own.cut_marked} />
        <Field label="Far end, off square" path={`${path}.cut_far`} value={own.cut_far} />
        <Field label="Why" path={`${path}.why`} value={own.why} placeholder="" clearable />
        <button type="button" className="act" onClick={() => handle.change([{ op: "remove", path }])}>
          Back to the plan
        </button>
      </div>
      <p className="text-[13px] pt-1">The plan says {length(piece.planned_mm ?? piece.length_mm, units)}.</p>
    </div>
  );
}
