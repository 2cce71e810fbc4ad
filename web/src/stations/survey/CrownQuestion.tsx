/** Height, slope and local radius anywhere on the crowned roof, with their uncertainty, asked of the core. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { http, unwrap } from "../../api/client";
import { useDesk, useRevision, useStoredJob, useUnits } from "../../job/JobContext";
import { angle, length } from "../../ui/format";

export function CrownQuestion() {
  const { id } = useDesk();
  const job = useStoredJob();
  const units = useUnits();
  const revision = useRevision();
  const [typed, setTyped] = useState({ x: "", y: "" });
  const [asked, setAsked] = useState<{ x: string; y: string } | null>(null);
  const query = useQuery({
    queryKey: ["crown", id, revision, asked],
    enabled: asked !== null,
    retry: false,
    queryFn: async () => {
      const parse = (text: string) =>
        unwrap(http.POST("/api/calc/quantity.parse", { body: { kind: "length", text, units } }));
      const [x, y] = await Promise.all([parse(asked?.x ?? ""), parse(asked?.y ?? "")]);
      return unwrap(
        http.POST("/api/calc/crown.at", {
          body: {
            length_mm: job.vehicle.roof_length?.mm ?? 0,
            width_mm: job.vehicle.roof_width?.mm ?? 0,
            crown: job.survey.crown,
            x_mm: x.value,
            y_mm: y.value,
          },
        }),
      );
    },
  });
  const spot = query.data;
  return (
    <form
      className="flex flex-wrap items-center gap-2 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.x.trim() && typed.y.trim()) setAsked(typed);
      }}
    >
      {(["x", "y"] as const).map((axis) => (
        <input
          key={axis}
          className="box !w-24"
          aria-label={`Spot, ${axis}`}
          placeholder={axis === "x" ? "x 2.1 m" : "y -60 cm"}
          value={typed[axis]}
          onChange={(event) => setTyped({ ...typed, [axis]: event.target.value })}
        />
      ))}
      <button type="submit" className="act">
        Height, slope, radius there
      </button>
      {query.error && (
        <span role="alert" className="text-signal font-semibold">
          {query.error.message}
        </span>
      )}
      {spot && (
        <span aria-live="polite">
          {length(spot.height_mm, units)} ± {length(1.96 * spot.height_sigma_mm, units)} high, falls{" "}
          {angle(spot.slope_across_deg)} ± {angle(1.96 * spot.slope_across_sigma_deg)} to starboard,{" "}
          {spot.radius_mm
            ? `radius ${(spot.radius_mm / 1000).toFixed(1)} m ± ${((1.96 * (spot.radius_sigma_mm ?? 0)) / 1000).toFixed(1)} m`
            : "flat"}
        </span>
      )}
    </form>
  );
}
