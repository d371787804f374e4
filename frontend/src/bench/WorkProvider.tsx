import { keepPreviousData, replaceEqualDeep, useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import { useStore } from "zustand";
import { ApiError, client, unwrap, whileBusy } from "../api/client";
import type { Design, WorkView } from "../api/schema";
import { changesSince } from "./changes";
import { BenchContext, StaleContext } from "./context";
import type { DesignStore } from "./store";

/** What was asked to be worked: each document that is asked for has a number of its own. */
interface Asked {
  number: number;
  document: Design;
}

const GIVEN_UP_MS = 4000;

/** What the work does not read: targets, locks, parts and notes do not ask for it anew. */
const BESIDE = new Set<string>([
  "sizes",
  "sample",
  "parts",
  "notes",
  "made_mm",
  "name",
  "terms",
  "hand",
  "weights",
]);

function sameWork(one: Design, other: Design): boolean {
  return (
    one === other ||
    (Object.keys(other) as (keyof Design)[]).every((key) => BESIDE.has(key) || one[key] === other[key])
  );
}

async function worked(store: DesignStore, document: Design, signal: AbortSignal): Promise<WorkView> {
  const { id, base } = store.getState();
  const body = { base: base.revision, changes: changesSince(base.document, document) };
  try {
    return await unwrap(
      client.POST("/api/designs/{design_id}/work", { params: { path: { design_id: id } }, body, signal }),
    );
  } catch (error) {
    // The base was deleted to make room: then all of it is sent.
    if (!(error instanceof ApiError) || ![404, 409].includes(error.problem.status)) throw error;
    if (error.problem.code === "stopped") throw error;
    return unwrap(client.POST("/api/work", { body: { document }, signal }));
  }
}

/**
 * The document worked through by the server as it is changed: in order, one request at a time, the first at once.
 * The last good answer stays until the next is here, also while a field holds something that cannot be worked:
 * nothing flickers, and nothing vanishes.
 */
export function WorkProvider({ store, children }: { store: DesignStore; children: ReactNode }) {
  const document = useStore(store, (state) => state.document);
  const [asked, setAsked] = useState<Asked>({ number: 0, document });
  const query = useQuery({
    queryKey: ["work", store.getState().id, asked.number],
    queryFn: ({ signal }) => worked(store, asked.document, signal),
    placeholderData: keepPreviousData,
    gcTime: 0,
    staleTime: Infinity,
    retry: whileBusy,
  });
  const newer = !sameWork(asked.document, document);
  if (newer && !query.isFetching) setAsked({ number: asked.number + 1, document });
  // What takes long is given up for what stands there now.
  useEffect(() => {
    if (!newer) return;
    const next = () =>
      setAsked(({ number }) => ({ number: number + 1, document: store.getState().document }));
    const timer = setTimeout(next, GIVEN_UP_MS);
    return () => clearTimeout(timer);
  }, [newer, asked, store]);
  const [answer, setAnswer] = useState<WorkView | undefined>(undefined);
  const [work, setWork] = useState<WorkView | null>(null);
  if (query.data !== answer) {
    setAnswer(query.data);
    // Lines that are as they were stay the same objects, and are not drawn again.
    if (query.data) setWork(replaceEqualDeep(work, query.data));
  }
  const { error, refetch } = query;
  const value = useMemo(
    () => ({ store, work, workError: error, workAgain: () => void refetch() }),
    [store, work, error, refetch],
  );
  return (
    <BenchContext value={value}>
      <StaleContext value={newer || query.isPlaceholderData || query.isError}>{children}</StaleContext>
    </BenchContext>
  );
}
