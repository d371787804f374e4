import {
  acceptCompletion,
  autocompletion,
  completionKeymap,
  completionStatus,
  moveCompletionSelection,
  selectedCompletionIndex,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from "@codemirror/autocomplete";
import { Prec } from "@codemirror/state";
import { keymap, type EditorView } from "@codemirror/view";
import type { OutlineView, WordView } from "../api/schema";

/** What can be completed: the words of the notation as the server gives them, and the names defined in the text. */
export interface Vocabulary {
  words: readonly WordView[];
  outline: OutlineView | null;
}

const TYPES: Readonly<Record<string, string>> = {
  stitch: "class",
  place: "property",
  end: "property",
  gesture: "function",
  line: "keyword",
  head: "keyword",
};

function options({ words, outline }: Vocabulary): Completion[] {
  const known = words.map((word) => ({
    label: word.word,
    detail: word.help,
    type: TYPES[word.kind] ?? "text",
    boost: word.kind === "stitch" ? 2 : 0,
  }));
  const named = (names: readonly string[], detail: string, before = ""): Completion[] =>
    names.map((name) => ({ label: before + name, detail, type: "variable", boost: 3 }));
  return [
    ...named(outline?.stitches ?? [], "defined in this pattern"),
    ...named(outline?.markers ?? [], "placed in this pattern", "to marker "),
    ...named(
      outline?.sections.map((section) => section.title) ?? [],
      "a piece of this pattern",
      "continue from ",
    ),
    ...known,
  ];
}

/**
 * Takes the suggestion that is chosen, or the first one. Nothing is chosen before an arrow is pressed, so that Enter is a
 * new line for whoever types on.
 */
function take(view: EditorView): boolean {
  if (completionStatus(view.state) !== "active") return false;
  if ((selectedCompletionIndex(view.state) ?? -1) < 0) moveCompletionSelection(true)(view);
  return acceptCompletion(view);
}

/** Complete the words before the cursor; `vocabulary` is asked each time, as it grows with the text. */
export function completion(vocabulary: () => Vocabulary) {
  const source = (context: CompletionContext): CompletionResult | null => {
    const before = context.matchBefore(/(?:in |to |around )?[A-Za-z(][\w-]*$/);
    if (!before || (before.text.length < 2 && !context.explicit)) {
      return context.explicit ? { from: context.pos, options: options(vocabulary()) } : null;
    }
    // "in ne" completes "in next st"; where only the last word fits, that one is completed.
    const whole = options(vocabulary());
    const fits = whole.some((option) => option.label.toLowerCase().startsWith(before.text.toLowerCase()));
    const at = before.text.lastIndexOf(" ") + 1;
    return { from: fits ? before.from : before.from + at, options: whole, validFor: /^[\w -]*$/ };
  };
  return [
    autocompletion({
      override: [source],
      icons: false,
      selectOnOpen: false,
      interactionDelay: 0,
      defaultKeymap: false,
    }),
    Prec.highest(keymap.of([{ key: "Tab", run: take }, ...completionKeymap])),
  ];
}
