import { memo } from "react";
import type { SizeView } from "../api/schema";
import { shadeOf, type Frame } from "./scale";

interface Props {
  size: SizeView;
  index: number;
  count: number;
  frame: Frame;
  line: number | null;
  onSelect?: (line: number) => void;
}

const FLAT_LOW = 0.95;
const FLAT_HIGH = 1.05;

function flatWord(q: number): string {
  if (q < FLAT_LOW) return "cups";
  return q > FLAT_HIGH ? "ruffles" : "flat";
}

/** Increases at the two ends of a ring, spread as the wedges are. */
function marks(straight: number, radius: number, each: number): { x: number; y: number }[] {
  return Array.from({ length: each }, (_, k) => ((k + 0.5) / each) * Math.PI).flatMap((angle) => [
    { x: straight / 2 + radius * Math.sin(angle), y: -radius * Math.cos(angle) },
    { x: -straight / 2 - radius * Math.sin(angle), y: radius * Math.cos(angle) },
  ]);
}

/** The base from above: rounds as rings to scale, increases as dots, flatness said round by round. */
export const BaseRings = memo(function BaseRings({ size, index, count, frame, line, onSelect }: Props) {
  const shape = size.shape;
  const rings = shape?.rounds.filter((round) => round.flatness !== null) ?? [];
  if (!shape || rings.length === 0) return null;
  const shade = shadeOf(index, count);
  return (
    <svg
      viewBox={`${-frame.width / 2} ${-frame.baseHeight / 2} ${frame.width} ${frame.baseHeight}`}
      className="mx-auto block max-h-24 w-full"
      role="img"
      aria-label={`Base of ${size.name} from above, ${rings.length} rounds`}
    >
      {rings.map((ring, at) => {
        const radius = (at + 1) * ring.height_mm;
        const q = ring.flatness ?? 1;
        const word = flatWord(q);
        const chosen = ring.line === line;
        return (
          <g
            key={ring.number}
            data-line={ring.line}
            className={onSelect ? "cursor-pointer" : ""}
            onClick={onSelect ? () => onSelect(ring.line) : undefined}
          >
            <title>{`Rnd ${ring.number}: ${ring.sts} sts, ${word} (${q.toFixed(2)})`}</title>
            <rect
              x={-shape.straight_mm / 2 - radius}
              y={-radius}
              width={shape.straight_mm + 2 * radius}
              height={2 * radius}
              rx={radius}
              fill="none"
              pointerEvents="stroke"
              strokeWidth={ring.height_mm * 0.62}
              style={{ stroke: chosen ? "var(--mark)" : word === "flat" ? shade : "var(--wrong)" }}
            />
            {at > 0 &&
              marks(shape.straight_mm, radius, shape.increases / 2).map((point) => (
                <circle
                  key={`${point.x},${point.y}`}
                  cx={point.x}
                  cy={point.y}
                  r={ring.height_mm * 0.17}
                  fill="var(--sheet)"
                  pointerEvents="none"
                />
              ))}
          </g>
        );
      })}
    </svg>
  );
});

/** One word for a base: flat, or where it first is not. */
export function flatnessOf(size: SizeView): { word: string; q: number } | null {
  const last = size.shape?.rounds.filter((round) => round.flatness !== null).at(-1);
  if (!last || last.flatness === null) return null;
  return { word: flatWord(last.flatness), q: last.flatness };
}
