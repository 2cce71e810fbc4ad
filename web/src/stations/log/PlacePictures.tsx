/** Pictures and readings of one place, as the record has them; a new picture goes into the record. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { LogEntry } from "../../api/types";
import { useDesk } from "../../job/JobContext";
import type { JobLog } from "../../job/useLog";
import { useTry } from "../../ui/useTry";
import { shrunk } from "./photograph";

const placeOf = (entry: LogEntry): string => ("place" in entry ? entry.place : "");

/** The last reading and the last picture of this place that the record has. */
export function SeenBefore({ where }: { where: string }) {
  const { id } = useDesk();
  const entries =
    useQuery({
      queryKey: ["log", id],
      queryFn: () => unwrap(http.GET("/api/jobs/{job_id}/log", { params: { path: { job_id: id } } })),
    }).data?.entries ?? [];
  const own = entries.map((e) => e.entry).filter((e) => placeOf(e) === where);
  const value = own.findLast((e) => e.kind === "measured");
  const picture = own.findLast((e) => e.kind === "photograph");
  return (
    <div className="text-right">
      {value?.kind === "measured" && (
        <p className="font-semibold">
          {value.what} {value.value}
        </p>
      )}
      {picture?.kind === "photograph" && (
        <a href={`/api/jobs/${id}/attachments/${picture.digest}`} target="_blank" rel="noreferrer">
          <img
            className="max-h-20 border border-hair ml-auto"
            src={`/api/jobs/${id}/attachments/${picture.digest}`}
            alt={`${where}, as seen last`}
          />
        </a>
      )}
    </div>
  );
}

export function Picture({ where, log }: { where: string; log: JobLog }) {
  const [attempt, problem] = useTry();
  return (
    <>
      <label className="act !h-11 cursor-pointer">
        Picture
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          aria-label={`Picture of ${where}`}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) void attempt(async () => log.photograph(await shrunk(file), { text: "", place: where }));
          }}
        />
      </label>
      {problem}
    </>
  );
}
