import { useQuery } from "@tanstack/react-query";
import { client, unwrap } from "../api/client";
import { Help } from "../ui/Help";

/** What a kind of finding means and what to do about it, from the catalogue. */
export function WhatIsIt({ code }: { code: string }) {
  const catalogue = useQuery({
    queryKey: ["findings"],
    queryFn: () => unwrap(client.GET("/api/findings")),
    staleTime: Infinity,
  });
  const entry = catalogue.data?.find((one) => one.code === code);
  if (!entry) return null;
  return (
    <Help term={entry.title}>
      {entry.meaning} <em>{entry.way_out}</em>
    </Help>
  );
}
