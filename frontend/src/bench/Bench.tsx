import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Outlet, useLocation, useParams } from "react-router";
import { client, unwrap } from "../api/client";
import type { DesignView } from "../api/schema";
import { NothingHere } from "../ui/NothingHere";
import { Trouble } from "../ui/Trouble";
import { BenchContext, type Selection } from "./context";
import { renewDraft } from "./draft";
import { Header } from "./Header";
import { SidePanel } from "./SidePanel";
import { Stones } from "./Stones";
import { useDesign } from "./useDesign";
import { useWork } from "./useWork";

/** The workbench of one design: stepping stones, the step, and reasons and findings beside it. */
export function Bench() {
  const id = Number(useParams()["id"]);
  const opened = useQuery({
    queryKey: ["design", id],
    queryFn: async () => {
      await renewDraft(id);
      return unwrap(client.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } }));
    },
    enabled: Number.isInteger(id),
    staleTime: 0,
    gcTime: 0,
    retry: false,
  });
  if (!Number.isInteger(id)) return <NothingHere />;
  if (opened.error) {
    return (
      <main className="p-10">
        <Trouble error={opened.error} />
      </main>
    );
  }
  if (!opened.data) return <main className="text-quiet p-10">Opening the design…</main>;
  return <OpenBench key={id} opened={opened.data} />;
}

function isTyping(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest(".cm-editor, textarea") !== null;
}

function OpenBench({ opened }: { opened: DesignView }) {
  const design = useDesign(opened);
  const work = useWork(design.document);
  const [selection, select] = useState<Selection | null>(null);
  const { pathname, search } = useLocation();
  const step = pathname.split("/").at(-1) ?? "";
  const { undo, redo } = design;

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") select(null);
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z" || isTyping(event.target))
        return;
      event.preventDefault();
      if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);

  useEffect(() => {
    document.title = `${design.document.name} – Rillstep`;
  }, [design.document.name]);

  const value = {
    design,
    work: work.data,
    workError: work.error,
    workAgain: work.again,
    workStale: work.stale,
    selection,
    select,
  };
  // The text beside its proof has its own findings, and needs the room.
  const editing = step === "words" && new URLSearchParams(search).get("view") === "edit";
  const withPanel = step !== "testers" && step !== "parts" && !editing;
  return (
    <BenchContext.Provider value={value}>
      <a
        href="#step"
        className="bg-rill text-rill-ink sr-only rounded p-2 focus:not-sr-only focus:absolute focus:z-40"
      >
        To the step
      </a>
      {/* In a narrow window, as at 200 %, the columns stack and the page scrolls; else each column by itself. */}
      <div className="flex min-h-screen flex-col lg:h-screen">
        <Header />
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <Stones />
          <main
            id="step"
            tabIndex={-1}
            className="min-w-0 flex-1 px-3 py-4 focus:outline-none lg:overflow-auto lg:px-5"
          >
            <Outlet />
          </main>
          {withPanel && <SidePanel withText={step !== "words"} />}
        </div>
      </div>
    </BenchContext.Provider>
  );
}
