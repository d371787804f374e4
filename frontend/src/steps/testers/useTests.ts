import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, unwrap } from "../../api/client";

/** The tests of a design with their testers and reports, looked at again from time to time. */
export function useTests(id: number) {
  const key = ["tests", id] as const;
  const queries = useQueryClient();
  const tests = useQuery({
    queryKey: key,
    queryFn: () =>
      unwrap(client.GET("/api/designs/{design_id}/tests", { params: { path: { design_id: id } } })),
    staleTime: 0,
    refetchInterval: 20_000,
  });
  return { tests, refresh: () => void queries.invalidateQueries({ queryKey: key }) };
}
