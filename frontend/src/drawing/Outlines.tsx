import { memo } from "react";
import type { DrawingView, DrawnPathView, ViewOfSizes } from "../api/schema";
import { shadeOf } from "./scale";

const LINE: Record<string, { stroke: string; dash?: string; width: number }> = {
  fold: { stroke: "var(--ink)", dash: "6 4", width: 1.6 },
  edge: { stroke: "var(--quiet)", dash: "4 6", width: 2.2 },
  strap: { stroke: "var(--bar-to)", width: 3 },
};

function One({
  outline,
  shade,
  chosen,
  onSelect,
}: {
  outline: DrawnPathView;
  shade: string;
  chosen: boolean;
  onSelect: ((line: number) => void) | undefined;
}) {
  const line = LINE[outline.kind];
  const title = outline.label && (
    <title>{outline.sts === null ? outline.label : `${outline.label}: ${outline.sts} sts`}</title>
  );
  if (line && !(outline.kind === "strap" && outline.line > 0))
    return (
      <path
        d={outline.d}
        fill="none"
        stroke={line.stroke}
        strokeWidth={line.width}
        strokeDasharray={line.dash}
        vectorEffect="non-scaling-stroke"
      >
        {title}
      </path>
    );
  const fill = outline.kind === "body" ? "var(--line)" : chosen ? "var(--mark)" : shade;
  const select = onSelect && outline.line > 0 ? () => onSelect(outline.line) : undefined;
  return (
    <path
      d={outline.d}
      data-line={outline.line || undefined}
      data-kind={outline.kind}
      className={select ? "cursor-pointer" : ""}
      fill={fill}
      fillOpacity={outline.kind === "flap" ? 0.75 : 1}
      stroke="var(--sheet)"
      strokeWidth={0.7}
      vectorEffect="non-scaling-stroke"
      onClick={select}
    >
      {title}
    </path>
  );
}

export interface Shown {
  drawing: DrawingView;
  index: number;
  name: string;
}

/** The words of a drawing for those who do not see it. */
export function described(view: ViewOfSizes, { drawing, name }: Shown): string {
  return `${view.title}, ${name}: ${drawing.spans.map((span) => span.text).join(" by ")}`;
}

/** One or several sizes of a view in one frame; its lengths are written where one stands alone. */
export const Outlines = memo(function Outlines({
  view,
  shown,
  count,
  line,
  ghost,
  label,
  onSelect,
}: {
  view: ViewOfSizes;
  shown: readonly Shown[];
  count: number;
  line: number | null;
  ghost?: string | undefined;
  label: string;
  onSelect?: ((line: number) => void) | undefined;
}) {
  const { box } = view;
  const margin = Math.max(box.width, box.height) * 0.04 + 2;
  const frame = [box.x - margin, box.y - margin, box.width + 2 * margin, box.height + 2 * margin];
  const over = shown.length > 1;
  return (
    <svg
      viewBox={frame.join(" ")}
      className="mx-auto block h-full max-h-full w-full"
      role="img"
      aria-label={label}
      preserveAspectRatio="xMidYMax meet"
    >
      {[...shown].reverse().map(({ drawing, index }) => (
        <g key={index} opacity={over ? 0.62 : 1} data-testid={`drawing-${index}`}>
          {drawing.outlines.map((outline, at) => (
            <One
              key={at}
              outline={outline}
              shade={shadeOf(index, count)}
              chosen={line !== null && outline.line === line}
              onSelect={onSelect}
            />
          ))}
        </g>
      ))}
      {ghost && (
        <path
          d={ghost}
          fill="none"
          stroke="var(--mark)"
          strokeWidth={1.6}
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
          data-testid="ghost"
        />
      )}
    </svg>
  );
});
