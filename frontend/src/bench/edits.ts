import type { EditView } from "../api/schema";

/** The text with a repair's edits made, from the end backwards so that no place moves. */
export function applyEdits(text: string, edits: readonly EditView[]): string {
  const lines = text.split("\n");
  const backwards = [...edits].sort((a, b) => b.line - a.line || b.column - a.column);
  for (const edit of backwards) {
    const row = lines[edit.line - 1] ?? "";
    lines[edit.line - 1] = row.slice(0, edit.column - 1) + edit.text + row.slice(edit.end_column - 1);
  }
  return lines.join("\n");
}
