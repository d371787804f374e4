import { useMutation, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useDeferredValue, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, unwrap } from "../api/client";
import type { CheckView } from "../api/schema";
import { applyEdits } from "../bench/edits";
import { Findings } from "../proof/Findings";
import { LinePanel } from "../proof/LinePanel";
import { Counts } from "../proof/Mark";
import { ProofTable, type Picked } from "../proof/ProofTable";
import { Questions } from "../proof/Questions";
import { sorted } from "../proof/sorted";
import { UnknownWords } from "../proof/UnknownWords";
import { useAssumptions } from "../proof/useAssumptions";
import { Choice } from "../ui/Choice";
import { keptAs } from "../session/kept";
import { Trouble } from "../ui/Trouble";
import { Printed } from "./Printed";
import { OpenFile, TakeFile, useFileText } from "./TakeFile";
import { useCheck } from "./useCheck";

const TextEditor = lazy(() => import("../editor/TextEditor"));

const kept = () => keptAs("check");

const EXAMPLE = `Pattern: Eyepiece pouch
Sizes: One lens, Three lenses

Base
Rnd 1: 6 sc in a magic ring. (6)
Rnd 2: Inc in each st around. (12)
Rnd 3: *Sc in next st, inc; rep from * around. (18)
Rnd 4: *Sc in next 2 sts, inc; rep from * around. (24)
Size Three lenses only:
Rnd 5: *Sc in next 3 sts, inc; rep from * around. (31)
`;

function Verdict({ check, stale }: { check: Pick<CheckView, "sizes" | "counts">; stale: boolean }) {
  const sizes = `${check.sizes.length} ${check.sizes.length === 1 ? "size" : "sizes"}`;
  return <Counts counts={check.counts} tail={` in ${sizes}`} testId="verdict" stale={stale} />;
}

function Start() {
  return (
    <div className="sheet p-6">
      <h2 className="text-lg">Paste or drop a pattern on the left</h2>
      <p className="text-quiet mt-2 text-sm">
        As text, or as a file of your word processor or a PDF with text in it. In ordinary crochet English, in
        one size or many, it is worked stitch by stitch as you type: each line with its total in each size,
        and what does not come out with a repair that was tried. Say its sizes in a line of their own, such as
        “Sizes: S, M, L”. Nothing is kept unless you keep it.
      </p>
      <p className="text-quiet mt-3 text-sm">
        Then choose a total to see how it comes about: stitch by stitch, and as a chart.
      </p>
    </div>
  );
}

type View = "proof" | "printed";

/** A pattern written elsewhere: pasted or dropped, and proved or refuted line by line. */
export function CheckPage() {
  const [text, setText] = useState(() => localStorage.getItem(kept()) ?? "");
  // What was chosen here; until then it is as the text says.
  const [chosenTerms, setTerms] = useState<"US" | "UK" | null>(null);
  const [hand, setHand] = useState<"right" | "left">("right");
  const [view, setView] = useState<View>("proof");
  const [line, setLine] = useState<number | null>(null);
  const [picked, setPicked] = useState<Picked | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const check = useCheck(useDeferredValue(text), chosenTerms);
  const keep = useMutation({
    mutationFn: () => unwrap(client.POST("/api/designs/from-text", { body: { text, terms: chosenTerms } })),
    onSuccess: (design) => {
      localStorage.removeItem(kept());
      void queries.invalidateQueries({ queryKey: ["designs"] });
      void navigate(`/designs/${design.id}/words`);
    },
  });
  useEffect(() => {
    document.title = "Check a pattern – Rillstep";
  }, []);
  const change = (next: string) => {
    localStorage.setItem(kept(), next);
    setText(next);
  };
  const taken = useFileText();
  const checked = text.trim() ? (check.data ?? null) : null;
  const assumed = useAssumptions(text, chosenTerms, checked?.lines ?? []);
  // On what is assumed of its unknown words, until those are answered.
  const answer =
    checked && assumed && !check.isPlaceholderData
      ? { ...checked, lines: assumed.lines, findings: assumed.findings, counts: assumed.counts }
      : checked;
  const terms = chosenTerms ?? (answer?.terms === "UK" ? "UK" : "US");
  const open = answer && picked && answer.lines.some((l) => l.line === picked.line) ? picked : null;
  const size = open && answer?.sizes.includes(open.size) ? open.size : (answer?.sizes[0] ?? "");
  const pick = (next: Picked) => {
    setPicked(next);
    setLine(next.line);
  };
  return (
    <div className="flex min-h-screen flex-col lg:h-screen">
      <header className="border-line bg-sheet flex min-h-13 flex-wrap items-center gap-x-4 gap-y-1 border-b px-3 py-1.5 lg:px-5">
        <Link to="/" className="font-text text-xl font-semibold">
          Rillstep
        </Link>
        <h1 className="text-base">Check a pattern</h1>
        <span className="flex-1" />
        {answer && <Verdict check={answer} stale={check.isPlaceholderData || check.isError} />}
        <button
          type="button"
          className="button"
          disabled={!answer || keep.isPending}
          onClick={() => keep.mutate()}
        >
          Keep it as a design
        </button>
      </header>
      <TakeFile
        taken={taken}
        replaces={text.trim() !== ""}
        onTake={(next) => {
          setTerms(null);
          change(next);
        }}
      />
      <main className="min-h-0 flex-1 lg:grid lg:grid-cols-[1.15fr_1fr] lg:grid-rows-[minmax(0,1fr)_auto]">
        <section className="flex h-[70vh] min-h-0 flex-col p-3 lg:h-auto lg:p-4" aria-label="The text">
          <div className="mb-2 flex flex-wrap items-end gap-3">
            <Choice
              label="It is written in"
              value={terms}
              options={[
                ["US", "US terms"],
                ["UK", "UK terms"],
              ]}
              onChange={setTerms}
            />
            <OpenFile taken={taken} />
            {text.trim() === "" && (
              <button type="button" className="button-plain" onClick={() => change(EXAMPLE)}>
                Try an example
              </button>
            )}
            {answer?.findings.some((finding) => finding.repairs.length > 0) && (
              <p className="text-quiet pb-1 text-[13px]">Ctrl+Enter repairs the line, or goes to the next.</p>
            )}
          </div>
          <div
            className="min-h-0 flex-1"
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              const file = event.dataTransfer.files[0];
              if (!file) return;
              event.preventDefault();
              taken.mutate(file);
            }}
          >
            <Suspense fallback={<p className="text-quiet">Opening the editor…</p>}>
              <TextEditor
                text={text}
                terms={terms}
                findings={answer?.findings ?? []}
                kept={answer?.kept ?? []}
                outline={answer?.outline ?? null}
                line={line}
                onChange={change}
                onLine={setLine}
              />
            </Suspense>
          </div>
        </section>
        <section
          className="border-line relative min-h-0 space-y-4 border-t p-3 lg:overflow-auto lg:border-t-0 lg:border-l lg:p-4"
          aria-label="The proof"
          // It scrolls by itself, so it can be reached by keyboard.
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
          tabIndex={0}
        >
          <Trouble
            error={check.error ?? keep.error}
            again={check.error ? () => void check.refetch() : undefined}
          />
          {!answer && <Start />}
          {answer && answer.lines.length > 0 && (
            <Choice
              label="What is shown"
              hideLabel
              value={view}
              options={[
                ["proof", "Proof"],
                ["printed", "As printed"],
              ]}
              onChange={setView}
            />
          )}
          {answer && view === "printed" && (
            <Printed text={text} terms={terms} sizes={answer.sizes} hand={hand} onHand={setHand} />
          )}
          {answer && view === "proof" && (
            <>
              <UnknownWords
                questions={assumed?.questions ?? []}
                text={text}
                terms={chosenTerms}
                onLine={setLine}
                onAnswer={(edits) => change(applyEdits(text, edits))}
              />
              <Findings
                label="Findings"
                findings={sorted(answer.findings).errors}
                text={text}
                terms={chosenTerms}
                onLine={setLine}
                onRepair={(edits) => change(applyEdits(text, edits))}
              />
              <Questions
                questions={answer.questions}
                onLine={setLine}
                onAnswer={(edits) => change(applyEdits(text, edits))}
              />
              {answer.lines.length > 0 && (
                <ProofTable
                  sizes={answer.sizes}
                  lines={answer.lines}
                  words={answer.words}
                  chosen={open ?? (line === null ? null : { line, size })}
                  onChoose={pick}
                />
              )}
              <Findings
                label="Also worth a look"
                findings={sorted(answer.findings).others}
                text={text}
                terms={chosenTerms}
                onLine={setLine}
                onRepair={(edits) => change(applyEdits(text, edits))}
              />
            </>
          )}
        </section>
        {answer && open && (
          <div className="relative max-h-[60vh] overflow-auto lg:col-span-2">
            <LinePanel
              text={text}
              terms={terms}
              line={open.line}
              size={size}
              sizes={answer.sizes}
              into={terms}
              hand={hand}
              onSize={(next) => setPicked({ line: open.line, size: next })}
              onClose={() => setPicked(null)}
            />
          </div>
        )}
      </main>
    </div>
  );
}
