import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../api/client";
import type { RevisionView } from "../api/schema";
import { Dialog } from "../ui/Dialog";
import { LinesChanged } from "../ui/LinesChanged";
import { Pages } from "../ui/Pages";
import { Trouble } from "../ui/Trouble";
import { useOpenDesign } from "./context";

const time = (iso: string) =>
  new Date(`${iso}Z`).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

function differs({ changes, lines }: RevisionView): string {
  const said = [
    ...(changes.length > 0 ? [`${changes.length} ${changes.length === 1 ? "field" : "fields"}`] : []),
    ...(lines.length > 0 ? [`the text in ${lines.length} ${lines.length === 1 ? "place" : "places"}`] : []),
  ];
  return said.length === 0 ? "nothing differs" : `what differs is ${said.join(", and ")}`;
}

/** Every save is a revision: look at what differs, and bring one back. */
export function Revisions({ open, onClose }: { open: boolean; onClose: () => void }) {
  const design = useOpenDesign();
  const queries = useQueryClient();
  const [chosen, setChosen] = useState<number | null>(null);
  const [page, setPage] = useState(1);
  const [forgetting, setForgetting] = useState(false);
  const path = { design_id: design.id };
  const list = useQuery({
    queryKey: ["revisions", design.id, design.revision, page],
    queryFn: () =>
      unwrap(client.GET("/api/designs/{design_id}/revisions", { params: { path, query: { page } } })),
    placeholderData: keepPreviousData,
    enabled: open,
  });
  const one = useQuery({
    queryKey: ["revision", design.id, chosen, design.revision],
    queryFn: () =>
      unwrap(
        client.GET("/api/designs/{design_id}/revisions/{number}", {
          params: { path: { ...path, number: chosen ?? 0 } },
        }),
      ),
    enabled: open && chosen !== null,
  });
  const restore = useMutation({
    mutationFn: async (number: number) => {
      await design.flush();
      await unwrap(
        client.POST("/api/designs/{design_id}/revisions/{number}/restore", {
          params: { path: { ...path, number } },
          body: { base: design.revision },
        }),
      );
      await design.reload();
    },
    onSuccess: onClose,
  });
  const forget = useMutation({
    mutationFn: (before: number) =>
      unwrap(client.DELETE("/api/designs/{design_id}/revisions", { params: { path, query: { before } } })),
    onSuccess: async () => {
      setForgetting(false);
      setPage(1);
      await queries.invalidateQueries({ queryKey: ["revisions", design.id] });
    },
  });
  return (
    <Dialog title="Revisions" open={open} onClose={onClose} wide>
      <Trouble error={list.error ?? one.error ?? restore.error ?? forget.error} />
      {list.data?.room && <p className="bg-mark-soft mb-2 rounded-md px-3 py-2 text-sm">{list.data.room}</p>}
      <div className="grid grid-cols-[15rem_1fr] gap-4">
        <div>
          <ul className="max-h-96 overflow-auto" aria-label="Revisions, the newest first">
            {list.data?.revisions.map((revision) => (
              <li key={revision.number}>
                <button
                  type="button"
                  aria-pressed={chosen === revision.number}
                  className={`w-full rounded px-2 py-1 text-left text-sm ${chosen === revision.number ? "bg-mark-soft" : "hover:bg-bank"}`}
                  onClick={() => setChosen(revision.number)}
                >
                  <strong>{revision.number}</strong> · {time(revision.saved_at)}
                  {revision.note && <span className="text-quiet block">{revision.note}</span>}
                </button>
              </li>
            ))}
          </ul>
          {list.data && <Pages of={list.data} noun="revisions" onTurn={setPage} />}
        </div>
        <div className="max-h-96 overflow-auto text-sm">
          {chosen === null && <p className="text-quiet">Choose a revision to see what has changed since.</p>}
          {one.data && (
            <>
              <div className="mb-2 flex items-center justify-between gap-2">
                <p>
                  Revision {one.data.number} against {design.revision}: {differs(one.data)}
                </p>
                <button
                  type="button"
                  className="button"
                  disabled={one.data.changes.length + one.data.lines.length === 0 || restore.isPending}
                  onClick={() => restore.mutate(one.data.number)}
                >
                  Bring it back
                </button>
              </div>
              <p className="mb-2">
                {forgetting ? (
                  <>
                    All revisions before {one.data.number} are deleted, for good. Tests keep their own text.{" "}
                    <button
                      type="button"
                      className="button"
                      disabled={forget.isPending}
                      onClick={() => chosen !== null && forget.mutate(chosen)}
                    >
                      Delete them
                    </button>{" "}
                    <button type="button" className="button-plain" onClick={() => setForgetting(false)}>
                      Keep them
                    </button>
                  </>
                ) : (
                  <button type="button" className="button-bare" onClick={() => setForgetting(true)}>
                    Delete the revisions before this one…
                  </button>
                )}
              </p>
              {one.data.changes.length > 0 && (
                <table className="w-full text-left">
                  <thead>
                    <tr className="text-quiet">
                      <th className="font-normal">field</th>
                      <th className="font-normal">then</th>
                      <th className="font-normal">now</th>
                    </tr>
                  </thead>
                  <tbody>
                    {one.data.changes.slice(0, 200).map((change) => (
                      <tr key={change.field} className="border-line border-t align-top">
                        <th scope="row" className="pr-2 text-left font-normal">
                          {change.field}
                        </th>
                        <td className="max-w-40 truncate pr-2">{change.before || "–"}</td>
                        <td className="max-w-40 truncate">{change.after || "–"}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              )}
              {one.data.lines.length > 0 && (
                <>
                  <h3 className="mt-3 text-base">Lines of the text: then, and now</h3>
                  <LinesChanged label="Lines that differ" changes={one.data.lines} />
                </>
              )}
            </>
          )}
        </div>
      </div>
    </Dialog>
  );
}
