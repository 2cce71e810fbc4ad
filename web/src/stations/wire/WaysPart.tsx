/** Every way to plug the panels together, ranked over the year under this roof's own shadows. */
import type { GroupingFinding } from "../../api/types";
import { Group } from "../../fields/Field";
import { useDesk, useRevision, useStoredJob } from "../../job/JobContext";
import { useLookedAt } from "../../job/useSlow";
import { useTry } from "../../ui/useTry";
import { AMPS, newId } from "./words";

type Way = GroupingFinding["ways"][number];

export function WaysPart() {
  const { id } = useDesk();
  const revision = useRevision();
  const work = useLookedAt(id, "groupings", revision);
  const found = work.growing?.result ?? work.data?.result ?? null;
  return (
    <>
      {work.isError && (
        <p role="alert" className="text-signal font-semibold max-w-[70ch]">
          {work.error.message}
        </p>
      )}
      {work.isFetching && (
        <p className="text-[13px]" aria-live="polite">
          working: {work.doing || "light of the year"} …
        </p>
      )}
      {found && <Ways found={found} />}
    </>
  );
}

function Ways({ found }: { found: GroupingFinding }) {
  const best = found.ways[0]?.year_kwh ?? 0;
  return (
    <Group
      title="Ways to plug, best first"
      aside={
        <span className="text-[13px]">
          {found.worked.toLocaleString("en")} worked
          {found.all_tried
            ? ": all there are; none gives half a per cent more"
            : ": even strings of neighbours, not all there are"}
        </span>
      }
    >
      <p className="max-w-[80ch] pb-1.5 text-[16px]">{found.reason}</p>
      {found.left_out.length > 0 && (
        <p className="pb-1 font-semibold">Left out, their sheets give no curve: {found.left_out.join(", ")}.</p>
      )}
      {found.ways.length === 0 && <p>Nothing fits these controllers.</p>}
      {found.ways.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>plugged</th>
              <th className="!text-right">a year</th>
              <th className="!text-right">behind</th>
              <th className="!text-right">December day</th>
              <th className="!text-right">most shade</th>
              <th className="!text-right">mixing costs</th>
              <th className="!text-right">spare volts</th>
              <th className="!text-right">cable carries</th>
              <th className="!text-right">and loses</th>
              <th>
                <span className="sr-only">take</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {found.own && <Row way={found.own} best={best} title="as the job has it" />}
            {found.ways.map((way) => (
              <Row key={JSON.stringify(way.strings)} way={way} best={best} />
            ))}
          </tbody>
        </table>
      )}
      {found.worst_words && (
        <p className="text-[13px] pt-1.5 max-w-[80ch]">
          Most shade: {found.worst_words}, watts then. Each panel by itself at its best would give{" "}
          {Math.round(found.alone_kwh).toLocaleString("en")} kWh. Mixing costs: what panels take from one another, and
          what the controller does not take.
        </p>
      )}
    </Group>
  );
}

function Row({ way, best, title }: { way: Way; best: number; title?: string }) {
  const { handle } = useDesk();
  const job = useStoredJob();
  const [attempt, problem] = useTry();
  const names = new Map(job.panels.map((p) => [p.id, p.name]));
  const plug = () =>
    attempt(async () => {
      const value = way.strings.map((s) => ({ id: newId("s"), controller: s.controller, panels: s.panels }));
      await handle.edit([{ op: "set", path: "wiring.strings", value }]);
    });
  const behind = best ? (1 - way.year_kwh / best) * 100 : 0;
  return (
    <tr className={way.own ? "bg-tape/40" : ""}>
      <td>
        <span className="font-semibold">{title ? `${way.words}, ${title}` : way.words}</span>
        <span className="block text-[13px]">
          {way.strings.map((s) => s.panels.map((p) => names.get(p) ?? p).join(" — ")).join("  |  ")}
        </span>
        {problem}
      </td>
      <td className="num font-semibold whitespace-nowrap">{way.year_kwh.toFixed(0)} kWh</td>
      <td className="num">{behind >= 0.05 ? `${behind.toFixed(1)} %` : "–"}</td>
      <td className="num whitespace-nowrap">{Math.round(way.december_wh)} Wh</td>
      <td className="num">{Math.round(way.worst_w)} W</td>
      <td className="num">{way.lost_percent.toFixed(1)} %</td>
      <td className="num">{way.spare_v_percent === null ? "not known" : `${way.spare_v_percent.toFixed(0)} %`}</td>
      <td className="num">
        {way.pairs} × {AMPS(way.carried_a)}
      </td>
      <td className="num whitespace-nowrap">{way.cable_kwh === null ? "?" : `${way.cable_kwh.toFixed(0)} kWh`}</td>
      <td className="num">
        {!way.own && (
          <button type="button" className="act !h-[30px] whitespace-nowrap" onClick={() => void plug()}>
            Plug it so
          </button>
        )}
      </td>
    </tr>
  );
}
