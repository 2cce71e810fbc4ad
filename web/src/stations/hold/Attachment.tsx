/** How a panel is held: the school and its parts. */
import type { ReactNode } from "react";
import type { Panel } from "../../api/types";
import { Choice, Field, Group, Tick } from "../../fields/Field";
import { useDesk, useFinding, useStoredJob } from "../../job/JobContext";
import { RadioRow } from "../../ui/RadioRow";

type School = Panel["hold"]["school"];
const SCHOOLS: readonly (readonly [School, string, string])[] = [
  ["screws", "Screws into members", "strongest with few parts; every hole is sealed"],
  ["bolts", "Through-bolts, large washers", "needs access from inside"],
  ["one_sided", "From outside alone", "rivet nuts, blind rivets, well nuts; a maker’s value helps"],
  ["tape", "Bonded: foam tape or adhesive", "no holes; needs sound paint, warmth and time"],
];
export const BOLTS = ["M5", "M6", "M8", "M10", "1/4-20", "5/16-18", "3/8-16"].map((b) => [b, b] as const);
const SCREWS = ["#8", "#10", "#12", "#14"].map((s) => [s, s] as const);

type Hold = Panel["hold"];

/** How a panel on feet of its own is held, with the same for all others at hand. */
export function PanelAttachment({ panel }: { panel: Panel }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const drawn = useFinding("verdicts").some((v) => v.panel === panel.id);
  const others = job.panels.filter((p) => p.id !== panel.id && !p.carrier);
  const toAll = () =>
    handle.change(others.map((p) => ({ op: "set" as const, path: `panels.${p.id}.hold`, value: panel.hold })));
  return (
    <Attachment
      hold={panel.hold}
      path={`panels.${panel.id}.hold`}
      drawn={drawn}
      aside={
        others.length > 0 && (
          <button type="button" className="underline text-[13px]" onClick={toAll}>
            hold all panels like this
          </button>
        )
      }
    />
  );
}

/** ``drawn``: lengths that are typed in the drawing of the foot are left out here. */
type AttachmentProps = { hold: Hold; path: string; title?: string; aside?: ReactNode; drawn?: boolean };

export function Attachment({ hold, path, title = "How it holds", aside, drawn = false }: AttachmentProps) {
  const { handle } = useDesk();
  const choose = (school: School) => {
    if (school !== hold.school) handle.change([{ op: "set", path, value: { school } }]);
  };
  return (
    <Group title={title} aside={aside}>
      <RadioRow
        label="Attachment school"
        className="grid sm:grid-cols-2 lg:grid-cols-4 gap-2 pb-2"
        value={hold.school}
        options={SCHOOLS.map(
          ([school, title, words]) =>
            [
              school,
              title,
              undefined,
              <span key={school} className="font-sans font-normal text-[12.5px] leading-tight text-left">
                {words}
              </span>,
            ] as const,
        )}
        choose={choose}
        optionClass="!h-auto !whitespace-normal flex-col !items-start !gap-0 py-1"
      />
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        {hold.school === "screws" && (
          <>
            <Choice label="Screw" path={`${path}.screw`} value={hold.screw} options={SCREWS} />
            <Field label="Screws per foot" path={`${path}.count`} value={hold.count} />
            {!drawn && <Field label="Screw length" path={`${path}.length`} value={hold.length} />}
          </>
        )}
        {hold.school === "bolts" && (
          <>
            <Choice label="Bolt" path={`${path}.bolt`} value={hold.bolt} options={BOLTS} />
            <Field label="Bolts per foot" path={`${path}.count`} value={hold.count} />
            {!drawn && <Field label="Bolt length" path={`${path}.length`} value={hold.length} />}
            <Field label="Washer diameter" path={`${path}.washer`} value={hold.washer} />
          </>
        )}
        {hold.school === "one_sided" && (
          <>
            <Choice
              label="Fastener"
              path={`${path}.insert`}
              value={hold.insert}
              options={[
                ["rivet_nut", "rivet nut"],
                ["expanding", "expanding bolt"],
                ["blind_rivet", "blind rivet"],
                ["well_nut", "well nut, rubber"],
              ]}
            />
            {hold.insert === "blind_rivet" ? (
              <Field label="Rivet diameter" path={`${path}.rivet`} value={hold.rivet} />
            ) : (
              <Choice label="Bolt" path={`${path}.bolt`} value={hold.bolt} options={BOLTS} />
            )}
            <Field label="Per foot" path={`${path}.count`} value={hold.count} />
            {!drawn && <Field label="Length" path={`${path}.length`} value={hold.length} />}
            <Field label="One pulls, N" path={`${path}.pull_n`} value={hold.pull_n} placeholder="1500" clearable />
            <Field label="One shears, N" path={`${path}.shear_n`} value={hold.shear_n} placeholder="1200" clearable />
          </>
        )}
        {hold.school === "tape" && (
          <>
            <Choice
              label="Bonded by"
              path={`${path}.bond`}
              value={hold.bond}
              options={[
                ["foam tape", "foam tape"],
                ["adhesive", "elastic adhesive"],
              ]}
            />
            <Field label="Pad length" path={`${path}.pad_length`} value={hold.pad_length} />
            <Field label="Pad width" path={`${path}.pad_width`} value={hold.pad_width} />
            {hold.bond === "adhesive" && (
              <>
                <Field label="Beads side by side" path={`${path}.beads`} value={hold.beads} />
                <Field label="Each wide" path={`${path}.bead`} value={hold.bead} />
              </>
            )}
            {!drawn && (
              <Field
                label={hold.bond === "adhesive" ? "Height of the beads" : "Tape thickness"}
                path={`${path}.thickness`}
                value={hold.thickness}
              />
            )}
            <Field
              label={hold.bond === "adhesive" ? "Cures, hours" : "Dwell, hours"}
              path={`${path}.dwell_h`}
              value={hold.dwell_h}
            />
            <Field
              label="Bears by design, kPa"
              path={`${path}.bears_kpa`}
              value={hold.bears_kpa}
              placeholder={hold.bond === "adhesive" ? "100" : "83"}
              hint="the maker's sheet"
              clearable
            />
            <Field
              label="Roof temperature"
              path={`${path}.temperature`}
              value={hold.temperature}
              placeholder="21 °C"
              clearable
            />
            <Field label="In summer sun" path={`${path}.hottest`} value={hold.hottest} hint="60 light, 85 °C dark" />
            <Choice
              label="Feet on the curve"
              path={`${path}.shaped`}
              value={hold.shaped}
              options={[
                ["flat", "flat, pressed down"],
                ["bent", "bent to it"],
                ["wedged", "wedged"],
                ["padded", "padded"],
              ]}
            />
            <Tick label="edge sealed" path={`${path}.sealed_edge`} value={hold.sealed_edge} />
          </>
        )}
        <BracketFields bracket={hold.bracket} path={`${path}.bracket`} drawn={drawn} />
      </div>
    </Group>
  );
}

/** What stands between a rail and a factory point: nothing is drilled or stuck, the bracket is all. */
export function PointBrackets({ hold, path }: { hold: Hold; path: string }) {
  return (
    <Group title="Brackets on the points">
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <BracketFields bracket={hold.bracket} path={`${path}.bracket`} />
      </div>
    </Group>
  );
}

type BracketProps = { bracket: Hold["bracket"]; path: string; drawn?: boolean };

function BracketFields({ bracket, path, drawn = false }: BracketProps) {
  return (
    <>
      <Choice
        label="Bracket"
        path={`${path}.metal`}
        value={bracket.metal}
        options={[
          ["aluminium", "aluminium"],
          ["stainless", "stainless"],
        ]}
      />
      <Field label="Bracket length" path={`${path}.length`} value={bracket.length} />
      {!drawn && (
        <>
          <Field label="Bracket thickness" path={`${path}.thickness`} value={bracket.thickness} />
          <Field
            label="Lever"
            word="lever"
            path={`${path}.lever`}
            value={bracket.lever}
            hint="frame bolt to fastener"
          />
          <Field label="Toe" word="toe" path={`${path}.toe`} value={bracket.toe} hint="fastener to far edge" />
        </>
      )}
      <Choice label="Frame bolt" path={`${path}.frame_bolt`} value={bracket.frame_bolt} options={BOLTS} />
    </>
  );
}
