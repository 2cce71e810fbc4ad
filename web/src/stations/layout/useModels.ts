/** Every model a job can use: its own copies, the shop's, and the invented ones to start from. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { Catalogue, PanelModel } from "../../api/types";
import { useStoredJob } from "../../job/JobContext";

export function useCatalogue(): Catalogue | undefined {
  return useQuery({
    queryKey: ["catalogue"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => unwrap(http.GET("/api/catalogue")),
  }).data;
}

export function useShop(): PanelModel[] {
  return useQuery({ queryKey: ["shop"], queryFn: () => unwrap(http.GET("/api/shop/panels")) }).data ?? [];
}

export type Offered = { model: PanelModel; from: "job" | "shop" | "start" };

/** One entry for each name; the job's own copy comes before the shop's, that before the one to start from. */
export function useModels(): Offered[] {
  const job = useStoredJob();
  const catalogue = useCatalogue();
  const shop = useShop();
  const all: Offered[] = [
    ...job.own_models.map((model) => ({ model, from: "job" as const })),
    ...shop.map((model) => ({ model, from: "shop" as const })),
    ...(catalogue?.panels ?? []).map((model) => ({ model, from: "start" as const })),
  ];
  return all.filter((entry, i) => all.findIndex((other) => other.model.name === entry.model.name) === i);
}

/** A model of the shop is copied into the job before it is used, so that the shop's later changes do not reach the job. */
export function copyEdits(entry: Offered) {
  return entry.from === "shop" ? [{ op: "add" as const, path: "own_models", value: entry.model }] : [];
}
