import { CloudOff, Moon, Redo2, Sun, Undo2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { Counts } from "../proof/Mark";
import { storeTheme } from "../ui/theme";
import { useStore } from "zustand";
import { useBench, useDesign, useStale } from "./context";
import { Revisions } from "./Revisions";
import type { SaveState } from "./store";

const SAVE_TEXT: Record<SaveState, string> = {
  saved: "saved",
  waiting: "saving…",
  saving: "saving…",
  offline: "not saved yet: the server does not answer. It is kept here and tried again.",
  invalid: "not saved yet: see the marked field",
  conflict: "saved elsewhere in the meantime",
};

function ProofMark() {
  const { work, workError } = useBench();
  const workStale = useStale();
  if (!work) return null;
  const many = work.outline.sizes.length;
  // What is shown belongs to the text before: it is not said of the one that stands there now.
  return (
    <span className={workStale ? "opacity-50 grayscale" : ""} aria-busy={workStale}>
      <Counts
        counts={work.counts}
        tail={` in ${many} ${many === 1 ? "size" : "sizes"}${workError ? ", before this change" : ""}`}
        testId="proof-mark"
      />
    </span>
  );
}

function ThemeSwitch() {
  const [theme, setTheme] = useState(document.documentElement.dataset["theme"] ?? "light");
  const next = theme === "dark" ? "light" : "dark";
  return (
    <button
      type="button"
      className="button-bare"
      aria-label={`Use ${next} colours`}
      onClick={() => {
        storeTheme(next);
        setTheme(next);
      }}
    >
      {theme === "dark" ? <Sun size={17} aria-hidden /> : <Moon size={17} aria-hidden />}
    </button>
  );
}

export function Header() {
  const { store } = useBench();
  const name = useDesign((state) => state.document.name);
  const save = useDesign((state) => state.save);
  const revision = useDesign((state) => state.revision);
  const why = useDesign((state) => state.why);
  const canUndo = useStore(store.temporal, (state) => state.pastStates.length > 0);
  const canRedo = useStore(store.temporal, (state) => state.futureStates.length > 0);
  const { change, undo, redo, keepMine, reload, flush } = store.getState();
  const [revisions, setRevisions] = useState(false);
  const trouble = save === "offline" || save === "invalid" || save === "conflict";
  return (
    <header className="border-line bg-sheet z-10 border-b">
      <div className="flex min-h-13 flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5 whitespace-nowrap lg:flex-nowrap lg:px-5 lg:py-0">
        <Link to="/" className="font-text text-xl font-semibold">
          Rillstep
        </Link>
        <input
          className="hover:border-line w-56 min-w-0 truncate rounded border border-transparent bg-transparent px-2 py-0.5 text-base font-medium"
          aria-label="Name of the design"
          value={name}
          onChange={(event) => change("name", (d) => ({ ...d, name: event.target.value }))}
        />
        <button type="button" className="button-bare" onClick={() => setRevisions(true)}>
          revision {revision}
        </button>
        <span
          role="status"
          data-testid="save-state"
          className={`flex min-w-0 items-center gap-1 truncate text-sm ${trouble ? "text-wrong font-medium" : "text-quiet"}`}
        >
          {trouble && <CloudOff size={15} aria-hidden className="shrink-0" />}
          {SAVE_TEXT[save]}
        </span>
        <span className="flex-1" />
        <button type="button" className="button-bare" disabled={!canUndo} onClick={undo} aria-label="Undo">
          <Undo2 size={17} aria-hidden />
        </button>
        <button type="button" className="button-bare" disabled={!canRedo} onClick={redo} aria-label="Redo">
          <Redo2 size={17} aria-hidden />
        </button>
        <ThemeSwitch />
        <ProofMark />
      </div>
      {save === "conflict" && (
        <div
          role="alert"
          className="bg-wrong-soft text-ink flex flex-wrap items-center gap-3 px-5 py-2 text-sm"
        >
          This design was saved elsewhere, in another tab or by someone else in your studio, while you were
          editing it. Nothing was overwritten.
          <button type="button" className="button" onClick={() => void keepMine()}>
            Keep mine as a new revision
          </button>
          <button type="button" className="button-plain" onClick={() => void reload()}>
            Take what was saved
          </button>
        </div>
      )}
      {why && (
        <div
          role="alert"
          className="bg-wrong-soft text-ink flex flex-wrap items-center gap-3 px-5 py-2 text-sm"
        >
          {why}
          <button type="button" className="button" onClick={() => void flush()}>
            Save again
          </button>
        </div>
      )}
      <Revisions open={revisions} onClose={() => setRevisions(false)} />
    </header>
  );
}
