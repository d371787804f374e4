import { StateEffect, StateField, type Range } from "@codemirror/state";
import { Decoration, EditorView, type DecorationSet } from "@codemirror/view";
import type { FindingView, PlaceView } from "../api/schema";
import { offset } from "./repairing";

interface Marked {
  kept: readonly PlaceView[];
  findings: readonly FindingView[];
}

const mark = StateEffect.define<Marked>();
const kept = Decoration.mark({
  class: "cm-kept",
  attributes: { title: "kept as words: nothing is worked by them" },
});
const unchecked = Decoration.mark({ class: "cm-unchecked", attributes: { title: "not checked" } });

/** Words that are kept look kept, and what is not checked looks unchecked; both move with the text while it is typed. */
export const marking = [
  StateField.define<DecorationSet>({
    create: () => Decoration.none,
    update(now, transaction) {
      const told = transaction.effects.find((effect) => effect.is(mark));
      if (!told) return now.map(transaction.changes);
      const { kept: places, findings } = told.value;
      const at = (place: { line: number; column: number; end_column: number }, what: Decoration) => {
        const from = offset(transaction.state, place.line, place.column);
        const to = offset(transaction.state, place.line, place.end_column);
        return from < to ? [what.range(from, to)] : [];
      };
      const ranges: Range<Decoration>[] = [
        ...places.flatMap((place) => at(place, kept)),
        ...findings.filter((one) => one.unchecked).flatMap((one) => at(one, unchecked)),
      ];
      return Decoration.set(ranges, true);
    },
    provide: (field) => EditorView.decorations.from(field),
  }),
  EditorView.theme({
    ".cm-kept, .cm-kept *": { color: "var(--quiet) !important", fontStyle: "italic", fontWeight: "400" },
    ".cm-unchecked": { borderBottom: "2px dotted var(--warn)" },
  }),
];

/** Show these marks in an editor. */
export function showMarks(view: EditorView, marked: Marked): void {
  view.dispatch({ effects: mark.of(marked) });
}
