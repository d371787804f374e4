import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { HighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { lintGutter, lintKeymap, setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap, lineNumbers } from "@codemirror/view";
import { tags } from "@lezer/highlight";
import { useEffect, useEffectEvent, useRef } from "react";
import type { FindingView } from "../../api/schema";
import { patternLanguage } from "./language";

interface Props {
  text: string;
  findings: readonly FindingView[];
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
  ".cm-diagnostic": { fontFamily: "var(--font-sans)", fontSize: "14px" },
});

function nonce(): string {
  const meta = document.querySelector<HTMLMetaElement>("meta[property='csp-nonce']");
  return meta?.nonce ?? "";
}

function offset(state: EditorState, line: number, column: number): number {
  if (line < 1 || line > state.doc.lines) return 0;
  const at = state.doc.line(line);
  return Math.min(at.to, at.from + column - 1);
}

function diagnostics(state: EditorState, findings: readonly FindingView[], view: EditorView): Diagnostic[] {
  return findings.map((finding) => ({
    from: offset(state, finding.line, finding.column),
    to: Math.max(
      offset(state, finding.line, finding.column),
      offset(state, finding.line, finding.end_column),
    ),
    severity: finding.severity === "error" ? "error" : "warning",
    message: finding.message,
    actions: finding.repairs.map((repair) => ({
      name: repair.message,
      apply: () => {
        const changes = repair.edits.map((edit) => ({
          from: offset(view.state, edit.line, edit.column),
          to: offset(view.state, edit.line, edit.end_column),
          insert: edit.text,
        }));
        view.dispatch({ changes });
      },
    })),
  }));
}

/** The pattern text with its findings in the gutter and under the words; repairs are offered where they stand. */
export default function TextEditor({ text, findings, line, onChange, onLine }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const changed = useEffectEvent(onChange);
  const moved = useEffectEvent(onLine);
  const first = useEffectEvent(() => text);

  useEffect(() => {
    if (!host.current) return;
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first(),
        extensions: [
          lineNumbers(),
          history(),
          keymap.of([...defaultKeymap, ...historyKeymap, ...lintKeymap]),
          patternLanguage,
          syntaxHighlighting(colours),
          lintGutter(),
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
