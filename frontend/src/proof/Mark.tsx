import {
  CircleCheck,
  CircleDashed,
  CircleDot,
  CircleHelp,
  CircleX,
  MessageSquareText,
  PenLine,
} from "lucide-react";
import type { CountsView, LineView } from "../api/schema";

export type MarkName = LineView["mark"] | "kept";

const MARKS = {
  proved: { icon: CircleCheck, tone: "text-sound", words: "proved" },
  assumed: { icon: CircleDot, tone: "text-warn", words: "true if its unknown words mean what is assumed" },
  unchecked: { icon: CircleDashed, tone: "text-warn", words: "worked, not checked" },
  wrong: { icon: CircleX, tone: "text-wrong", words: "refuted" },
  "not understood": { icon: CircleHelp, tone: "text-wrong", words: "not understood" },
  vouched: { icon: PenLine, tone: "text-warn", words: "vouched for, not proved" },
  kept: { icon: MessageSquareText, tone: "text-quiet", words: "kept as words" },
} as const;

interface MarkProps {
  mark: MarkName;
  /** The phrases of the text's own on which the line rests. */
  phrases?: readonly string[];
  size?: number;
}

/** What the proof says of a line: one of its marks, or that it is kept as words. */
export function Mark({ mark, phrases, size = 15 }: MarkProps) {
  const { icon: Icon, tone, words: plain } = MARKS[mark];
  const words = phrases?.length ? `${plain} with your phrases: ${phrases.join(", ")}` : plain;
  return (
    <span title={words} className={`inline-flex ${tone}`}>
      <Icon size={size} aria-label={words} />
    </span>
  );
}

/** "12 proved, 1 not checked, 1 not understood": how much of a text is proved, and what the rest is. */
export function Counts({
  counts,
  tail,
  testId,
  stale = false,
}: {
  counts: CountsView;
  tail?: string;
  testId: string;
  /** They are those of an older text. */
  stale?: boolean;
}) {
  const refuted = counts.wrong + counts.not_understood > 0;
  const open = counts.assumed + counts.unchecked + counts.vouched > 0;
  if (counts.proved === 0 && !open && !refuted) {
    return (
      <p
        role="status"
        data-testid={testId}
        className="text-quiet flex items-center gap-1.5 text-sm font-semibold"
      >
        <CircleDashed size={17} aria-hidden /> No row or round is read here: nothing is proved
      </p>
    );
  }
  const rest = [
    [counts.assumed, "assumed"],
    [counts.unchecked, "not checked"],
    [counts.wrong, "wrong"],
    [counts.not_understood, "not understood"],
    [counts.vouched, "vouched for"],
  ] as const;
  const words = [
    `${counts.proved} proved${counts.with_phrases > 0 ? ` (${counts.with_phrases} with your phrases)` : ""}`,
    ...rest.filter(([count]) => count > 0).map(([count, what]) => `${count} ${what}`),
  ].join(", ");
  const tone = stale ? "text-quiet" : refuted ? "text-wrong" : open ? "text-warn" : "text-sound";
  return (
    <p
      role="status"
      data-testid={testId}
      aria-busy={stale}
      className={`flex items-center gap-1.5 text-sm font-semibold ${tone}`}
    >
      {stale ? (
        <CircleDashed size={17} aria-hidden />
      ) : (
        <Mark mark={refuted ? "wrong" : open ? "unchecked" : "proved"} size={17} />
      )}
      {words}
      {tail}
      {stale && " – checking what you typed since"}
    </p>
  );
}
