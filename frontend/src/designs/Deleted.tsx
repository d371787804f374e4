import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Undo2 } from "lucide-react";
import { client, unwrap } from "../api/client";
import { Trouble } from "../ui/Trouble";

export const DELETED = ["deleted"] as const;

/** What was deleted and can still be brought back; nothing where there is none. */
export function Deleted() {
  const queries = useQueryClient();
  const list = useQuery({
    queryKey: DELETED,
    queryFn: () => unwrap(client.GET("/api/designs/deleted")),
    staleTime: 0,
  });
  const again = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: ["designs"] }),
      queries.invalidateQueries({ queryKey: DELETED }),
    ]);
  const bringBack = useMutation({
    mutationFn: (id: number) =>
      unwrap(
        client.POST("/api/designs/deleted/{deleted_id}/bring-back", { params: { path: { deleted_id: id } } }),
      ),
    onSuccess: again,
  });
  const forget = useMutation({
    mutationFn: (id: number) =>
      unwrap(client.DELETE("/api/designs/deleted/{deleted_id}", { params: { path: { deleted_id: id } } })),
    onSuccess: again,
  });
  if (!list.data?.designs.length) return null;
  return (
    <details className="mt-8">
      <summary className="cursor-pointer text-lg font-semibold">
        Deleted designs ({list.data.designs.length})
      </summary>
      <Trouble error={bringBack.error ?? forget.error} />
      <ul className="mt-2 space-y-1">
        {list.data.designs.map((design) => (
          <li key={design.id} className="flex flex-wrap items-center gap-3">
            <span className="min-w-0 flex-1 truncate">
              {design.name}{" "}
              <span className="text-quiet text-sm">
                kept until {new Date(`${design.until}Z`).toLocaleDateString()}
              </span>
            </span>
            <button
              type="button"
              className="button-plain"
              disabled={bringBack.isPending}
              onClick={() => bringBack.mutate(design.id)}
            >
              <Undo2 size={16} aria-hidden /> Bring {design.name} back
            </button>
            <button
              type="button"
              className="button-bare"
              disabled={forget.isPending}
              onClick={() => forget.mutate(design.id)}
            >
              Forget it now
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}
