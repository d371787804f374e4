import { FileDown, X } from "lucide-react";
import { useState, type ReactNode } from "react";
import type { ChartView } from "../api/schema";
import { Choice } from "../ui/Choice";
import { Help } from "../ui/Help";
import { Select } from "../ui/Select";
import { Trouble } from "../ui/Trouble";
import { TraceStrip } from "./TraceStrip";
import { useChart, useTrace, type LineAsked } from "./useLine";

type View = "trace" | "chart";

interface Props {
  /** The whole text, and what it is written in where that is said beside it. */
  text: string;
  terms: "US" | "UK" | null;
  line: number;
  size: string;
  sizes: readonly string[];
  /** Terms and hand that it is shown in. */
  into: "US" | "UK";
  hand: "right" | "left";
  onSize: (size: string) => void;
  onClose: () => void;
  children?: ReactNode;
}

/** A strip begins at its right end for right-handers: it is scrolled to where the work begins. */
function atStart(right: boolean) {
  return (box: HTMLDivElement | null): void => {
    if (box) box.scrollLeft = right ? box.scrollWidth : 0;
  };
}

function asFile(chart: ChartView): void {
  const url = URL.createObjectURL(new Blob([chart.svg], { type: "image/svg+xml" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${chart.title.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-")}.svg`;
  link.click();
  URL.revokeObjectURL(url);
}

function Trace({ asked, onTurn }: { asked: LineAsked; onTurn: (turn: number) => void }) {
  const trace = useTrace(asked);
  if (trace.error) return <Trouble error={trace.error} />;
  if (!trace.data) return <p className="text-quiet text-sm">Working it stitch by stitch…</p>;
  return (
    <>
      {trace.data.turns > 1 && (
        <Select
          label="Round of this line"
          beside
          className="w-20"
          value={String(asked.turn)}
          onChange={(turn) => onTurn(Number(turn))}
        >
          {Array.from({ length: trace.data.turns }, (_, turn) => (
            <option key={turn} value={turn}>
              {turn + 1}
            </option>
          ))}
        </Select>
      )}
      <TraceStrip trace={trace.data} />
    </>
  );
}

function Chart({ asked }: { asked: LineAsked }) {
  const chart = useChart(asked);
  if (chart.error) return <Trouble error={chart.error} />;
  if (!chart.data) return <p className="text-quiet text-sm">Drawing the chart…</p>;
  const made = chart.data;
  return (
    <figure className="space-y-2">
      <button type="button" className="button-plain" onClick={() => asFile(made)}>
        <FileDown size={15} aria-hidden /> SVG
      </button>
      <div
        className="overflow-auto"
        ref={atStart(asked.hand === "right" && !made.around)}
        role="region"
        aria-label="Chart"
        // It scrolls by itself, so it can be reached by keyboard.
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
        tabIndex={0}
      >
        <img
          className={`border-line rounded-lg border bg-white ${made.around ? "max-h-[44vh] w-auto" : "max-w-none"}`}
          alt={made.title}
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(made.svg)}`}
        />
      </div>
    </figure>
  );
}

/** One line in one size: how it comes about, stitch by stitch, and as a chart. */
export function LinePanel({ line, size, sizes, into, hand, onSize, onClose, text, terms, children }: Props) {
  const [view, setView] = useState<View>("trace");
  const [turn, setTurn] = useState({ line, turn: 0 });
  const words = text.split("\n")[line - 1] ?? "";
  const asked = { text, terms, line, size, turn: turn.line === line ? turn.turn : 0, into, hand };
  return (
    <section
      aria-label="The line"
      className="border-line bg-paper space-y-2 overflow-auto border-t px-4 py-2.5"
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Choice
          label="How the line is shown"
          hideLabel
          value={view}
          options={[
            ["trace", "Trace"],
            ["chart", "Chart"],
          ]}
          onChange={setView}
        />
        {sizes.length > 1 && (
          <Select label="Size" beside className="w-32" value={size} onChange={onSize}>
            {sizes.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Select>
        )}
        <p className="font-text min-w-0 flex-1 truncate text-sm" title={words}>
          {words}
        </p>
        {view === "trace" && (
          <Help term="Trace">
            Below is the work before this row, above it the row itself, in the order of work from left to
            right. Each line shows which place a stitch goes into. Dashed places are skipped, yellow ones are
            left over.
          </Help>
        )}
        {children}
        <button type="button" className="button-bare" onClick={onClose} aria-label="Close the line">
          <X size={16} aria-hidden />
        </button>
      </div>
      {view === "trace" ? (
        <Trace asked={asked} onTurn={(next) => setTurn({ line, turn: next })} />
      ) : (
        <Chart asked={asked} />
      )}
    </section>
  );
}
