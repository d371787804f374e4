import type { EditorState } from "@codemirror/state";
import type { EditorView, KeyBinding } from "@codemirror/view";
import type { EditView, FindingView } from "../api/schema";

/** Where a place of the text (from 1) stands in the editor. */
export function offset(state: EditorState, line: number, column: number): number {
  if (line < 1 || line > state.doc.lines) return 0;
  const at = state.doc.line(line);
  return Math.min(at.to, at.from + column - 1);
}

/** Make the edits of a repair. */
export function repair(view: EditorView, edits: readonly EditView[]): void {
  view.dispatch({
    changes: edits.map((edit) => ({
      from: offset(view.state, edit.line, edit.column),
      to: offset(view.state, edit.line, edit.end_column),
      insert: edit.text,
    })),
    userEvent: "input.repair",
  });
}

/**
 * One key for the first repair of the line where the cursor is; on a line without one, it goes to the
 * next line that has one, so that pressing it again and again mends the whole text.
 */
export function repairKey(findings: () => readonly FindingView[]): KeyBinding {
  return {
    key: "Mod-Enter",
    preventDefault: true,
    run: (view) => {
      const here = view.state.doc.lineAt(view.state.selection.main.head).number;
      const mendable = findings().filter((finding) => finding.repairs.length > 0);
      const now = mendable.find((finding) => finding.line === here);
      if (now?.repairs[0]) {
        repair(view, now.repairs[0].edits);
        return true;
      }
      const next = mendable.find((finding) => finding.line > here) ?? mendable[0];
      if (!next) return true;
      view.dispatch({
        selection: { anchor: offset(view.state, next.line, next.column) },
        scrollIntoView: true,
      });
      return true;
    },
  };
}
