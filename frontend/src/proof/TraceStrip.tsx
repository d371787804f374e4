import { useEffect, useRef, useState } from "react";
import type { TraceStitchView, TraceView } from "../api/schema";

const UNIT = 27;
const LEFT = 62;
const TOP = 34;
const BOTTOM = 112;
const HEIGHT = 150;
// Names longer than this would run into the next stitch.
const SHORT = 4;

function place(x: number): number {
  return LEFT + x * UNIT;
}

/** A long name is set smaller, so that it stays within its box. */
function nameClass(label: string): string {
  return label.length > 3 ? "fill-ink text-[8.5px]" : "fill-ink text-[10.5px]";
}

function isOf(stitch: TraceStitchView, step: number | null): boolean {
  return stitch.step === step;
}

function every(count: number): number {
  return count > 60 ? 10 : 5;
}

function Below({ trace }: { trace: TraceView }) {
  const looks: Readonly<Record<string, string>> = {
    worked: "fill-bank stroke-line",
    skipped: "fill-none stroke-quiet [stroke-dasharray:3_2]",
    passed: "fill-none stroke-line",
    left: "fill-mark-soft stroke-mark",
  };
  return (
    <g>
      {trace.below.map((one, index) => (
        <g key={index} transform={`translate(${place(one.x)} ${BOTTOM})`}>
          <title>{`Place ${index + 1}: ${one.label}, ${one.became === "left" ? "not worked" : one.became}`}</title>
          <rect x={-12} y={-10} width={24} height={20} rx={6} className={looks[one.became] ?? ""} />
          <text className={nameClass(one.label)} textAnchor="middle" y={4}>
            {one.label.slice(0, SHORT)}
          </text>
          {(index + 1) % every(trace.below.length) === 0 && (
            <text className="fill-quiet text-[10.5px]" textAnchor="middle" y={26}>
              {index + 1}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

function Above({ trace, step }: { trace: TraceView; step: number | null }) {
  return (
    <g>
      {trace.made.map((stitch, index) => {
        const lit = isOf(stitch, step);
        const isSpace = stitch.kind === "sp";
        const count = stitch.number;
        return (
          <g key={index}>
            {stitch.into.map((at) => (
              <line
                key={at}
                x1={place(stitch.x)}
                y1={TOP + 10}
                x2={place(trace.below[at]?.x ?? stitch.x)}
                y2={BOTTOM - 10}
                className={lit ? "stroke-mark stroke-2" : "stroke-rill"}
              />
            ))}
            <g transform={`translate(${place(stitch.x)} ${TOP})`}>
              <title>{`${isSpace ? "Space" : `Stitch ${count}`}: ${stitch.label}${stitch.closed ? ", closed into a picot" : ""}`}</title>
              <rect
                x={-12}
                y={-10}
                width={24}
                height={20}
                rx={isSpace ? 10 : 4}
                className={
                  lit
                    ? "fill-mark-soft stroke-mark"
                    : isSpace
                      ? "stroke-rill fill-none"
                      : "fill-rill-soft stroke-rill"
                }
              />
              <text className={nameClass(stitch.label)} textAnchor="middle" y={4}>
                {stitch.label.slice(0, isSpace ? 5 : SHORT)}
              </text>
              {!isSpace && count % every(trace.made.length) === 0 && (
                <text className="fill-quiet text-[10.5px]" textAnchor="middle" y={-15}>
                  {count}
                </text>
              )}
            </g>
          </g>
        );
      })}
    </g>
  );
}

/** Where the row comes to a stop: the place ahead, or as many places as are missing. */
function Failing({ trace, end }: { trace: TraceView; end: number }) {
  if (trace.trouble === null) return null;
  const ahead = trace.ahead === null ? null : trace.below[trace.ahead];
  const x = ahead ? place(ahead.x) : end;
  const ghosts = ahead ? 0 : Math.min(trace.missing, 6);
  return (
    <g data-testid="trace-failing">
      {Array.from({ length: ghosts }, (_, index) => (
        <rect
          key={index}
          x={x - 12 + index * UNIT}
          y={BOTTOM - 10}
          width={24}
          height={20}
          rx={6}
          className="stroke-wrong fill-none [stroke-dasharray:3_2]"
        />
      ))}
      {ahead && (
        <rect
          x={x - 14}
          y={BOTTOM - 12}
          width={28}
          height={24}
          rx={7}
          className="stroke-wrong fill-none stroke-2"
        />
      )}
      <path d={`M${x} ${BOTTOM - 16}l-6 -11h12z`} className="fill-wrong" />
      <text x={x} y={BOTTOM + 26} textAnchor="middle" className="fill-wrong text-[12px] font-semibold">
        {trace.missing > 0 && !ahead ? `${trace.missing} missing` : "here"}
      </text>
    </g>
  );
}

/** The words of a step with what it takes and makes; pointing at it lights up its stitches. */
function Steps({
  trace,
  lit,
  onStep,
}: {
  trace: TraceView;
  lit: number | null;
  onStep: (step: number | null) => void;
}) {
  return (
    <ul className="flex flex-wrap gap-1.5" aria-label="The steps of this row">
      {trace.steps.map((step, index) => (
        <li key={index}>
          <button
            type="button"
            className={`rounded border px-2 py-0.5 text-left text-[13px] ${
              index === lit ? "border-mark bg-mark-soft" : step.stops ? "border-wrong" : "border-line"
            }`}
            onClick={() => onStep(index === lit ? null : index)}
            onMouseEnter={() => onStep(index)}
            onMouseLeave={() => onStep(null)}
          >
            <span className="font-text">{step.words}</span>{" "}
            {step.stops ? (
              <span className="text-wrong whitespace-nowrap">stops here</span>
            ) : (
              <span className="text-quiet tabular whitespace-nowrap">
                takes {step.took}, makes {step.made}
              </span>
            )}
          </button>
        </li>
      ))}
    </ul>
  );
}

/** The work before and after one row, unrolled: each new stitch above the place that it went into. */
export function TraceStrip({ trace }: { trace: TraceView }) {
  const [step, setStep] = useState<number | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const last = trace.below.at(-1);
  const end = last ? place(last.x) + UNIT : LEFT;
  const width = place(trace.width) + UNIT * (trace.trouble === null ? 2 : 2 + Math.min(trace.missing, 6));
  const stop = trace.ahead === null ? end : place(trace.below[trace.ahead]?.x ?? 0);
  const failed = trace.trouble !== null;
  const first = trace.made.find((stitch) => isOf(stitch, step));
  useEffect(() => {
    // To where the trouble is; a row without any is shown from its start.
    box.current?.scrollTo({ left: failed ? stop - 320 : 0 });
  }, [trace.line, trace.size, trace.turn, failed, stop]);
  useEffect(() => {
    const host = box.current;
    if (!host || !first) return;
    const x = place(first.x);
    if (x < host.scrollLeft + 40 || x > host.scrollLeft + host.clientWidth - 60)
      host.scrollTo({ left: x - 120 });
  }, [first]);
  const summary = `${trace.label}, size ${trace.size}: ${trace.took} of ${trace.below.length} places below are used, ${trace.sts} stitches are made${trace.spaces ? ` with ${trace.spaces} spaces` : ""}.`;
  return (
    <div className="space-y-2">
      <div
        ref={box}
        className="sheet overflow-x-auto"
        role="region"
        aria-label="Trace"
        // It scrolls by itself, so it can be reached by keyboard.
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
        tabIndex={0}
      >
        <svg width={Math.max(width, 300)} height={HEIGHT} role="img" aria-label={summary}>
          <text x={8} y={TOP + 4} className="fill-quiet text-[11px]">
            after
          </text>
          <text x={8} y={BOTTOM + 4} className="fill-quiet text-[11px]">
            before
          </text>
          <Below trace={trace} />
          <Above trace={trace} step={step} />
          <Failing trace={trace} end={end} />
        </svg>
      </div>
      {trace.trouble !== null && <p className="text-wrong text-sm font-medium">{trace.trouble}.</p>}
      <Steps trace={trace} lit={step} onStep={setStep} />
    </div>
  );
}
