import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap, whileBusy } from "../api/client";
import type { AssumptionsView, LineView } from "../api/schema";
import { useSettled } from "../ui/useSettled";
import { useTeaching } from "./teaching";

// Words are tried by working the text with each meaning: not at every key, but when typing rests.
const REST_MS = 900;

/** What the unknown words of a text may mean, once typing rests; null for a text of which nothing is asked. */
export function useAssumptions(
  text: string,
  terms: "US" | "UK" | null,
  lines: readonly LineView[],
): AssumptionsView | null {
  const rested = useSettled(text, REST_MS);
  const open = lines.some((line) => ["not understood", "unchecked", "wrong"].includes(line.mark));
  const body = { text: rested, terms };
  const query = useQuery({
    queryKey: ["assumptions", body],
    queryFn: ({ signal }) => unwrap(client.POST("/api/assumptions", { body, signal })),
    enabled: open && rested.trim() !== "" && rested === text,
    retry: whileBusy,
  });
  const next = rested === text && query.data && query.data.questions.length > 0 ? query.data : null;
  const teaching = useTeaching();
  const [shown, setShown] = useState<{ text: string; answer: AssumptionsView | null }>({
    text,
    answer: null,
  });
  if (!teaching && (shown.text !== text || shown.answer !== next)) setShown({ text, answer: next });
  return shown.text === text ? shown.answer : null;
}
