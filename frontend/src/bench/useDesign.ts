import { useCallback, useEffect, useRef, useState } from "react";
import { ApiError, client, unwrap } from "../api/client";
import type { Design, DesignView, FaultView } from "../api/schema";
import { dropDraft, readDraft, writeDraft } from "./draft";
import { begin, changed, redone, undone, type History } from "./history";

/**
 * How a document stands to the server:
 * saved – waiting (typed, about to be saved) – saving – offline (kept here, tried again)
 * – invalid (kept here, see the fields) – conflict (saved elsewhere in the meantime).
 */
export type SaveState = "saved" | "waiting" | "saving" | "offline" | "invalid" | "conflict";

const SAVE_AFTER_MS = 700;
const TRY_AGAIN_MS = 2500;

export interface DesignState {
  id: number;
  document: Design;
  revision: number;
  save: SaveState;
  faults: readonly FaultView[];
  /** Why it is not saved, where no field is wrong; else empty. */
  why: string;
  canUndo: boolean;
  canRedo: boolean;
  /** Change the document; changes with the same key in quick succession are undone together. */
  change: (key: string, change: (document: Design) => Design) => void;
  undo: () => void;
  redo: () => void;
  /** In a conflict: keep mine as a new revision, or take what was saved elsewhere. */
  keepMine: () => Promise<void>;
  takeTheirs: () => Promise<void>;
  /** Load what is on the server now, as after restoring a revision. */
  reload: () => Promise<void>;
  /** Save at once what is not saved yet. */
  flush: () => Promise<void>;
}

interface Saving {
  revision: number;
  state: SaveState;
  faults: readonly FaultView[];
  /** Why it is not saved, where no field is wrong. */
  why?: string;
}

function start(opened: DesignView): { history: History; saving: Saving } {
  const draft = readDraft(opened.id);
  const same = draft && JSON.stringify(draft.document) === JSON.stringify(opened.document);
  if (!draft || same) {
    return {
      history: begin(opened.document),
      saving: { revision: opened.revision, state: "saved", faults: [] },
    };
  }
  const state: SaveState = draft.base === opened.revision ? "waiting" : "conflict";
  const history = changed(begin(opened.document), draft.document, "", 0);
  return { history, saving: { revision: draft.base, state, faults: [] } };
}

/** A design that is edited, undone, autosaved, and never lost. */
export function useDesign(opened: DesignView): DesignState {
  const [first] = useState(() => start(opened));
  const [history, setHistory] = useState(first.history);
  const [saving, setSaving] = useState(first.saving);
  const id = opened.id;
  const latest = useRef({ document: history.present, saving, busy: false });

  useEffect(() => {
    latest.current.document = history.present;
    latest.current.saving = saving;
  }, [history.present, saving]);

  const update = useCallback((next: Saving) => {
    latest.current.saving = next;
    setSaving(next);
  }, []);

  const save = useCallback(async () => {
    const { document, saving: now, busy } = latest.current;
    if (busy || now.state === "conflict" || now.state === "saved") return;
    latest.current.busy = true;
    update({ ...now, state: "saving" });
    try {
      const body = { base: now.revision, document };
      const saved = await unwrap(
        client.PUT("/api/designs/{design_id}", { params: { path: { design_id: id } }, body }),
      );
      const unchanged = latest.current.document === document;
      if (unchanged) dropDraft(id);
      else writeDraft(id, { base: saved.revision, document: latest.current.document });
      update({ revision: saved.revision, state: unchanged ? "saved" : "waiting", faults: [] });
    } catch (error) {
      const known = error instanceof ApiError ? error : null;
      if (known?.problem.code === "conflict") update({ ...now, state: "conflict", faults: [] });
      else if (known?.problem.status === 422)
        update({ ...now, state: "invalid", faults: known.problem.faults, why: known.problem.title });
      else update({ ...now, state: "offline", faults: [] });
    } finally {
      latest.current.busy = false;
    }
  }, [id, update]);

  useEffect(() => {
    if (saving.state !== "waiting" && saving.state !== "offline") return;
    const timer = setTimeout(() => void save(), saving.state === "offline" ? TRY_AGAIN_MS : SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [saving, history.present, save]);

  const put = useCallback(
    (next: History) => {
      latest.current.document = next.present;
      setHistory(next);
      const now = latest.current.saving;
      writeDraft(id, { base: now.revision, document: next.present });
      if (now.state !== "conflict" && now.state !== "saving")
        update({ ...now, state: "waiting", faults: [] });
    },
    [id, update],
  );

  const fetchNow = useCallback(
    () => unwrap(client.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } })),
    [id],
  );

  const reload = useCallback(async () => {
    const now = await fetchNow();
    dropDraft(id);
    latest.current.document = now.document;
    setHistory((was) => changed(was, now.document, "", 0));
    update({ revision: now.revision, state: "saved", faults: [] });
  }, [fetchNow, id, update]);

  const keepMine = useCallback(async () => {
    const now = await fetchNow();
    update({ revision: now.revision, state: "waiting", faults: [] });
    await save();
  }, [fetchNow, save, update]);

  return {
    id,
    document: history.present,
    revision: saving.revision,
    save: saving.state,
    faults: saving.faults,
    why: saving.state === "invalid" && saving.faults.length === 0 ? (saving.why ?? "") : "",
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    change: (key, change) => put(changed(history, change(history.present), key, Date.now())),
    undo: () => put(undone(history)),
    redo: () => put(redone(history)),
    keepMine,
    takeTheirs: reload,
    reload,
    flush: save,
  };
}
