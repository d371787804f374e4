import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { HighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { lintKeymap, setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap, lineNumbers } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef } from "react";
import { client, unwrap } from "../api/client";
import type { FindingView, NamedPlaceView, OutlineView, PlaceView } from "../api/schema";
import { completion, type Vocabulary } from "./completion";
import { folding } from "./folding";
import { gutter } from "./gutter";
import { patternLanguage } from "./language";
import { marking, showMarks } from "./marking";
import { naming, showNames } from "./naming";
import { nonce } from "./nonce";
import { offset, repair, repairKey } from "./repairing";

interface Props {
  text: string;
  /** What the text is written in: the words that are offered follow it. */
  terms: "US" | "UK";
  findings: readonly FindingView[];
  /** Where words stand that are only kept. */
  kept: readonly PlaceView[];
  /** Where names of numbers stand; they are shown by their numbers, or as they are written. */
  named?: readonly NamedPlaceView[];
  asNames?: boolean;
  /** Opens the numbers of a name. */
  onNamed?: (place: NamedPlaceView) => void;
  /** Its sections, and the names that are defined in it. */
  outline: OutlineView | null;
  /** The selected line: scrolled to and marked. */
  line: number | null;
  onChange: (text: string) => void;
  onLine: (line: number) => void;
}

const colours = HighlightStyle.define([
  { tag: tags.heading, color: "var(--rill)", fontWeight: "600" },
  { tag: tags.labelName, color: "var(--rill)", fontWeight: "600" },
  { tag: tags.meta, fontStyle: "italic", color: "var(--quiet)" },
  { tag: tags.typeName, color: "var(--ink)", fontWeight: "600" },
  { tag: tags.keyword, color: "var(--quiet)" },
  { tag: tags.number, color: "var(--warn)", fontWeight: "600" },
  { tag: tags.comment, color: "var(--quiet)", fontStyle: "italic" },
]);

const look = EditorView.theme({
  "&": { backgroundColor: "var(--sheet)", color: "var(--ink)", height: "100%" },
  ".cm-scroller": { fontFamily: "var(--font-mono)", fontSize: "13.5px", lineHeight: "1.65" },
  ".cm-gutters": { backgroundColor: "var(--bank)", color: "var(--quiet)", border: "none" },
  ".cm-content": { caretColor: "var(--ink)" },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": {
    backgroundColor: "var(--rill-soft) !important",
  },
  ".cm-tooltip": {
    backgroundColor: "var(--sheet)",
    color: "var(--ink)",
    borderColor: "var(--line)",
    maxWidth: "30rem",
  },
  ".cm-tooltip-autocomplete ul li[aria-selected]": {
    backgroundColor: "var(--rill)",
    color: "var(--rill-ink)",
  },
  ".cm-completionDetail": { fontFamily: "var(--font-sans)", fontStyle: "normal", opacity: "0.8" },
  ".cm-foldGutter span": { cursor: "pointer", padding: "0 3px" },
  ".cm-foldPlaceholder": {
    backgroundColor: "var(--rill-soft)",
    border: "none",
    color: "var(--ink)",
    padding: "0 6px",
  },
  ".cm-diagnostic": { fontFamily: "var(--font-sans)", fontSize: "14px" },
});

function diagnostics(state: EditorState, findings: readonly FindingView[], view: EditorView): Diagnostic[] {
  return findings.map((finding) => ({
    from: offset(state, finding.line, finding.column),
    to: Math.max(
      offset(state, finding.line, finding.column),
      offset(state, finding.line, finding.end_column),
    ),
    severity: finding.severity === "error" ? "error" : "warning",
    message: finding.message,
    actions: finding.repairs.map((option) => ({
      name: option.message,
      apply: () => repair(view, option.edits),
    })),
  }));
}

const NONE: readonly NamedPlaceView[] = [];

/** The pattern text with its findings in the gutter and under the words; repairs are offered where they stand. */
export default function TextEditor({
  text,
  terms,
  findings,
  kept,
  named = NONE,
  asNames = false,
  onNamed,
  outline,
  line,
  onChange,
  onLine,
}: Props) {
  const words = useQuery({
    queryKey: ["language", terms],
    queryFn: () => unwrap(client.GET("/api/language", { params: { query: { terms } } })),
    staleTime: Infinity,
  });
  // What the editor's own parts ask for when they need it; they are made once, and these change.
  const known = useRef<Vocabulary & { findings: readonly FindingView[] }>({
    words: [],
    outline: null,
    findings: [],
  });
  useEffect(() => {
    known.current = { words: words.data ?? [], outline, findings };
  }, [words.data, outline, findings]);
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const changed = useEffectEvent(onChange);
  const moved = useEffectEvent(onLine);
  const opened = useEffectEvent((place: NamedPlaceView) => onNamed?.(place));
  const first = useEffectEvent(() => text);

  useEffect(() => {
    if (!host.current) return;
    const names = naming((place) => opened(place));
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first(),
        extensions: [
          lineNumbers(),
          history(),
          completion(() => known.current),
          folding(() => known.current.outline?.sections.map((section) => section.line) ?? []),
          keymap.of([
            repairKey(() => known.current.findings),
            names.key,
            ...defaultKeymap,
            ...historyKeymap,
            ...lintKeymap,
          ]),
          patternLanguage,
          syntaxHighlighting(colours),
          gutter,
          marking,
          names.extension,
          EditorView.lineWrapping,
          EditorView.cspNonce.of(nonce()),
          EditorView.contentAttributes.of({
            "aria-label": "Pattern text",
            spellcheck: "false",
            tabindex: "0",
          }),
          look,
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed(update.state.doc.toString());
            if (update.selectionSet && update.view.hasFocus) {
              moved(update.state.doc.lineAt(update.state.selection.main.head).number);
            }
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, []);

  useEffect(() => {
    const editor = view.current;
    if (editor && editor.state.doc.toString() !== text) {
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } });
    }
  }, [text]);

  useEffect(() => {
    const editor = view.current;
    if (editor) editor.dispatch(setDiagnostics(editor.state, diagnostics(editor.state, findings, editor)));
  }, [findings]);

  useEffect(() => {
    if (view.current) showMarks(view.current, { kept, findings });
  }, [kept, findings]);

  useEffect(() => {
    if (view.current) showNames(view.current, { places: named, asNames });
  }, [named, asNames]);

  useEffect(() => {
    const editor = view.current;
    if (!editor || line === null || editor.hasFocus || line > editor.state.doc.lines) return;
    const at = editor.state.doc.line(line);
    editor.dispatch({
      selection: { anchor: at.from, head: at.to },
      effects: EditorView.scrollIntoView(at.from, { y: "center" }),
    });
  }, [line]);

  return <div ref={host} className="border-line h-full overflow-hidden rounded-lg border" />;
}
