import { CircleHelp } from "lucide-react";
import type { EditView, QuestionView } from "../api/schema";

interface Props {
  questions: readonly QuestionView[];
  onAnswer: (edits: readonly EditView[]) => void;
  onLine: (line: number) => void;
}

/** What the text leaves open; an answer is written into the text. */
export function Questions({ questions, onAnswer, onLine }: Props) {
  if (questions.length === 0) return null;
  return (
    <section aria-label="Questions" className="space-y-2">
      {questions.map((question) => (
        <div key={`${question.code} ${question.line}`} className="sheet border-l-mark border-l-3 p-3 text-sm">
          <p className="flex gap-1.5">
            <CircleHelp size={16} className="text-warn mt-0.5 shrink-0" aria-hidden />
            <span>
              {question.words}{" "}
              <button type="button" className="text-quiet underline" onClick={() => onLine(question.line)}>
                line {question.line}
              </button>
            </span>
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            {question.answers.map((answer) => (
              <button
                key={answer.message}
                type="button"
                className="button-plain"
                onClick={() => onAnswer(answer.edits)}
              >
                {answer.message}
              </button>
            ))}
          </div>
        </div>
      ))}
    </section>
  );
}
