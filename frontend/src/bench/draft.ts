import { keptAs } from "../session/kept";
import type { Design } from "./design";

/** What was typed and is not saved yet, kept in this browser so that closing the tab loses nothing. */
export interface Draft {
  base: number;
  document: Design;
}

const key = (id: number) => keptAs(`draft.${id}`);

export function readDraft(id: number): Draft | null {
  const text = localStorage.getItem(key(id));
  if (text === null) return null;
  try {
    return JSON.parse(text) as Draft;
  } catch {
    return null;
  }
}

export function writeDraft(id: number, draft: Draft): void {
  localStorage.setItem(key(id), JSON.stringify(draft));
}

export function dropDraft(id: number): void {
  localStorage.removeItem(key(id));
}
