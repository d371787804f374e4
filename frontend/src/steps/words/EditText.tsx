import { lazy, memo, Suspense, useCallback, useState, type ComponentProps } from "react";
import { Link } from "react-router";
import type { NamedPlaceView, WorkView } from "../../api/schema";
import { useDesign, useSelection } from "../../bench/context";
import { sizeNames } from "../../bench/design";
import { useRepair } from "../../bench/useRepair";
import { Findings } from "../../proof/Findings";
import { LinePanel } from "../../proof/LinePanel";
import { Counts } from "../../proof/Mark";
import { ProofTable, type Picked } from "../../proof/ProofTable";
import { Questions } from "../../proof/Questions";
import { sorted } from "../../proof/sorted";
import { UnknownWords } from "../../proof/UnknownWords";
import { useAssumptions } from "../../proof/useAssumptions";
import { NumberPanel } from "./NumberPanel";

const TextEditor = lazy(() => import("../../editor/TextEditor"));

/** The text beside its proof: the totals of each size are worked anew while it is typed. */
export const EditText = memo(function EditText({ work }: { work: WorkView }) {
  const { selection, select } = useSelection();
  const repair = useRepair();
  const hand = useDesign((state) => state.document.hand);
  const terms = useDesign((state) => state.document.terms);
  const [picked, setPicked] = useState<Picked | null>(null);
  const [number, setNumber] = useState<NamedPlaceView | null>(null);
  const [asNames, setAsNames] = useState(false);
  const names = work.outline.sizes;
  // Findings and totals are of the text that was worked.
  const { text } = work;
  const choose = useCallback(
    (next: Picked) => {
      setPicked(next);
      select({ line: next.line });
    },
    [select],
  );
  const assumed = useAssumptions(text, null, work.lines);
  // On what is assumed of its unknown words, until those are answered.
  const { lines, findings, counts } = assumed ?? work;
  const line = selection?.line ?? null;
  const at = selection?.number ? sizeNames(work)[selection.number.size] : undefined;
  const open = picked && work.lines.some((l) => l.line === picked.line) ? picked : null;
  const size =
    open && names.includes(open.size) ? open.size : at && names.includes(at) ? at : (names[0] ?? "");
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="grid min-h-60 flex-1 gap-3 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <Suspense fallback={<p className="text-quiet">Opening the editor…</p>}>
          <EditorOfDesign
            terms="US"
            findings={findings}
            kept={work.kept}
            named={work.named}
            asNames={asNames}
            onNamed={setNumber}
            outline={work.outline}
            line={line}
            onLine={(next) => {
              if (next !== line) select({ line: next });
            }}
          />
        </Suspense>
        <section
          aria-label="Totals"
          className="relative min-h-0 space-y-2 overflow-auto"
          // It scrolls by itself, so it can be reached by keyboard.
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
          tabIndex={0}
        >
          <Counts counts={counts} testId="totals-verdict" />
          <UnknownWords
            questions={assumed?.questions ?? []}
            text={text}
            terms={null}
            onLine={(next) => select({ line: next })}
            onAnswer={repair}
          />
          <Findings
            label="Findings"
            findings={sorted(findings).errors}
            text={text}
            terms={null}
            onLine={(next) => select({ line: next })}
            onRepair={repair}
          />
          <Questions questions={work.questions} onLine={(next) => select({ line: next })} onAnswer={repair} />
          <ProofTable
            sizes={names}
            lines={lines}
            chosen={open ?? (line === null ? null : { line, size })}
            onChoose={choose}
          />
          <Findings
            label="Also worth a look"
            findings={sorted(findings).others}
            text={text}
            terms={null}
            onLine={(next) => select({ line: next })}
            onRepair={repair}
          />
        </section>
      </div>
      {work.named.length > 0 && (
        <label className="text-quiet flex items-center gap-1.5 text-sm">
          <input type="checkbox" checked={asNames} onChange={(event) => setAsNames(event.target.checked)} />
          Show names, and not their numbers
        </label>
      )}
      {number && (
        <NumberPanel
          key={`${number.line} ${number.column} ${number.shown}`}
          place={number}
          sizes={names}
          taken={[...new Set(work.named.flatMap((each) => each.name ?? []))]}
          onClose={() => setNumber(null)}
        />
      )}
      {open && (
        <div className="relative max-h-[56vh] overflow-auto">
          <LinePanel
            text={text}
            terms={null}
            line={open.line}
            size={size}
            sizes={names}
            into={terms}
            hand={hand}
            onSize={(next) => setPicked({ line: open.line, size: next })}
            onClose={() => setPicked(null)}
          >
            <Link to="../shape" className="button-bare" onClick={() => select({ line: open.line })}>
              Show in the drawing
            </Link>
          </LinePanel>
        </div>
      )}
    </div>
  );
});

/** The editor with the text of the design: a keystroke draws nothing else anew. */
function EditorOfDesign(props: Omit<ComponentProps<typeof TextEditor>, "text" | "onChange">) {
  const text = useDesign((state) => state.document.text);
  const change = useDesign((state) => state.change);
  const typed = (next: string) => {
    if (next !== text) change("text", (d) => ({ ...d, text: next }));
  };
  return <TextEditor {...props} text={text} onChange={typed} />;
}
