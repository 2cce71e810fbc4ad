/** Rails or a rack under panels: what it is made of, how it bends, what its feet and corners carry. */
import { useState } from "react";
import type { Carrier, CarrierVerdict } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group } from "../../fields/Field";
import { useDesk, useFinding, useUnits } from "../../job/JobContext";
import { percent, speed } from "../../ui/format";
import { Attachment, PointBrackets } from "./Attachment";
import { Chain } from "./Chain";
import { Moments } from "./Moments";
import { BasePlates, OuterFeet, PostFields } from "./PostsPart";
import { Corners, CrossbarFields, RackFields, RackMotion, Seams } from "./RackPart";
import { SectionFields } from "./SectionFields";

const OWN = "own";
const ALLOYS = ["6060-T66", "6063-T5", "6063-T6", "6082-T6", "1.4301", "S235"].map((a) => [a, a] as const);

export function RailsPart({ carrier }: { carrier: Carrier }) {
  const units = useUnits();
  const { handle } = useDesk();
  const verdict = useFinding("carriers").find((c) => c.carrier === carrier.id);
  const feet = useFinding("feet");
  const path = `carriers.${carrier.id}`;
  const now = new Set(feet.filter((f) => f.panel === carrier.id).map((f) => f.x_mm)).size;
  const onPoints = carrier.kind === "rack" && carrier.points.length > 0;
  const onPosts = carrier.kind === "rack" && carrier.posts;
  const onBars = carrier.kind === "rack" && carrier.crossbars;
  /** At the members, or as many as there are now at places that hang on no member. */
  const stand = (every: string) => {
    if (every === OWN) handle.change([{ op: "stand_anywhere", carrier: carrier.id, count: Math.max(now, 3) }]);
    else
      handle.change([
        ...(carrier.feet_at.length ? [{ op: "stand_anywhere" as const, carrier: carrier.id, count: 0 }] : []),
        { op: "set", path: `${path}.every`, value: Number(every) },
      ]);
  };
  return (
    <>
      {verdict && <RailsVerdict carrier={carrier} verdict={verdict} />}
      <Group title={carrier.name}>
        <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
          <SectionFields section={carrier.section} path={`${path}.section`} whole={carrier.kind === "rack"} />
          <Choice label="Metal" path={`${path}.alloy`} value={carrier.alloy} options={ALLOYS} />
          <Field label="Under the rail" path={`${path}.height`} value={carrier.height} hint="rail over the roof" />
          <Field label="Rails from x" path={`${path}.start`} value={carrier.start} />
          <Field label="to x" path={`${path}.end`} value={carrier.end} />
          {carrier.rails.map((rail) => (
            <Field key={rail.id} label={`Rail ${rail.id}, y`} path={`${path}.rails.${rail.id}.y`} value={rail.y} />
          ))}
          {!onPoints && !onPosts && (
            <Choice
              label={onBars ? "Crossbars" : "Feet"}
              path={`${path}.every`}
              value={carrier.feet_at.length ? OWN : String(carrier.every)}
              options={[
                ["1", "at every member"],
                ["2", "at every second"],
                ["3", "at every third"],
                ["4", "at every fourth"],
                [OWN, "at places of their own"],
              ]}
              onChange={stand}
            />
          )}
          <Field
            label="Sold in lengths of"
            path={`${path}.stock`}
            value={carrier.stock}
            placeholder={units === "metric" ? "4300 mm" : "14 ft"}
            clearable
          />
          <Field
            label="A clamp pulls, N"
            path={`${path}.clamp_n`}
            value={carrier.clamp_n}
            placeholder="2000"
            clearable
          />
        </div>
        {carrier.feet_at.length > 0 && (
          <div className="max-w-[420px] pt-1.5">
            <EntryTable
              path={`${path}.feet_at`}
              noun={onBars ? "crossbar" : "place of feet"}
              columns={[
                {
                  key: "x",
                  label: onBars ? "x of a crossbar" : "x of the feet, under every rail",
                  placeholder: "1250 mm",
                },
              ]}
              entries={carrier.feet_at}
              empty=""
            />
          </div>
        )}
      </Group>
      {carrier.kind === "rack" && <RackFields rack={carrier} path={path} />}
      {carrier.kind === "rack" && carrier.crossbars && (
        <CrossbarFields crossbars={carrier.crossbars} path={`${path}.crossbars`} />
      )}
      {carrier.kind === "rack" && carrier.posts && <PostFields posts={carrier.posts} path={`${path}.posts`} />}
      {carrier.hold.school === "base_plate" ? (
        <BasePlates plate={carrier.hold} path={`${path}.hold`} />
      ) : carrier.hold.school === "outer_foot" ? (
        <OuterFeet foot={carrier.hold} path={`${path}.hold`} />
      ) : onPoints ? (
        <PointBrackets hold={carrier.hold} path={`${path}.hold`} />
      ) : (
        <Attachment key={`${carrier.id} ${carrier.hold.school}`} hold={carrier.hold} path={`${path}.hold`} />
      )}
    </>
  );
}

function RailsVerdict({ carrier, verdict }: { carrier: Carrier; verdict: CarrierVerdict }) {
  const units = useUnits();
  const [foot, setFoot] = useState(verdict.worst_foot);
  const mostGiven = Math.max(0, ...verdict.rails.flatMap((r) => r.gives_mm.map(Math.abs)));
  const most = Math.max(...verdict.rails.map((r) => r.utilisation), 0);
  return (
    <>
      <Chain
        of="foot"
        holder={carrier.id}
        feet={verdict.feet}
        chains={verdict.chains}
        chosen={foot}
        choose={setFoot}
        ends={["rail", "vehicle"]}
      />
      {carrier.kind === "rack" && <Corners carrier={carrier} verdict={verdict} />}
      <Seams carrier={carrier} verdict={verdict} />
      <Group
        title={carrier.kind === "rack" ? "Bending of rails and bars" : "Bending of the rails"}
        aside={
          <span className="text-[13px]">
            safe {speed(verdict.safe_m_s, units)}, lets go {speed(verdict.let_go_m_s, units)}, one foot lost{" "}
            {speed(verdict.lost_let_go_m_s, units)}, {verdict.mass_kg.toFixed(1)} kg
          </span>
        }
      >
        <p className="text-[13px]">
          {percent(most)} of their strength is used at the probed speed. Drawn in the worst case, up where the rail is
          bent up.{carrier.kind === "rack" && " Dashed: how it gives where the load lands after a bump, drawn larger."}
        </p>
        {verdict.rails.map((rail) => (
          <Moments key={rail.rail} rail={rail} carrier={carrier} feet={verdict.feet} mostGiven={mostGiven} />
        ))}
        {carrier.kind === "rack" && <RackMotion verdict={verdict} />}
      </Group>
    </>
  );
}
