import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, unwrap, whileBusy } from "../api/client";

/** A text is checked as it is typed; the answer before stays until the next is here. */
export function useCheck(text: string, terms: "US" | "UK" | null) {
  const body = { text, terms };
  return useQuery({
    queryKey: ["check", body],
    queryFn: ({ signal }) => unwrap(client.POST("/api/check", { body, signal })),
    enabled: text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
}
