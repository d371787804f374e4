import { memo } from "react";
import type { RoundView, SizeView } from "../api/schema";
import { handleRise, shadeOf, type Frame } from "./scale";

interface Props {
  size: SizeView;
  index: number;
  count: number;
  frame: Frame;
  /** The selected line of the text: its rounds are marked. */
  line: number | null;
  /** What the size should measure, in mm: drawn as a dotted outline. */
  wanted?: { width_mm: number; height_mm: number };
  onSelect?: (line: number) => void;
}

interface Bar {
  round: RoundView;
  y: number;
}

function bars(rounds: readonly RoundView[]): Bar[] {
  let y = 0;
  return rounds
    .filter((round) => round.flatness === null)
    .map((round) => {
      const bar = { round, y };
      y += round.height_mm;
      return bar;
    });
}

/** A bag drawn from its own rounds: each a bar as wide as the flat bag is there, to scale (1 unit = 1 mm). */
export const Silhouette = memo(function Silhouette(props: Props) {
  const { size, index, count, frame, line, wanted, onSelect } = props;
  const shape = size.shape;
  if (!shape) return null;
  const shade = shadeOf(index, count);
  const middle = frame.width / 2;
  const floor = frame.height - 12;
  const all = bars(shape.rounds);
  const handles = all.filter(({ round }) => round.gap_mm > 0);
  const opening = handles[0];
  const marked = all.filter(({ round }) => round.line === line);
  const first = marked[0];
  const last = marked.at(-1);
  const thick = handles.reduce((sum, { round }) => sum + round.height_mm, 0);
  const label =
    first && last
      ? first === last
        ? `Rnd ${first.round.number}: ${first.round.sts}`
        : `Rnds ${first.round.number}–${last.round.number}: ${last.round.sts}`
      : "";
  const labelY = last ? Math.max(16, floor - last.y - last.round.height_mm - 6) : 0;
  const pixels = 1.15 * (frame.width / 150);
  return (
    <svg
      viewBox={`0 0 ${frame.width} ${frame.height}`}
      className="mx-auto block max-h-62 w-full"
      role="img"
      aria-label={`${size.name}: ${size.measures.map((m) => `${m.label.toLowerCase()} ${m.result}`).join(", ")}`}
      preserveAspectRatio="xMidYMax meet"
      data-testid={`silhouette-${index}`}
    >
      {opening && (
        <path
          d={arch(middle, floor - opening.y, opening.round.gap_mm, handleRise(size), thick)}
          fill="none"
          stroke={handles.some(({ round }) => round.line === line) ? "var(--mark)" : shade}
          strokeWidth={thick}
          opacity={0.92}
        />
      )}
      {all.map(({ round, y }) => {
        const chosen = round.line === line;
        const style = { fill: chosen ? "var(--mark)" : shade };
        const top = floor - y - round.height_mm;
        const high = round.height_mm * 0.78;
        const left = middle - round.width_mm / 2;
        const side = (round.width_mm - round.gap_mm) / 2;
        const select = onSelect ? () => onSelect(round.line) : undefined;
        const key = `${round.section}-${round.number}`;
        const title = <title>{`Rnd ${round.number}: ${round.sts} sts`}</title>;
        if (round.gap_mm > 0) {
          return (
            <g
              key={key}
              onClick={select}
              className={onSelect ? "cursor-pointer" : ""}
              style={style}
              data-line={round.line}
            >
              {title}
              <rect x={left} y={top} width={side} height={high} rx={1} />
              <rect x={left + side + round.gap_mm} y={top} width={side} height={high} rx={1} />
            </g>
          );
        }
        return (
          <g
            key={key}
            onClick={select}
            className={onSelect ? "cursor-pointer" : ""}
            style={style}
            data-line={round.line}
          >
            {title}
            <rect x={left} y={top} width={round.width_mm} height={high} rx={1} />
          </g>
        );
      })}
      {wanted && (
        <rect
          x={middle - wanted.width_mm / 2}
          y={floor - wanted.height_mm}
          width={wanted.width_mm}
          height={wanted.height_mm}
          fill="none"
          stroke="var(--ink)"
          strokeDasharray={`${2.5 * pixels} ${2.5 * pixels}`}
          strokeWidth={0.6 * pixels}
          opacity={0.65}
          pointerEvents="none"
        />
      )}
      {last && label && (
        <g pointerEvents="none">
          <rect
            x={middle - 3.3 * pixels * label.length}
            y={labelY - 12 * pixels}
            width={6.6 * pixels * label.length}
            height={16 * pixels}
            rx={4 * pixels}
            fill="var(--mark-soft)"
            stroke="var(--mark)"
            strokeWidth={0.8 * pixels}
          />
          <text
            x={middle}
            y={labelY}
            textAnchor="middle"
            fontSize={11 * pixels}
            fontWeight={600}
            fill="var(--ink)"
          >
            {label}
          </text>
        </g>
      )}
    </svg>
  );
});

/** A handle as it hangs, from its two feet over the opening up to its rise. */
function arch(middle: number, foot: number, gap: number, rise: number, thick: number): string {
  const half = gap / 2 - thick / 2;
  const top = rise - thick / 2;
  const x = Math.max(half, thick / 2);
  return `M ${middle - x} ${foot} C ${middle - x} ${foot - top * 1.33}, ${middle + x} ${foot - top * 1.33}, ${middle + x} ${foot}`;
}
