import { useQuery } from "@tanstack/react-query";
import { client, unwrap } from "../api/client";
import type { CraftView } from "../api/schema";

/** Usual values of the craft and limits, as the server has them; undefined until they are here. */
export function useCraft(): CraftView | undefined {
  return useQuery({
    queryKey: ["craft"],
    queryFn: () => unwrap(client.GET("/api/craft")),
    staleTime: Infinity,
  }).data;
}
