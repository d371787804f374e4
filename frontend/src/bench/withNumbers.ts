import type { NamedPlaceView } from "../api/schema";
import { applyEdits } from "./edits";

/** The lines of a text with the numbers of its names in their places, as a maker reads them. */
export function withNumbers(text: string, named: readonly NamedPlaceView[]): string[] {
  const edits = named.map(({ line, column, end_column, shown }) => ({
    line,
    column,
    end_column,
    text: shown,
  }));
  return applyEdits(text, edits).split("\n");
}
