import { PencilLine } from "lucide-react";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { FindingView, WorkView } from "../api/schema";
import { WhatIsIt } from "../proof/WhatIsIt";
import { Card } from "../ui/Card";
import { Trouble } from "../ui/Trouble";
import { WhyNumber } from "../steps/shape/WhyNumber";
import { useBench, useSelection } from "./context";
import { useRepair } from "./useRepair";
import { withNumbers } from "./withNumbers";

function Finding({ finding, work }: { finding: FindingView; work: WorkView }) {
  const repaired = useRepair();
  const { select } = useSelection();
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
            className={`${index === 0 && finding.severity === "error" ? "button" : "button-plain"} text-left whitespace-normal`}
            onClick={() => repaired(repair.edits)}
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

/** The text line by line: the selected one in full, the others in short. */
function TextLines({ work }: { work: WorkView }) {
  const { selection, select } = useSelection();
  const text = withNumbers(work.text, work.named);
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
              } ${{ proved: "", assumed: "text-warn", unchecked: "text-warn", wrong: "text-wrong", "not understood": "text-wrong", vouched: "text-warn" }[line.mark]}`}
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
  const { work, workError, workAgain } = useBench();
  const { selection } = useSelection();
  const number = selection?.number;
  const errors = work?.findings.filter((f) => f.severity === "error") ?? [];
  const others = work?.findings.filter((f) => f.severity !== "error") ?? [];
  const shown = [...errors, ...others].slice(0, 8);
  const more = errors.length + others.length - shown.length;
  return (
    <aside
      aria-label="Reasons and findings"
      className="border-line bg-paper relative shrink-0 space-y-3 border-t p-3 lg:w-72 lg:overflow-auto lg:border-t-0 lg:border-l"
    >
      <Trouble error={workError} again={workAgain} />
      {number && <WhyNumber name={number.name} size={number.size} />}
      {work && shown.map((finding, index) => <Finding key={index} finding={finding} work={work} />)}
      {more > 0 && <p className="text-quiet text-sm">and {more} more: repair the first ones first.</p>}
      {work && !number && shown.length === 0 && (
        <p className="text-quiet text-sm">
          Every line is true in every size. Choose a number to see why, a bar or a line to find it everywhere.
        </p>
      )}
      {work && withText && <TextLines work={work} />}
    </aside>
  );
}
