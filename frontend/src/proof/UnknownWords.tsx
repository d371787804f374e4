import { CircleHelp } from "lucide-react";
import type { EditView, MeaningView, UnknownWordsView } from "../api/schema";
import { Teach } from "./Teach";

interface Props {
  questions: readonly UnknownWordsView[];
  text: string;
  terms: "US" | "UK" | null;
  onAnswer: (edits: readonly EditView[]) => void;
  onLine: (line: number) => void;
}

/** "Rnd 2: 12 sts, as its total says": what a meaning makes, and by which total it is the one. */
function comesTo({ makes, decided_by: by }: MeaningView): string {
  const [label] = makes.split(":");
  const says = by === "" ? "" : label && by.startsWith(`${label} (`) ? "as its total says" : `as ${by} says`;
  return [makes, says].filter(Boolean).join(", ");
}

/** Words that are not understood, each asked once; an answer is written into the head of the text. */
export function UnknownWords({ questions, text, terms, onAnswer, onLine }: Props) {
  if (questions.length === 0) return null;
  return (
    <section aria-label="Unknown words" className="space-y-2">
      {questions.map((question) => (
        <div
          key={`${question.words} ${question.lines[0]}`}
          className="sheet border-l-mark border-l-3 p-3 text-sm"
        >
          <p className="flex gap-1.5">
            <CircleHelp size={16} className="text-warn mt-0.5 shrink-0" aria-hidden />
            <span>
              <strong className="font-medium">{question.question}</strong>{" "}
              {question.lines.map((line, at) => (
                <span key={line}>
                  {at > 0 && ", "}
                  <button type="button" className="text-quiet underline" onClick={() => onLine(line)}>
                    line {line}
                  </button>
                </span>
              ))}
            </span>
          </p>
          <ul className="mt-2 space-y-1.5">
            {question.answers.map((answer, at) => {
              const told = comesTo(answer);
              return (
                <li key={answer.means} className="flex flex-wrap items-baseline gap-x-2">
                  <button
                    type="button"
                    className="button-plain"
                    disabled={answer.edits.length === 0}
                    onClick={() => onAnswer(answer.edits)}
                  >
                    {answer.means}
                  </button>
                  <span className="text-quiet text-[13px]">
                    {[told, question.assumed && at === 0 && "assumed until you answer"]
                      .filter(Boolean)
                      .join("; ")}
                  </span>
                </li>
              );
            })}
            {question.offer && (
              <li>
                <Teach
                  offer={question.offer}
                  text={text}
                  terms={terms}
                  beside
                  onEdit={(edit) => onAnswer([edit])}
                />
              </li>
            )}
          </ul>
          {question.open && <p className="text-quiet mt-1.5 text-[13px]">{question.open}</p>}
        </div>
      ))}
    </section>
  );
}
