import { codeFolding, foldGutter, foldKeymap, foldService } from "@codemirror/language";
import { keymap } from "@codemirror/view";

/** Fold each section under its title; `starts` has the lines at which sections begin, as the server read them. */
export function folding(starts: () => readonly number[]) {
  return [
    codeFolding({ placeholderText: "…" }),
    foldService.of((state, from) => {
      const here = state.doc.lineAt(from).number;
      const all = starts();
      if (!all.includes(here)) return null;
      const next = Math.min(...all.filter((line) => line > here), state.doc.lines + 1);
      let last = next - 1;
      while (last > here && state.doc.line(last).text.trim() === "") last -= 1;
      return last > here ? { from: state.doc.line(here).to, to: state.doc.line(last).to } : null;
    }),
    // The sections come with the answer of the server, after the text: the gutter looks again at each update.
    foldGutter({ openText: "▾", closedText: "▸", foldingChanged: () => true }),
    keymap.of(foldKeymap),
  ];
}
