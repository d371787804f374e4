import { useMutation, useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { client, unwrap } from "../api/client";
import type { EditView } from "../api/schema";

const PHRASES = ["phrases"] as const;

/** The phrases that the studio keeps for all its texts. */
export function usePhrases() {
  return useQuery({ queryKey: PHRASES, queryFn: () => unwrap(client.GET("/api/phrases")) });
}

/** What was kept or forgotten changes what is offered to every text, so all of them are asked for anew. */
function changed(queries: QueryClient) {
  for (const queryKey of [PHRASES, ["check"], ["assumptions"], ["work"]])
    void queries.invalidateQueries({ queryKey });
}

/** Keep a phrase no longer; texts that it was written into stay as they are. */
export function useForget() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      unwrap(client.DELETE("/api/phrases/{phrase_id}", { params: { path: { phrase_id: id } } })),
    onSuccess: () => changed(queries),
  });
}

interface Lesson {
  words: string;
  meaning: string;
  /** For all texts of the studio as well. */
  keep: boolean;
}

/** Teach a phrase to a text: the server judges it and says where it is written. */
export function useTeach(text: string, terms: "US" | "UK" | null, onEdit: (edit: EditView) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ words, meaning, keep }: Lesson) => {
      const made = await unwrap(client.POST("/api/teach", { body: { text, terms, words, meaning } }));
      if (keep) await unwrap(client.POST("/api/phrases", { body: { words, meaning } }));
      return made.edit;
    },
    onSuccess: (edit, { keep }) => {
      if (keep) changed(queries);
      onEdit(edit);
    },
  });
}
