import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FileUp, PenLine } from "lucide-react";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { ApiError, client, unwrap, upload } from "../api/client";
import type { DesignView } from "../api/schema";
import { Dialog } from "../ui/Dialog";
import { Trouble } from "../ui/Trouble";
import { Picture } from "./Picture";

const LARGEST_BYTES = 3_000_000;

async function readFile(file: File): Promise<DesignView> {
  if (file.size > LARGEST_BYTES) {
    throw new ApiError({
      code: "too-large",
      status: 413,
      title: "This file is larger than 3 MB; a design file is far smaller. Choose another file.",
      faults: [],
      revision: null,
    });
  }
  return upload<DesignView>("/api/designs/import", await file.text());
}

function useReady(open: boolean) {
  return useQuery({
    queryKey: ["ready"],
    queryFn: () => unwrap(client.GET("/api/designs/ready")),
    enabled: open,
    staleTime: Infinity,
  });
}

/** What a new design begins with: a text of one's own, a design file, or a ready bag. */
export function NewDesign({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const ready = useReady(open);
  const make = useMutation({
    mutationFn: (begin: () => Promise<DesignView>) => begin(),
    onSuccess: (design) => {
      void queries.invalidateQueries({ queryKey: ["designs"] });
      void navigate(`/designs/${design.id}/sizes`);
    },
  });
  return (
    <Dialog title="What do you begin with?" open={open} onClose={onClose} wide>
      <Trouble error={make.error ?? ready.error} />
      <div className="grid gap-3 sm:grid-cols-2">
        <button type="button" className="choice" onClick={() => void navigate("/check")}>
          <span className="flex items-center gap-2 font-semibold">
            <PenLine size={16} aria-hidden /> A text of my own
          </span>
          <span className="text-quiet text-sm">
            Paste a pattern as you wrote it, in one size or several. It is checked before you keep it.
          </span>
        </button>
        <button type="button" className="choice" onClick={() => file.current?.click()}>
          <span className="flex items-center gap-2 font-semibold">
            <FileUp size={16} aria-hidden /> A design file
          </span>
          <span className="text-quiet text-sm">A file that was saved from a design before.</span>
        </button>
      </div>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        className="sr-only"
        aria-label="A design file"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) make.mutate(() => readFile(chosen));
          event.target.value = "";
        }}
      />
      <h3 className="mt-5 text-lg">Or a ready bag, to make it yours</h3>
      <ul className="mt-2 grid gap-2 sm:grid-cols-2">
        {ready.data?.bags.map((bag) => (
          <li key={bag.key}>
            <button
              type="button"
              className="choice h-full w-full"
              disabled={make.isPending}
              onClick={() =>
                make.mutate(() =>
                  unwrap(client.POST("/api/designs/ready/{key}", { params: { path: { key: bag.key } } })),
                )
              }
            >
              <span className="flex items-center gap-3">
                <Picture src={`/api/designs/ready/${bag.key}/picture.svg`} />
                <span>
                  <span className="block font-semibold">{bag.title}</span>
                  <span className="text-quiet text-sm">{bag.build}</span>
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
