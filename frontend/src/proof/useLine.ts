import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, unwrap, whileBusy } from "../api/client";
import type { LineBody } from "../api/schema";

/** One line of a text in one size, and how it is shown. */
export type LineAsked = Omit<Required<LineBody>, "terms"> & { terms: "US" | "UK" | null };

/** The trace of a line; the one before stays until the next is here. */
export function useTrace(asked: LineAsked) {
  return useQuery({
    queryKey: ["trace", asked],
    queryFn: ({ signal }) => unwrap(client.POST("/api/trace", { body: asked, signal })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
}

/** The stitch chart of a line. */
export function useChart(asked: LineAsked) {
  return useQuery({
    queryKey: ["chart", asked],
    queryFn: ({ signal }) => unwrap(client.POST("/api/chart", { body: asked, signal })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
}
