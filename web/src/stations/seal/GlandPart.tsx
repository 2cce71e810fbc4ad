/** Where cables go in: fields, what is wrong with the place, its bore and layers, places that are better. */
import type { GlandCheck } from "../../api/types";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { across, length } from "../../ui/format";

const START = { x: { mm: 1000 }, y: { mm: 0 } };

export function GlandPart() {
  const { handle } = useDesk();
  const { gland } = useStoredJob().seal;
  if (!gland)
    return (
      <>
        <p className="max-w-[60ch] pb-2">Where do the cables go in? It is sealed, checked and listed from here.</p>
        <button
          type="button"
          className="act"
          onClick={() => handle.change([{ op: "set", path: "seal.gland", value: START }])}
        >
          Put a gland on the roof
        </button>
      </>
    );
  return (
    <>
      <Group
        title="Gland"
        aside={
          <button
            type="button"
            className="underline text-[13px]"
            onClick={() => handle.change([{ op: "set", path: "seal.gland", value: null }])}
          >
            take it off
          </button>
        }
      >
        <div className="grid grid-cols-2 sm:grid-cols-3 gap-x-4 gap-y-1.5 max-w-[760px]">
          <Field label="Aft of the front" path="seal.gland.x" value={gland.x} />
          <Field label="Across, starboard +" path="seal.gland.y" value={gland.y} />
          <Field label="Base" path="seal.gland.base" value={gland.base} />
          <Field label="Cable, outside" path="seal.gland.cable" value={gland.cable} />
          <Field label="How many" path="seal.gland.cables" value={gland.cables} />
          <Choice
            label="Its mouth faces"
            path="seal.gland.faces"
            value={gland.faces}
            options={[
              ["rear", "aft"],
              ["front", "forward"],
              ["port", "to port"],
              ["starboard", "to starboard"],
            ]}
          />
        </div>
      </Group>
      <Check />
      <Offers />
    </>
  );
}

function Check() {
  const check = useFinding("gland");
  const units = useUnits();
  if (!check) return null;
  return (
    <Group title={check.wrong.length ? "What speaks against it" : "Nothing speaks against it"}>
      <ul className="pb-1">
        {check.wrong.map((w) => (
          <li key={w} className="font-semibold">
            {w}
          </li>
        ))}
      </ul>
      <p>
        Bore the rubber {length(check.bore_mm, units)}, tighter than the cable. {levelling(check)}{" "}
        {check.backing && "The skin is thin: a plate behind it for its screws. "}
        Grommet in the sheet's edge, a drip loop inside.
        {check.away_mm !== null && ` The farthest cable end is ${length(Math.round(check.away_mm), units)} away.`}
      </p>
    </Group>
  );
}

function levelling({ layers, lean_deg }: GlandCheck) {
  if (layers === null || lean_deg === null)
    return "How far the roof leans there is not known: lay a straight-edge on it first.";
  if (layers === 0) return "Its base lies flat.";
  return `Level its base with ${layers} ${layers === 1 ? "layer" : "layers"} of butyl: the roof leans ${lean_deg.toFixed(1)}°.`;
}

function Offers() {
  const { handle } = useDesk();
  const offers = useFinding("gland_offers");
  const units = useUnits();
  if (!offers.length) return <p>No place on this roof has nothing against it.</p>;
  return (
    <Group
      title="Places with nothing against them"
      aside={<span className="text-[13px]">nearest to the cable ends first</span>}
    >
      <ul>
        {offers.map((offer) => (
          <li
            key={`${offer.x_mm} ${offer.y_mm}`}
            className="flex items-baseline gap-3 py-1 border-b border-hair max-w-[760px]"
          >
            <button
              type="button"
              className="act !h-[27px]"
              onClick={() =>
                handle.change([
                  { op: "set", path: "seal.gland.x", value: { mm: offer.x_mm } },
                  { op: "set", path: "seal.gland.y", value: { mm: offer.y_mm } },
                ])
              }
            >
              Put it there
            </button>
            <span>
              {length(Math.round(offer.x_mm), units)} aft, {across(Math.round(offer.y_mm), units)}; {offer.why};{" "}
              {length(Math.round(offer.away_mm), units)} of cable to the farthest end
            </span>
          </li>
        ))}
      </ul>
    </Group>
  );
}
