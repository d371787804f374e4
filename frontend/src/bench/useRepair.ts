import type { EditView } from "../api/schema";
import { useBench } from "./context";
import { applyEdits } from "./edits";

/** Makes the edits of a repair in the text that they were found for; a text that was changed since stays as it is. */
export function useRepair(): (edits: readonly EditView[]) => void {
  const { store, work } = useBench();
  return (edits) => {
    const { document, change } = store.getState();
    if (document.text === work?.text) change("", (d) => ({ ...d, text: applyEdits(d.text, edits) }));
  };
}
