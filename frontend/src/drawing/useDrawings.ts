import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, unwrap, whileBusy } from "../api/client";
import type { Design, DrawingsView } from "../api/schema";

/** The drawings of a design. They follow from its text, its units, and how it is carried. */
export function useDrawings(document: Design): {
  data: DrawingsView | null;
  error: Error | null;
  stale: boolean;
} {
  const query = useQuery({
    queryKey: ["drawings", document.text, document.units, document.carried],
    queryFn: ({ signal }) => unwrap(client.POST("/api/drawings", { body: { document }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: whileBusy,
  });
  return { data: query.data ?? null, error: query.error, stale: query.isPlaceholderData };
}
