import { keepPreviousData, queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap, whileBusy } from "../../api/client";
import type { Design, GradedView } from "../../api/schema";
import { useSettled } from "../../ui/useSettled";

// A number that is still being typed is not graded to.
const SETTLED_MS = 120;

const wantedOf = (document: Design) => JSON.stringify([document.sizes, document.weights]);

/** A document graded to its targets; asked for once, whoever asks. */
function graded(document: Design) {
  const { text, sample, units, carried } = document;
  return queryOptions({
    queryKey: ["graded", text, sample, units, carried, wantedOf(document)],
    queryFn: ({ signal }) => unwrap(client.POST("/api/grading/sizes", { body: { document }, signal })),
    staleTime: Infinity,
    gcTime: 300_000,
    retry: whileBusy,
  });
}

/** Asks for a document graded to its targets: what is under way already is waited for. */
export function useGraded(): (document: Design) => Promise<GradedView> {
  const queries = useQueryClient();
  return (document) => queries.query(graded(document));
}

/**
 * What the sizes come to while targets are changed; nothing of the text is changed by it. It begins with the first
 * change of a target since the step was opened.
 */
export function useLiveGrading(
  full: Design,
  possible: boolean,
): { graded: GradedView | null; busy: boolean; stale: boolean; error: Error | null; again: () => void } {
  const wanted = wantedOf(full);
  const [opened] = useState(wanted);
  const settled = useSettled(wanted, SETTLED_MS);
  const query = useQuery({
    ...graded(full),
    enabled: possible && settled !== opened && settled === wanted,
    placeholderData: keepPreviousData,
  });
  return {
    graded: wanted === opened ? null : (query.data ?? null),
    busy: query.isFetching,
    stale: query.isPlaceholderData || query.isError || settled !== wanted,
    error: wanted === opened ? null : query.error,
    again: () => void query.refetch(),
  };
}
