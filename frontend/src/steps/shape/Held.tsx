import { useState } from "react";
import type { GradingView, PlainNumberView } from "../../api/schema";
import { Trouble } from "../../ui/Trouble";
import { NewName, useNames } from "./Naming";

/** A text whose numbers have no names yet: they are written into it when it is graded, or now. */
export function Unnamed() {
  const { make, problem, error } = useNames();
  return (
    <>
      Its numbers get these names when it is graded; the words stay as they are.{" "}
      <button
        type="button"
        className="button-bare"
        disabled={make.isPending}
        onClick={() => make.mutate({ verb: "write" })}
      >
        Write the names into the text now
      </button>
      {problem && <span role="alert">{problem}</span>}
      <Trouble error={error} />
    </>
  );
}

/** Numbers that do not move, with the reason. */
export function Held({ grading }: { grading: GradingView }) {
  const many = grading.held.reduce((sum, held) => sum + held.many, 0);
  if (many === 0) return null;
  return (
    <details className="sheet mt-4 px-4 py-2.5 text-sm">
      <summary className="cursor-pointer">
        <strong className="font-text">Stays as it is:</strong> {many} {many === 1 ? "number" : "numbers"},
        each for a reason
      </summary>
      <ul className="mt-2 space-y-1">
        {grading.held.map((held) => (
          <li key={held.reason}>
            {held.many} {held.many === 1 ? "number" : "numbers"}: {held.reason}{" "}
            <span className="text-quiet">
              ({held.lines.length === 1 ? "line" : "lines"} {held.lines.join(", ")})
            </span>
          </li>
        ))}
      </ul>
      <p className="text-quiet mt-2">
        To let one of them move, write the names into the text, and give it one of its own there.
      </p>
    </details>
  );
}

function Plain({ number }: { number: PlainNumberView }) {
  const [open, setOpen] = useState(false);
  const { make, problem, error } = useNames();
  const { line, column, value, words } = number;
  return (
    <li className="border-line border-t py-1">
      <div className="flex items-baseline gap-3">
        <span className="text-quiet shrink-0">line {line}</span>
        <strong className="tabular shrink-0">{value}</strong>
        <span className="font-text min-w-0 flex-1 truncate" title={words}>
          {words.slice(Math.max(0, column - 24))}
        </span>
        <button
          type="button"
          className="button-bare"
          aria-expanded={open}
          aria-label={`Let ${value} in line ${line} move`}
          onClick={() => setOpen(!open)}
        >
          Let it move
        </button>
      </div>
      {open && (
        <NewName
          label="Its name"
          action="Let it move"
          busy={make.isPending}
          onName={(other) => make.mutate({ verb: "name", line, column, other })}
        />
      )}
      {problem && (
        <p role="alert" className="text-wrong">
          {problem}
        </p>
      )}
      <Trouble error={error} />
    </li>
  );
}

/** The plain numbers of a text with names: held, until they are given one. */
export function PlainNumbers({ grading }: { grading: GradingView }) {
  if (grading.plain.length === 0) return null;
  return (
    <details className="sheet mt-4 px-4 py-2.5 text-sm">
      <summary className="cursor-pointer">
        <strong className="font-text">Held:</strong> {grading.plain.length} plain{" "}
        {grading.plain.length === 1 ? "number" : "numbers"}, which stay as they are
      </summary>
      <ul className="mt-2">
        {grading.plain.map((number) => (
          <Plain key={`${number.line} ${number.column}`} number={number} />
        ))}
      </ul>
    </details>
  );
}
