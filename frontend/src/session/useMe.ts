import { useQuery, type QueryClient } from "@tanstack/react-query";
import { client, setCsrf, unwrap } from "../api/client";
import type { MeView } from "../api/schema";
import { setAccount } from "./kept";

export const ME = ["me"] as const;

/** Keep the token and the account that came with an answer about who is signed in. */
export function remember(me: MeView): MeView {
  setCsrf(me.csrf);
  setAccount(me.account);
  return me;
}

export function useMe() {
  return useQuery({ queryKey: ME, queryFn: async () => remember(await unwrap(client.GET("/api/me"))) });
}

/** Somebody else is here, or nobody: what was known of the one before is forgotten. */
export function become(queries: QueryClient, me: MeView): void {
  // Not cleared as a whole: pages that are open watch who is signed in.
  queries.setQueryData(ME, remember(me));
  queries.removeQueries({ predicate: (query) => query.queryKey[0] !== ME[0] });
}
