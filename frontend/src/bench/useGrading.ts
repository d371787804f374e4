import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, unwrap, whileBusy } from "../api/client";
import type { GradingView, Design } from "../api/schema";

/** How a text can grow. It is found from the text and the sample alone, so targets and locks do not ask for it anew. */
export function useGrading(document: Design | null): {
  data: GradingView | null;
  error: Error | null;
  busy: boolean;
  again: () => void;
} {
  const query = useQuery({
    queryKey: ["grading", document?.text, document?.sample, document?.units],
    queryFn: ({ signal }) => {
      if (!document) throw new Error("a text is asked for");
      return unwrap(client.POST("/api/grading", { body: { document }, signal }));
    },
    enabled: document !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 300_000,
    retry: whileBusy,
  });
  return {
    data: query.data ?? null,
    error: query.error,
    busy: query.isFetching,
    again: () => void query.refetch(),
  };
}
