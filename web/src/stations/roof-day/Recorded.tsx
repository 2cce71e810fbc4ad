/** Torques that were read, and records of feet that the plan has no more: each can be taken back. */
import type { Edit } from "../../api/types";
import { useDesk, useFinding, useStoredJob, useUnits } from "../../job/JobContext";
import { torque } from "../../ui/format";
import { useTry } from "../../ui/useTry";
import { TORQUE_WORDS } from "./torqueWords";

export function Recorded() {
  const { handle } = useDesk();
  const units = useUnits();
  const { feet } = useStoredJob().built;
  const there = new Set(useFinding("as_built").map((one) => one.id));
  const torques = useFinding("torques");
  const [attempt, problem] = useTry();
  const takeBack = (edit: Edit) => void attempt(async () => void (await handle.edit([edit])));
  const gone = feet.filter((one) => !there.has(one.id));
  if (!torques.length && !gone.length) return null;
  return (
    <>
      <ul aria-label="Records">
        {torques.map((one) => (
          <Row
            key={one.id}
            where={`${one.where}, ${one.bolt}`}
            bad={one.state !== "right"}
            words={`${torque(one.read_n_m, units)}, ${TORQUE_WORDS[one.state]}`}
            remove={() => takeBack({ op: "remove", path: `built.torques.${one.id}` })}
          />
        ))}
        {gone.map((one) => (
          <Row
            key={one.id}
            where={`${one.holder} ${one.foot}`}
            bad
            words="the plan has no such foot"
            remove={() => takeBack({ op: "forget_foot", holder: one.holder, foot: one.foot })}
          />
        ))}
      </ul>
      {problem}
    </>
  );
}

function Row({ where, words, bad, remove }: { where: string; words: string; bad: boolean; remove: () => void }) {
  return (
    <li className="flex items-baseline gap-3 border-b border-hair py-1">
      <span className="font-semibold">{where}</span>
      <span className={bad ? "text-signal font-semibold" : ""}>{words}</span>
      <button
        type="button"
        className="underline text-[13px] ml-auto min-h-[24px]"
        aria-label={`Take back the record: ${where}`}
        onClick={remove}
      >
        take back
      </button>
    </li>
  );
}
