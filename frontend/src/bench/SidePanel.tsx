import { Lock, LockOpen, PencilLine, TriangleAlert } from "lucide-react";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { FindingView, Locks, NoteView, ReasonView, WorkView } from "../api/schema";
import { WhatIsIt } from "../proof/WhatIsIt";
import { Card } from "../ui/Card";
import { Trouble } from "../ui/Trouble";
import { WhyNumber } from "../steps/shape/WhyNumber";
import { applyEdits } from "./edits";
import { useBench, useFields } from "./context";

function Why({ reason, size, sizeIndex }: { reason: ReasonView; size: string; sizeIndex: number }) {
  const { design } = useFields();
  const lock = (value: number | null) =>
    design.change("", (document) => ({
      ...document,
      sizes: document.sizes.map((s, index) =>
        index === sizeIndex ? { ...s, locks: { ...s.locks, [reason.name as keyof Locks]: value } } : s,
      ),
    }));
  return (
    <Card title={`Why ${reason.value} in ${size}?`}>
      <p className="text-quiet">
        {reason.label}
        {reason.error && <> · {reason.error} from the target</>}
      </p>
      {reason.sentences.map((sentence) => (
        <p key={sentence} className="mt-1.5">
          {sentence}
        </p>
      ))}
      {reason.neighbours.length > 0 && (
        <p className="text-quiet mt-1.5">
          Next to it:{" "}
          {reason.neighbours.map((n) => `${n.value}${n.error ? ` (${n.error})` : ""}`).join(" · ")}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {reason.locked ? (
          <button type="button" className="button-plain" onClick={() => lock(null)}>
            <LockOpen size={15} aria-hidden /> Free it again
          </button>
        ) : (
          <button type="button" className="button-plain" onClick={() => lock(reason.value)}>
            <Lock size={15} aria-hidden /> Lock {reason.value}
          </button>
        )}
        {reason.neighbours.map((n) => (
          <button key={n.value} type="button" className="button-plain" onClick={() => lock(n.value)}>
            Lock {n.value}
          </button>
        ))}
      </div>
    </Card>
  );
}

function Finding({ finding, work }: { finding: FindingView; work: WorkView }) {
  const { design, select } = useBench();
  const line = work.lines.find((l) => l.line === finding.line);
  const where = `${line ? `${line.section}, ${line.label}` : `Line ${finding.line}`}${finding.size ? ` · ${finding.size}` : ""}`;
  return (
    <Card title={where} {...(finding.severity === "error" ? { tone: "wrong" as const } : {})}>
      <p>
        {finding.message} <WhatIsIt code={finding.code} />
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {finding.repairs.map((repair, index) => (
          <button
            key={repair.message}
            type="button"
            className={index === 0 ? "button" : "button-plain"}
            onClick={() => design.change("", (d) => ({ ...d, text: applyEdits(work.text, repair.edits) }))}
          >
            {repair.message}
          </button>
        ))}
        <Link to="words?view=edit" className="button-bare" onClick={() => select({ line: finding.line })}>
          Show the line
        </Link>
      </div>
    </Card>
  );
}

function Notes({ notes, work }: { notes: NoteView[]; work: WorkView }) {
  if (notes.length === 0) return null;
  return (
    <Card title="Targets and locks">
      <ul className="space-y-1.5">
        {notes.map((note) => (
          <li key={note.message} className="flex gap-1.5">
            <TriangleAlert
              size={15}
              aria-hidden
              className={`mt-0.5 shrink-0 ${note.severity === "error" ? "text-wrong" : "text-warn"}`}
            />
            <span>
              <strong>{work.sizes[note.size]?.name}.</strong> {note.message}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  );
}

/** The text line by line: the selected one in full, the others in short. */
function TextLines({ work }: { work: WorkView }) {
  const { selection, select } = useBench();
  const text = work.text.split("\n");
  // A line of the text that is worked as several rounds is shown once.
  const lines = work.lines.filter((line, index) => work.lines[index - 1]?.line !== line.line);
  const here = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    // Not returned: some browsers answer with a promise, and an effect may only return its clean-up.
    here.current?.scrollIntoView({ block: "nearest" });
  }, [selection]);
  return (
    <section aria-label="The text" className="text-sm">
      {lines.map((line, index) => {
        const chosen = line.line === selection?.line;
        const opens = lines[index - 1]?.section !== line.section;
        return (
          <div key={`${line.line} ${line.label}`}>
            {opens && <h2 className="text-quiet mt-2 px-1.5 text-[13px]">{line.section}</h2>}
            <button
              type="button"
              ref={chosen ? here : null}
              aria-pressed={chosen}
              data-testid={`text-line-${line.line}`}
              className={`font-text block w-full rounded px-1.5 py-0.5 text-left ${
                chosen ? "bg-mark-soft" : "hover:bg-bank truncate"
              } ${{ proved: "", unchecked: "text-warn", wrong: "text-wrong", "not understood": "text-wrong" }[line.mark]}`}
              onClick={() => select({ line: line.line })}
            >
              {text[line.line - 1]}
            </button>
            {chosen && (
              <Link to="words?view=edit" className="button-bare">
                <PencilLine size={14} aria-hidden /> Edit this line
              </Link>
            )}
          </div>
        );
      })}
    </section>
  );
}

/** Reasons and findings, beside every step. */
export function SidePanel({ withText }: { withText: boolean }) {
  const { design, work, workError, workAgain, selection } = useBench();
  const number = selection?.number;
  const size = number ? work?.sizes[number.size] : undefined;
  const reason = size?.reasons.find((r) => r.name === number?.name);
  const errors = work?.findings.filter((f) => f.severity === "error") ?? [];
  const others = work?.findings.filter((f) => f.severity !== "error") ?? [];
  const shown = [...errors, ...others].slice(0, 8);
  const more = errors.length + others.length - shown.length;
  return (
    <aside
      aria-label="Reasons and findings"
      className="border-line bg-paper shrink-0 space-y-3 border-t p-3 lg:w-72 lg:overflow-auto lg:border-t-0 lg:border-l"
    >
      <Trouble error={workError} again={workAgain} />
      {work && reason && size && number && <Why reason={reason} size={size.name} sizeIndex={number.size} />}
      {work?.by_text && number && design.document.version === 2 && (
        <WhyNumber name={number.name} size={number.size} />
      )}
      {work && shown.map((finding, index) => <Finding key={index} finding={finding} work={work} />)}
      {more > 0 && <p className="text-quiet text-sm">and {more} more: repair the first ones first.</p>}
      {work && <Notes notes={work.notes} work={work} />}
      {work && !reason && !number && shown.length === 0 && work.notes.length === 0 && (
        <p className="text-quiet text-sm">
          Every line is true in every size. Choose a number to see why, a bar or a line to find it everywhere.
        </p>
      )}
      {work && withText && <TextLines work={work} />}
    </aside>
  );
}
