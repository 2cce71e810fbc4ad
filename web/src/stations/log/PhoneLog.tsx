/** The look on a phone: place by place, one thumb. */
import { useDesk } from "../../job/JobContext";
import { useLog } from "../../job/useLog";
import { GoRound } from "./GoRound";

export function PhoneLog() {
  const { id } = useDesk();
  const log = useLog(id);
  return (
    <section className="flex-1 min-h-0 overflow-y-auto py-3" aria-label="Still tight?">
      <h2 className="text-[28px] leading-[1.1] pb-1">Still tight?</h2>
      <p className="border-l-[6px] border-signal pl-3 mb-2 text-[17px] font-semibold text-signal">
        Ladder on firm ground, second person below. The roof may not bear you.
      </p>
      <GoRound />
      {log.waiting > 0 && <p className="text-soft pt-2">{log.waiting} not stored yet: kept on this phone.</p>}
    </section>
  );
}
