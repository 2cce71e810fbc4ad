/** A section and its sizes; by its own sheet where it is none of the plain ones. */
import type { Carrier } from "../../api/types";
import { Choice, Field } from "../../fields/Field";
import { useDesk } from "../../job/JobContext";

const KINDS = [
  ["tube", "rectangular tube"],
  ["round", "round tube"],
  ["angle", "equal angle"],
  ["channel", "channel"],
  ["own", "by its own sheet"],
] as const;

type Props = {
  section: Carrier["section"];
  path: string;
  of?: string;
  /** A rack bends to all sides and twists: it asks for the whole sheet. */
  whole?: boolean;
  /** Struts are tubes. */
  tubes?: boolean;
};

export function SectionFields({ section, path, of = "", whole = false, tubes = false }: Props) {
  const { handle } = useDesk();
  const name = (word: string) => (of ? `${of}, ${word.toLowerCase()}` : word);
  return (
    <>
      <Choice
        label={name("Section")}
        path={`${path}.kind`}
        value={section.kind}
        options={tubes ? KINDS.slice(0, 2) : KINDS}
        onChange={(kind) => handle.change([{ op: "set", path, value: { kind } }])}
      />
      {(section.kind === "tube" || section.kind === "channel") && (
        <>
          <Field label={name("Height")} path={`${path}.height`} value={section.height} />
          <Field label={name("Width")} path={`${path}.width`} value={section.width} />
          <Field label={name("Wall")} path={`${path}.wall`} value={section.wall} />
        </>
      )}
      {section.kind === "round" && (
        <>
          <Field label={name("Diameter")} path={`${path}.diameter`} value={section.diameter} />
          <Field label={name("Wall")} path={`${path}.wall`} value={section.wall} />
        </>
      )}
      {section.kind === "angle" && (
        <>
          <Field label={name("Leg")} path={`${path}.leg`} value={section.leg} />
          <Field label={name("Wall")} path={`${path}.wall`} value={section.wall} />
        </>
      )}
      {section.kind === "own" && (
        <>
          <Field label={name("Height")} path={`${path}.height`} value={section.height} />
          <Field label={name("Width")} path={`${path}.width`} value={section.width} />
          <Own label={name("I, cm⁴")} path={`${path}.inertia_cm4`} value={section.inertia_cm4} like="8.5" />
          <Own label={name("W, cm³")} path={`${path}.modulus_cm3`} value={section.modulus_cm3} like="3.4" />
          {whole && (
            <>
              <Own
                label={name("I sideways, cm⁴")}
                path={`${path}.side_inertia_cm4`}
                value={section.side_inertia_cm4}
                like="6"
              />
              <Own
                label={name("W sideways, cm³")}
                path={`${path}.side_modulus_cm3`}
                value={section.side_modulus_cm3}
                like="3"
              />
              <Own label={name("Torsion, cm⁴")} path={`${path}.torsion_cm4`} value={section.torsion_cm4} like="1.5" />
            </>
          )}
          <Own label={name("Mass, kg/m")} path={`${path}.mass_kg_m`} value={section.mass_kg_m} like="1.1" />
          <Own label={name("Its slot pulls, N")} path={`${path}.slot_n`} value={section.slot_n} like="3000" />
          <Field
            label={name("Slot inside, wide")}
            path={`${path}.slot_wide`}
            value={section.slot_wide}
            placeholder="17 mm"
            clearable
          />
          <Field
            label={name("deep")}
            path={`${path}.slot_deep`}
            value={section.slot_deep}
            placeholder="8 mm"
            clearable
          />
        </>
      )}
    </>
  );
}

type OwnProps = { label: string; path: string; value: number | null | undefined; like: string };

const Own = ({ label, path, value, like }: OwnProps) => (
  <Field label={label} path={path} value={value} placeholder={like} clearable />
);
