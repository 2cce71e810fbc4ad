/** Letting the phones of the crew in: the door says what it does before it opens, and shows who is inside. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, http, unwrap } from "../../api/client";
import { Group } from "../../fields/Field";
import { useDesk } from "../../job/JobContext";
import { dayWords } from "../days/road";

export function CrewPhones() {
  const { id } = useDesk();
  const cache = useQueryClient();
  const [refusal, setRefusal] = useState<string | null>(null);
  const params = { path: { job_id: id } };
  const today = useQuery({
    queryKey: ["phones", id],
    refetchInterval: 3000,
    queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/phones", { params })),
  }).data;
  const ask = async (work: Promise<unknown>) => {
    try {
      await work;
      setRefusal(null);
    } catch (problem) {
      setRefusal(problem instanceof ApiError ? problem.message : "The server does not answer.");
    }
    await cache.invalidateQueries({ queryKey: ["phones", id] });
  };
  const open = () => ask(unwrap(http.POST("/api/jobs/{job_id}/phones/door", { params, body: {} })));
  const close = () => ask(unwrap(http.DELETE("/api/jobs/{job_id}/phones/door", { params })));
  const sendAway = (phone: string) =>
    ask(
      unwrap(
        http.DELETE("/api/jobs/{job_id}/phones/{phone_id}", { params: { path: { job_id: id, phone_id: phone } } }),
      ),
    );
  if (!today) return null;
  return (
    <Group title="Phones of the crew">
      {today.address === null ? (
        <p className="pb-2">
          Opens this job, and nothing else, to phones in the same local network that type a code. No internet.
        </p>
      ) : (
        <div className="flex gap-4 pb-2">
          {today.qr && (
            <img src={today.qr} alt="Address and code for the phone's camera" className="w-[148px] h-[148px]" />
          )}
          <div aria-live="polite">
            <p className="text-soft">Scan it, or open on the phone</p>
            <p className="font-semibold">{today.address}</p>
            {today.code ? (
              <p className="pt-1">
                <span className="font-sign font-semibold text-[30px] tracking-[0.12em]">{today.code}</span>
                <span className="text-soft block">
                  good for {Math.max(1, Math.round(today.good_for_s / 60))} more minutes
                </span>
              </p>
            ) : (
              <p className="pt-1 font-semibold">The code is over.</p>
            )}
          </div>
        </div>
      )}
      <div className="flex flex-wrap gap-2 pb-2">
        <button type="button" className="act" onClick={() => void open()}>
          {today.address === null ? "Let phones in" : "A new code"}
        </button>
        {today.address !== null && (
          <button type="button" className="act plain" onClick={() => void close()}>
            Shut the door
          </button>
        )}
      </div>
      {refusal && (
        <p role="alert" className="text-signal font-semibold">
          {refusal}
        </p>
      )}
      <ul>
        {today.phones.map((phone) => (
          <li key={phone.id} className="flex items-baseline gap-3 border-b border-hair py-1">
            <span className="font-semibold">{phone.name}</span>
            <span className="text-soft">in since {dayWords(phone.paired_at.slice(0, 10))}</span>
            <button
              type="button"
              className="underline text-[13px] ml-auto"
              aria-label={`Send ${phone.name}'s phone away`}
              onClick={() => void sendAway(phone.id)}
            >
              send away
            </button>
          </li>
        ))}
      </ul>
    </Group>
  );
}
