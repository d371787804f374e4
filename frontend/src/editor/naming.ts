import { StateEffect, StateField, type EditorState, type Range } from "@codemirror/state";
import { Decoration, EditorView, WidgetType, type DecorationSet, type KeyBinding } from "@codemirror/view";
import type { NamedPlaceView } from "../api/schema";
import { offset } from "./repairing";

interface Shown {
  places: readonly NamedPlaceView[];
  /** Names as they stand in the source, and not their numbers. */
  asNames: boolean;
}

const show = StateEffect.define<Shown>();

/** The numbers of a name in its place; a click opens it. */
class Chip extends WidgetType {
  constructor(
    readonly place: NamedPlaceView,
    readonly source: string,
  ) {
    super();
  }

  override eq(other: Chip): boolean {
    return other.place.shown === this.place.shown && other.source === this.source;
  }

  override toDOM(): HTMLElement {
    const chip = document.createElement("span");
    chip.className = "cm-named";
    chip.textContent = this.place.shown;
    chip.title = this.source;
    return chip;
  }

  override ignoreEvent(): boolean {
    return false;
  }
}

/** What stands in a place now; null where the text has moved on, and other words stand there. */
function sourceAt(state: EditorState, place: NamedPlaceView): [number, number, string] | null {
  const from = offset(state, place.line, place.column);
  const to = offset(state, place.line, place.end_column);
  const source = state.sliceDoc(from, to);
  return source.startsWith("{") && /\}(nd|rd|th)?$/.test(source) ? [from, to, source] : null;
}

interface Chips {
  shown: DecorationSet;
}

const chips = StateField.define<Chips>({
  create: () => ({ shown: Decoration.none }),
  update(now, transaction) {
    const told = transaction.effects.find((effect) => effect.is(show));
    if (!told) return transaction.docChanged ? { shown: now.shown.map(transaction.changes) } : now;
    if (told.value.asNames) return { shown: Decoration.none };
    const ranges: Range<Decoration>[] = told.value.places.flatMap((place) => {
      const found = sourceAt(transaction.state, place);
      if (!found) return [];
      const [from, to, source] = found;
      return [Decoration.replace({ widget: new Chip(place, source.slice(1, -1)) }).range(from, to)];
    });
    return { shown: Decoration.set(ranges, true) };
  },
  provide: (field) => [
    EditorView.decorations.from(field, (value) => value.shown),
    EditorView.atomicRanges.of((view) => view.state.field(field).shown),
  ],
});

/** The chip that a position is within, or beside. */
function chipAt(state: EditorState, at: number): NamedPlaceView | null {
  let found: NamedPlaceView | null = null;
  state.field(chips).shown.between(at, at, (_from, _to, decoration) => {
    const { widget } = decoration.spec as { widget?: unknown };
    if (widget instanceof Chip) found = widget.place;
  });
  return found;
}

/** Shows names by their numbers; opens one by a click, or by Alt+Enter beside it. */
export function naming(open: (place: NamedPlaceView) => void) {
  const key: KeyBinding = {
    key: "Alt-Enter",
    run: (view) => {
      const place = chipAt(view.state, view.state.selection.main.head);
      if (place) open(place);
      return place !== null;
    },
  };
  return {
    key,
    extension: [
      chips,
      EditorView.domEventHandlers({
        mousedown: (event, view) => {
          if (!(event.target instanceof HTMLElement) || !event.target.classList.contains("cm-named"))
            return false;
          const place = chipAt(view.state, view.posAtDOM(event.target));
          if (place) open(place);
          return place !== null;
        },
      }),
      EditorView.theme({
        ".cm-named": {
          color: "var(--warn)",
          fontWeight: "600",
          backgroundColor: "var(--bank)",
          borderRadius: "4px",
          padding: "0 3px",
          cursor: "pointer",
        },
      }),
    ],
  };
}

/** Show these names in an editor. */
export function showNames(view: EditorView, shown: Shown): void {
  view.dispatch({ effects: show.of(shown) });
}
