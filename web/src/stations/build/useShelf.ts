/** The shop's items with what jobs keep of them. */
import { useQuery } from "@tanstack/react-query";
import { http, unwrap } from "../../api/client";
import type { OnShelf } from "../../api/types";

export function useShelf(): OnShelf[] {
  return useQuery({ queryKey: ["shelf"], queryFn: () => unwrap(http.GET("/api/shop/items")) }).data ?? [];
}
