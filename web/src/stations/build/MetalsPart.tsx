/** Which metals touch and what comes between them; what is put on the pieces, and how long that takes. */
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";

const BETWEEN = {
  fine: "nothing",
  grease: "paste on the threads",
  isolate: "plastic or foam",
  isolated: "is there",
} as const;

export function MetalsPart() {
  const { handle } = useDesk();
  const { coat } = useStoredJob().workshop;
  const contacts = useFinding("contacts");
  const names = new Map(useStoredJob().carriers.map((c) => [c.id, c.name]));
  return (
    <>
      <Group title="Coat">
        <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-4 gap-y-1.5 max-w-[860px] items-end">
          <Choice
            label="What is put on"
            path="workshop.coat.kind"
            value={coat.kind}
            options={[
              ["none", "nothing"],
              ["paint", "paint"],
              ["powder", "powder"],
              ["anodised", "anodised"],
            ]}
          />
          {coat.kind !== "none" && (
            <>
              <Choice
                label="When"
                path="workshop.coat.when"
                value={coat.when}
                options={[
                  ["after drilling", "after drilling"],
                  ["before drilling", "before drilling"],
                ]}
              />
              <Field label="How thick" path="workshop.coat.thickness" value={coat.thickness} />
              <Field
                label="Working days away"
                path="workshop.coat.days"
                value={coat.days}
                placeholder="ask the coater"
                clearable
              />
            </>
          )}
          <Choice
            label="Salt, on roads or at sea"
            path="workshop.coat.salt"
            value={coat.salt === null || coat.salt === undefined ? null : coat.salt ? "yes" : "no"}
            options={[
              ["yes", "yes"],
              ["no", "no, rain only"],
            ]}
            onChange={(value) =>
              handle.change([{ op: "set", path: "workshop.coat.salt", value: value === "" ? null : value === "yes" }])
            }
          />
          <Tick label="Steel is galvanised" path="workshop.coat.galvanised" value={coat.galvanised} />
          <Tick label="Etch primer on zinc" path="workshop.coat.etched" value={coat.etched} />
          <Tick label="Plastic or foam between metals" path="workshop.coat.washers" value={coat.washers} />
        </div>
      </Group>
      <Group title="Metals that touch">
        {contacts.length === 0 ? (
          <p>No two metals touch in what is made here.</p>
        ) : (
          <table className="sheet-table max-w-[860px]">
            <thead>
              <tr>
                <th>where</th>
                <th>is eaten</th>
                <th>by</th>
                <th className="!text-right">apart</th>
                <th className="!text-right">allowed</th>
                <th className="!text-right">its size</th>
                <th>between them</th>
              </tr>
            </thead>
            <tbody>
              {contacts.map((c) => (
                <tr key={`${c.carrier} ${c.where}`}>
                  <td>
                    {names.get(c.carrier)}, {c.where}
                  </td>
                  <td>{c.anode}</td>
                  <td>{c.cathode}</td>
                  <td className="num">{c.apart_v.toFixed(2)} V</td>
                  <td className="num">{c.limit_v.toFixed(2)} V</td>
                  <td className="num">
                    {c.anode_to_cathode >= 1
                      ? `${c.anode_to_cathode.toFixed(0)} times as large`
                      : `${(1 / c.anode_to_cathode).toFixed(0)} times smaller`}
                  </td>
                  <td className={c.between === "isolate" ? "font-semibold" : ""}>{BETWEEN[c.between]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Group>
    </>
  );
}
