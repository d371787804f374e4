import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap, whileBusy } from "../api/client";
import type { Design, WorkView } from "../api/schema";

/**
 * The document worked through by the server. The last good answer stays until the next is here, also
 * while a field holds something that cannot be worked: nothing flickers, and nothing vanishes.
 */
export function useWork(document: Design): {
  data: WorkView | null;
  error: Error | null;
  stale: boolean;
  again: () => void;
} {
  const query = useQuery({
    queryKey: ["work", document],
    queryFn: ({ signal }) => unwrap(client.POST("/api/work", { body: { document }, signal })),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
    retry: whileBusy,
  });
  const [last, setLast] = useState<WorkView | null>(null);
  if (query.data && query.data !== last) setLast(query.data);
  return {
    data: query.data ?? last,
    error: query.error,
    stale: query.isPlaceholderData || query.isError,
    again: () => void query.refetch(),
  };
}
