import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, unwrap } from "../api/client";
import type { Design } from "../api/schema";

/** The document worked through by the server. The answer before stays until the next is here: nothing flickers. */
export function useWork(document: Design) {
  return useQuery({
    queryKey: ["work", document],
    queryFn: ({ signal }) => unwrap(client.POST("/api/work", { body: { document }, signal })),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
    retry: false,
  });
}
