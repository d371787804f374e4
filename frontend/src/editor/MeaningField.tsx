import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { EditorState } from "@codemirror/state";
import { EditorView, keymap } from "@codemirror/view";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef } from "react";
import { client, unwrap } from "../api/client";
import type { WordView } from "../api/schema";
import { completion } from "./completion";
import { nonce } from "./nonce";

interface Props {
  label: string;
  terms: "US" | "UK";
  onChange: (meaning: string) => void;
  onEnter: () => void;
}

const look = EditorView.theme({
  "&": {
    backgroundColor: "var(--sheet)",
    color: "var(--ink)",
    border: "1px solid var(--line)",
    borderRadius: "6px",
  },
  "&.cm-focused": { outline: "2px solid var(--rill)" },
  ".cm-scroller": { fontFamily: "var(--font-mono)", fontSize: "13.5px" },
  ".cm-tooltip": { backgroundColor: "var(--sheet)", color: "var(--ink)", borderColor: "var(--line)" },
  ".cm-tooltip-autocomplete ul li[aria-selected]": {
    backgroundColor: "var(--rill)",
    color: "var(--rill-ink)",
  },
});

/** One line of the language, completed as in the editor of a text. */
export default function MeaningField({ label, terms, onChange, onEnter }: Props) {
  const words = useQuery({
    queryKey: ["language", terms],
    queryFn: () => unwrap(client.GET("/api/language", { params: { query: { terms } } })),
    staleTime: Infinity,
  });
  const known = useRef<readonly WordView[]>([]);
  useEffect(() => {
    known.current = words.data ?? [];
  }, [words.data]);
  const host = useRef<HTMLDivElement>(null);
  const changed = useEffectEvent(onChange);
  const entered = useEffectEvent(onEnter);
  const named = useEffectEvent(() => label);
  useEffect(() => {
    if (!host.current) return;
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        extensions: [
          completion(() => ({ words: known.current, outline: null })),
          history(),
          keymap.of([
            {
              key: "Enter",
              run: () => {
                entered();
                return true;
              },
            },
            ...defaultKeymap,
            ...historyKeymap,
          ]),
          EditorState.transactionFilter.of((step) => (step.newDoc.lines > 1 ? [] : step)),
          EditorView.cspNonce.of(nonce()),
          EditorView.contentAttributes.of({ "aria-label": named(), spellcheck: "false" }),
          look,
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed(update.state.doc.toString());
          }),
        ],
      }),
    });
    return () => editor.destroy();
  }, []);
  return <div ref={host} />;
}
