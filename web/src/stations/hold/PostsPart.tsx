/** Posts under a rack and the plates they stand on. */
import type { Carrier } from "../../api/types";
import { EntryTable } from "../../fields/EntryTable";
import { Choice, Field, Group } from "../../fields/Field";
import { BOLTS } from "./Attachment";
import { SectionFields } from "./SectionFields";

type Rack = Extract<Carrier, { kind: "rack" }>;
type Posts = NonNullable<Rack["posts"]>;
type Outer = Extract<Rack["hold"], { school: "outer_foot" }>;
type Plate = Extract<Rack["hold"], { school: "base_plate" }>;
const ALLOYS = ["1.4301", "6060-T66", "6082-T6", "S235"].map((a) => [a, a] as const);
const CORES = [
  ["solid", "solid laminate or sheet"],
  ["insert", "core, solid inserts"],
  ["foam", "foam core, bare"],
  ["balsa", "balsa core, bare"],
] as const;

export function PostFields({ posts, path }: { posts: Posts; path: string }) {
  return (
    <Group title="Posts">
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <SectionFields section={posts.section} path={`${path}.section`} of="Post" whole />
        <Choice label="Post, metal" path={`${path}.alloy`} value={posts.alloy} options={ALLOYS} />
        <Field
          label="Somebody hangs on, N"
          path={`${path}.grab_n`}
          value={posts.grab_n}
          hint="0 where nobody can reach"
        />
        <Field
          label="Connector takes, N·m"
          path={`${path}.joint_nm`}
          value={posts.joint_nm}
          placeholder="welded"
          clearable
        />
        {posts.joint_nm !== null && (
          <Field
            label="Connector pulls, N"
            path={`${path}.joint_n`}
            value={posts.joint_n}
            placeholder="not known"
            hint="along the tube, by its maker"
            clearable
          />
        )}
      </div>
      <div className="max-w-[420px] pt-1.5">
        <EntryTable
          path={`${path}.places`}
          noun="post"
          columns={[{ key: "x", label: "x of its middle, under every rail", placeholder: "1250 mm" }]}
          entries={posts.places}
          empty=""
        />
      </div>
    </Group>
  );
}

export function OuterFeet({ foot, path }: { foot: Outer; path: string }) {
  return (
    <Group title="Feet beside the roof">
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <Choice
          label="Feet stand on"
          path={`${path}.on`}
          value={foot.on}
          options={[
            ["gutter", "gutters"],
            ["chassis", "chassis"],
          ]}
        />
        <Field label="Under the roof by" path={`${path}.below`} value={foot.below} />
        <Choice label="Bolts of a post" path={`${path}.bolt`} value={foot.bolt} options={BOLTS} />
        <Field label="Rated pull of one, N" path={`${path}.pull_n`} value={foot.pull_n} placeholder="600" clearable />
        <Field label="Rated along, N" path={`${path}.along_n`} value={foot.along_n} placeholder="400" clearable />
      </div>
    </Group>
  );
}

export function BasePlates({ plate, path }: { plate: Plate; path: string }) {
  return (
    <Group title="Base plates through the deck">
      <div className="grid grid-cols-2 sm:grid-cols-4 lg:grid-cols-6 gap-x-4 gap-y-1.5">
        <Field label="Plate, side" path={`${path}.plate`} value={plate.plate} />
        <Field label="Plate, thick" path={`${path}.thickness`} value={plate.thickness} />
        <Choice
          label="Plate, metal"
          path={`${path}.metal`}
          value={plate.metal}
          options={[
            ["stainless", "stainless"],
            ["aluminium", "aluminium"],
          ]}
        />
        <Choice label="Bolt" path={`${path}.bolt`} value={plate.bolt} options={BOLTS} />
        <Field label="Bolts per plate" path={`${path}.count`} value={plate.count} hint="4, 6 or 8" />
        <Field label="Bolt length" path={`${path}.length`} value={plate.length} />
        <Field label="Backing plate, side" path={`${path}.backing`} value={plate.backing} />
        <Field label="Backing plate, thick" path={`${path}.backing_thickness`} value={plate.backing_thickness} />
        <Choice label="Deck at the bolts" path={`${path}.core`} value={plate.core} options={CORES} />
      </div>
    </Group>
  );
}
