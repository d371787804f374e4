import { client, unwrap } from "../api/client";
import type { Design } from "../api/schema";
import { keptAs } from "../session/kept";

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

/** A draft that was kept in an older form of the document is brought to the newest by the server. */
export async function renewDraft(id: number): Promise<void> {
  const draft = readDraft(id);
  if (draft === null || "yarns" in draft.document) return;
  const { document } = draft;
  const newest = await unwrap(client.POST("/api/export/design", { body: { document }, parseAs: "text" }));
  writeDraft(id, { base: draft.base, document: JSON.parse(newest) as Design });
}
