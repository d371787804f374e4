import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ListChecks, Plus, Trash2 } from "lucide-react";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { client, unwrap } from "../api/client";
import type { DesignItem } from "../api/schema";
import { become, useMe } from "../session/useMe";
import { Dialog } from "../ui/Dialog";
import { Pages } from "../ui/Pages";
import { Trouble } from "../ui/Trouble";
import { Deleted, DELETED } from "./Deleted";
import { Picture } from "./Picture";
import { NewDesign } from "./NewDesign";
import { Phrases } from "./Phrases";

const LIST = ["designs"] as const;

function DeleteDialog({ design, onClose }: { design: DesignItem | null; onClose: () => void }) {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: (id: number) =>
      unwrap(client.DELETE("/api/designs/{design_id}", { params: { path: { design_id: id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: LIST });
      void queries.invalidateQueries({ queryKey: DELETED });
      onClose();
    },
  });
  return (
    <Dialog title={`Delete “${design?.name ?? ""}”?`} open={design !== null} onClose={onClose}>
      <p className="text-sm">
        Its {design?.revision} revisions and its tests go with it, and its testers’ links open nothing. You
        can bring all of it back for 30 days, under “Deleted designs”.
      </p>
      <Trouble error={remove.error} />
      <div className="mt-4 flex gap-2">
        <button type="button" className="button" onClick={() => design && remove.mutate(design.id)}>
          Delete it
        </button>
        <button type="button" className="button-plain" onClick={onClose}>
          Keep it
        </button>
      </div>
    </Dialog>
  );
}

/** A studio's designs. */
export function DesignList() {
  const me = useMe();
  const queries = useQueryClient();
  const [beginning, setBeginning] = useState(false);
  const [deleting, setDeleting] = useState<DesignItem | null>(null);
  const [page, setPage] = useState(1);
  const [search, setSearch] = useState("");
  const wanted = useDeferredValue(search);
  const list = useQuery({
    queryKey: [...LIST, page, wanted],
    queryFn: () => unwrap(client.GET("/api/designs", { params: { query: { page, search: wanted } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const signOut = useMutation({
    mutationFn: () => unwrap(client.POST("/api/sign-out")),
    onSuccess: (data) => {
      become(queries, data);
    },
  });
  return (
    <div className="mx-auto max-w-4xl p-6">
      <header className="mb-8 flex flex-wrap items-baseline justify-between gap-3">
        <p className="font-text text-xl font-semibold">Rillstep</p>
        <p className="text-quiet text-sm">
          {me.data?.studio} · {me.data?.email}{" "}
          <button type="button" className="button-bare" onClick={() => signOut.mutate()}>
            Sign out
          </button>
        </p>
      </header>
      <main>
        <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
          <h1 className="text-3xl">Designs</h1>
          <div className="flex gap-2">
            <Link to="/check" className="button-plain">
              <ListChecks size={16} aria-hidden /> Check a pattern
            </Link>
            <button type="button" className="button" onClick={() => setBeginning(true)}>
              <Plus size={16} aria-hidden /> New design
            </button>
          </div>
        </div>
        <Trouble error={list.error} />
        {list.data?.room && (
          <p role="status" className="bg-mark-soft mt-2 rounded-md px-3 py-2 text-sm">
            {list.data.room}
          </p>
        )}
        {list.data && (list.data.pages > 1 || search !== "") && (
          <input
            className="field mt-2 max-w-80"
            type="search"
            aria-label="Search designs by name"
            placeholder="Search by name"
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
              setPage(1);
            }}
          />
        )}
        {list.data?.total === 0 && search !== "" && (
          <p className="text-quiet mt-4">No design has “{search}” in its name.</p>
        )}
        {list.data?.total === 0 && search === "" && (
          <div className="sheet mt-4 p-8">
            <h2 className="text-xl">Nothing here yet</h2>
            <p className="text-quiet mt-2 max-w-prose">
              Begin with a text of your own, in one size: Rillstep works it stitch by stitch, measures the
              bag, and grades it. Or begin with a ready bag and make it yours.
            </p>
            <button type="button" className="button mt-4" onClick={() => setBeginning(true)}>
              <Plus size={16} aria-hidden /> Begin
            </button>
          </div>
        )}
        <ul className="mt-2 space-y-2">
          {list.data?.designs.map((design) => (
            <li key={design.id} className="sheet flex items-center">
              <Link
                to={`/designs/${design.id}/shape`}
                className="flex min-w-0 flex-1 items-center gap-4 px-4 py-3"
              >
                <Picture src={`/api/designs/${design.id}/picture.svg?revision=${design.revision}`} />
                <span className="min-w-0">
                  <span className="font-text block truncate text-lg font-semibold">{design.name}</span>
                  <span className="text-quiet block truncate text-sm">
                    {design.sizes.length > 0 &&
                      `${design.sizes.length} ${design.sizes.length === 1 ? "size" : "sizes"}: ${design.sizes.join(", ")} · `}
                    revision {design.revision}, {new Date(`${design.saved_at}Z`).toLocaleDateString()}
                  </span>
                </span>
              </Link>
              <button
                type="button"
                className="button-bare mr-2"
                aria-label={`Delete ${design.name}`}
                onClick={() => setDeleting(design)}
              >
                <Trash2 size={17} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
        {list.data && <Pages of={list.data} noun="designs" onTurn={setPage} />}
        <Deleted />
        <Phrases />
      </main>
      <NewDesign open={beginning} onClose={() => setBeginning(false)} />
      <DeleteDialog design={deleting} onClose={() => setDeleting(null)} />
    </div>
  );
}
