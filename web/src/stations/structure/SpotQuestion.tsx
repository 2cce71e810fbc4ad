/** Any spot on the roof: what it is like there, asked of the core. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { length } from "../../ui/format";

export function SpotQuestion() {
  const { id } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const revision = useRevision();
  const [typed, setTyped] = useState("");
  const [asked, setAsked] = useState<string | null>(null);
  const query = useQuery({
    queryKey: ["spot", id, revision, asked],
    enabled: asked !== null,
    retry: false,
    queryFn: async () => {
      const place = await unwrap(
        http.POST("/api/calc/quantity.parse", { body: { kind: "length", text: asked ?? "", units } }),
      );
      return unwrap(
        http.POST("/api/calc/bay.spot", {
          body: { job: job as unknown as Record<string, unknown>, x_mm: place.value },
        }),
      );
    },
  });
  const spot = query.data;
  return (
    <form
      className="flex flex-wrap items-center gap-2 pb-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim()) setAsked(typed);
      }}
    >
      <label className="label" htmlFor="spot">
        Any spot, x
      </label>
      <input
        id="spot"
        className="box !w-32"
        placeholder="1.85 m"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <button type="submit" className="act">
        Judge it
      </button>
      {query.error && (
        <span role="alert" className="text-signal font-semibold">
          {query.error.message}
        </span>
      )}
      {spot && (
        <span aria-live="polite">
          {spot.nearest_mm === null || spot.nearest_mm === undefined
            ? "No member known near it. "
            : `${length(spot.nearest_mm, units)} from the nearest member; `}
          {spot.stiffness_n_mm
            ? `gives ${length(100 / spot.stiffness_n_mm, units)} under 100 N; drumming ${spot.drumming}. `
            : ""}
          <span className="font-semibold">
            {spot.ranking
              .filter((way) => way.rank)
              .map((way) => `${way.rank} ${way.way}`)
              .join(", ") || "Nothing may be fastened here yet."}
          </span>
        </span>
      )}
    </form>
  );
}
