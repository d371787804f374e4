import { useQuery } from "@tanstack/react-query";
import { memo, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { Outlet, useLocation, useParams } from "react-router";
import { useStore } from "zustand";
import { client, unwrap } from "../api/client";
import type { DesignView } from "../api/schema";
import { NothingHere } from "../ui/NothingHere";
import { Trouble } from "../ui/Trouble";
import { SelectionContext, type Selection } from "./context";
import { renewDraft } from "./draft";
import { Header } from "./Header";
import { SidePanel } from "./SidePanel";
import { Stones } from "./Stones";
import { createDesignStore, type DesignStore } from "./store";
import { WorkProvider } from "./WorkProvider";

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

/** What is selected, for drawing, table and text together; Esc ends it. */
function SelectionProvider({ children }: { children: ReactNode }) {
  const [selection, select] = useState<Selection | null>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") select(null);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const value = useMemo(() => ({ selection, select }), [selection]);
  return <SelectionContext value={value}>{children}</SelectionContext>;
}

function OpenBench({ opened }: { opened: DesignView }) {
  const [store] = useState(() => createDesignStore(opened));
  return (
    <WorkProvider store={store}>
      <SelectionProvider>
        <Steps store={store} />
      </SelectionProvider>
    </WorkProvider>
  );
}

const Steps = memo(function Steps({ store }: { store: DesignStore }) {
  const { pathname, search } = useLocation();
  const step = pathname.split("/").at(-1) ?? "";
  const name = useStore(store, (state) => state.document.name);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z" || isTyping(event.target))
        return;
      event.preventDefault();
      if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
      const { undo, redo } = store.getState();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [store]);

  useEffect(() => {
    document.title = `${name} – Rillstep`;
  }, [name]);

  // Each step begins at its top, wherever the one before was left.
  const main = useRef<HTMLElement>(null);
  useEffect(() => {
    main.current?.scrollTo(0, 0);
    window.scrollTo(0, 0);
  }, [step]);

  // The text beside its proof has its own findings, and needs the room.
  const editing = step === "words" && new URLSearchParams(search).get("view") === "edit";
  const withPanel = step !== "testers" && step !== "parts" && !editing;
  return (
    <>
      <a
        href="#step"
        className="bg-rill text-rill-ink sr-only rounded p-2 focus:not-sr-only focus:absolute focus:z-40"
      >
        To the step
      </a>
      {/* In a narrow window, as at 200 %, the columns stack and the page scrolls; else each column by itself. */}
      <div className="flex min-h-screen flex-col lg:h-screen print:h-auto!">
        <Header />
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <Stones />
          <main
            id="step"
            ref={main}
            tabIndex={-1}
            className="relative min-w-0 flex-1 px-3 py-4 focus:outline-none lg:overflow-auto lg:px-5 print:overflow-visible!"
          >
            <Outlet />
          </main>
          {withPanel && <SidePanel withText={step !== "words"} />}
        </div>
      </div>
    </>
  );
});
