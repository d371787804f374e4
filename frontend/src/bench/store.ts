import { temporal } from "zundo";
import { createStore } from "zustand";
import { ApiError, client, unwrap } from "../api/client";
import type { Design, DesignView, FaultView } from "../api/schema";
import { changesSince } from "./changes";
import { dropDraft, readDraft, writeDraft } from "./draft";

/**
 * How a document stands to the server:
 * saved – waiting (typed, about to be saved) – saving – offline (kept here, tried again)
 * – invalid (kept here, see the fields) – conflict (saved elsewhere in the meantime).
 */
export type SaveState = "saved" | "waiting" | "saving" | "offline" | "invalid" | "conflict";

export interface DesignState {
  id: number;
  document: Design;
  save: SaveState;
  faults: readonly FaultView[];
  /** Why it is not saved, where no field is wrong; else empty. */
  why: string;
  /** The revision that the editing began at. */
  revision: number;
  /** A revision as the server has it: what was changed since is sent, and not the whole document. */
  base: { revision: number; document: Design };
  /** Change the document; changes with the same key in quick succession are undone together. */
  change: (key: string, change: (document: Design) => Design) => void;
  undo: () => void;
  redo: () => void;
  /** In a conflict: keep mine as a new revision. */
  keepMine: () => Promise<void>;
  /** Load what is on the server now: in a conflict what was saved elsewhere, or a revision that was restored. */
  reload: () => Promise<void>;
  /** Save at once what is not saved yet. */
  flush: () => Promise<void>;
}

const SAVE_AFTER_MS = 700;
const TRY_AGAIN_MS = 2500;
const TOGETHER_MS = 900;
const LONGEST = 200;

type Begun = Pick<DesignState, "document" | "save" | "revision" | "base">;

function begun(opened: DesignView): Begun {
  const base = { revision: opened.revision, document: opened.document };
  const draft = readDraft(opened.id);
  if (!draft || JSON.stringify(draft.document) === JSON.stringify(opened.document))
    return { document: opened.document, save: "saved", revision: opened.revision, base };
  const save = draft.base === opened.revision ? "waiting" : "conflict";
  return { document: draft.document, save, revision: draft.base, base };
}

const fetched = (id: number) =>
  unwrap(client.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } }));

/** The one place of a design that is open: its document with undo, and its way to the server. */
export function createDesignStore(opened: DesignView) {
  const { id } = opened;
  const path = { design_id: id };
  let timer: ReturnType<typeof setTimeout> | undefined;
  let last = { key: "", at: 0 };
  const first = begun(opened);

  const store = createStore<DesignState>()(
    temporal(
      (set, get) => {
        const later = (ms: number) => {
          clearTimeout(timer);
          timer = setTimeout(() => void save(), ms);
        };
        /** After a change: kept in this browser at once, and saved soon. */
        const touched = () => {
          const now = get();
          writeDraft(id, { base: now.revision, document: now.document });
          if (now.save === "conflict") return;
          if (now.save !== "saving") set({ save: "waiting", faults: [], why: "" });
          later(SAVE_AFTER_MS);
        };
        const save = async () => {
          clearTimeout(timer);
          const { document, base, revision, save: state } = get();
          if (state === "saving" || state === "conflict" || state === "saved") return;
          set({ save: "saving" });
          try {
            const body = { base: revision, changes: changesSince(base.document, document) };
            const answer = await unwrap(client.PATCH("/api/designs/{design_id}", { params: { path }, body }));
            const unchanged = get().document === document;
            if (unchanged) dropDraft(id);
            else writeDraft(id, { base: answer.revision, document: get().document });
            set({
              base: { revision: answer.revision, document },
              revision: answer.revision,
              save: unchanged ? "saved" : "waiting",
              faults: [],
              why: "",
            });
            if (!unchanged) later(SAVE_AFTER_MS);
          } catch (error) {
            const known = error instanceof ApiError ? error.problem : null;
            if (known?.code === "conflict") set({ save: "conflict", faults: [], why: "" });
            else if (known?.status === 422 && get().document !== document) {
              // What was refused stands there no more.
              set({ save: "waiting", faults: [], why: "" });
              later(SAVE_AFTER_MS);
            } else if (known?.status === 422)
              set({
                save: "invalid",
                faults: known.faults,
                why: known.faults.length === 0 ? known.title : "",
              });
            else {
              set({ save: "offline", faults: [], why: "" });
              later(TRY_AGAIN_MS);
            }
          }
        };
        if (first.save === "waiting") later(SAVE_AFTER_MS);
        return {
          id,
          ...first,
          faults: [],
          why: "",
          change: (key, change) => {
            const at = Date.now();
            const together = key !== "" && key === last.key && at - last.at < TOGETHER_MS;
            last = { key, at };
            const { pause, resume } = store.temporal.getState();
            if (together) pause();
            set((now) => ({ document: change(now.document) }));
            resume();
            touched();
          },
          undo: () => {
            last = { key: "", at: 0 };
            store.temporal.getState().undo();
            touched();
          },
          redo: () => {
            last = { key: "", at: 0 };
            store.temporal.getState().redo();
            touched();
          },
          keepMine: async () => {
            const { revision, document } = await fetched(id);
            set({ revision, base: { revision, document }, save: "waiting" });
            await save();
          },
          reload: async () => {
            const { revision, document } = await fetched(id);
            dropDraft(id);
            last = { key: "", at: 0 };
            set({ document, revision, base: { revision, document }, save: "saved", faults: [], why: "" });
          },
          flush: save,
        };
      },
      {
        // Only the document is undone, and only where it changed.
        partialize: ({ document }): Partial<DesignState> => ({ document }),
        equality: (past, now) => past.document === now.document,
        limit: LONGEST,
      },
    ),
  );
  if (first.save !== "saved") {
    // What was typed and not saved can be undone to what is saved.
    store.temporal.setState({ pastStates: [{ document: opened.document }] });
  }
  return store;
}

export type DesignStore = ReturnType<typeof createDesignStore>;
