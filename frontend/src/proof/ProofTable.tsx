import { TriangleAlert } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import type { LineView } from "../api/schema";
import { headsOf, SizeLegend } from "../ui/SizeNames";
import { Mark } from "./Mark";

// So many letters stand over the columns of all sizes together; over one of many at least so many.
const LETTERS = 36;
const LEAST_FIT = 6;

/** A line of the text in one size. */
export interface Picked {
  line: number;
  size: string;
}

interface Props {
  sizes: readonly string[];
  lines: readonly LineView[];
  /** The words of each line, shown when its label is pointed at. */
  words?: readonly string[];
  chosen: Picked | null;
  onChoose: (picked: Picked) => void;
}

function LineMark({ line }: { line: LineView }) {
  if (line.depends && line.mark === "proved")
    return (
      <span title={`true from the total stated in line ${line.depends}`} className="text-warn inline-flex">
        <TriangleAlert size={15} aria-label="depends on an earlier line" />
      </span>
    );
  return <Mark mark={line.mark} phrases={line.phrases} />;
}

/** Does a row stand in this line of the text? One that was broken stands in several. */
function covers(row: LineView, line: number): boolean {
  return row.line <= line && line <= row.last_line;
}

interface RowProps {
  line: LineView;
  /** Its words, shown when its label is pointed at. */
  words: string;
  /** Whether another section begins with it. */
  opens: boolean;
  sizes: readonly string[];
  /** The size that is chosen, where this is the chosen line. */
  chosen: string | null;
  /** The size that is chosen with its label. */
  size: string;
  onChoose: (picked: Picked) => void;
}

/** One line with its totals; it is drawn again only when it changed. */
const Row = memo(function Row({ line, words, opens, sizes, chosen, size, onChoose }: RowProps) {
  const here = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (chosen !== null) here.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  return (
    <tr ref={here} className={chosen === null ? "" : "bg-mark-soft"}>
      <th scope="row" className="max-w-44">
        {/* Its mark stands beside its label, in view however many sizes there are. */}
        <span className="flex items-center gap-1.5">
          <LineMark line={line} />
          <button
            type="button"
            className="block min-w-0 flex-1 truncate text-left"
            title={words}
            onClick={() => onChoose({ line: line.line, size })}
          >
            {opens && <span className="text-quiet">{line.section} · </span>}
            <strong className="text-ink font-medium">{line.label}</strong>
          </button>
        </span>
      </th>
      {line.sts.map((sts, at) => {
        const stated = line.stated[at];
        const off = stated !== null && stated !== undefined && sts !== null && stated !== sts;
        const name = sizes[at] ?? "";
        return (
          <td key={at} className={off ? `font-semibold ${line.depends ? "text-warn" : "text-wrong"}` : ""}>
            <button
              type="button"
              aria-pressed={name === chosen}
              aria-label={`${line.label}, ${name}: ${sts ?? "not known"}${off ? `, not ${stated}` : ""}`}
              className={`tabular hover:bg-bank min-w-8 rounded px-0.5 ${name === chosen ? "outline-mark outline-2" : ""}`}
              onClick={() => onChoose({ line: line.line, size: name })}
            >
              {sts ?? "–"}
              {off && <span className="text-quiet block font-normal whitespace-nowrap"> not {stated}</span>}
            </button>
          </td>
        );
      })}
    </tr>
  );
});

/** Every line of a text with its total in each size; a total can be chosen, to see how it comes about. */
export function ProofTable({ sizes, lines, words, chosen, onChoose }: Props) {
  const size = chosen?.size ?? sizes[0] ?? "";
  const fits = Math.max(LEAST_FIT, Math.floor(LETTERS / Math.max(sizes.length, 1)));
  const heads = headsOf(sizes, fits);
  return (
    <>
      <SizeLegend sizes={sizes} fits={fits} />
      <table className="numbers size-columns proof-table text-sm">
        <caption className="sr-only">Lines of the pattern with their totals in each size</caption>
        <thead>
          <tr>
            <td className="text-quiet text-left text-[13px]">stitches</td>
            {sizes.map((name, at) => (
              <th key={name} scope="col" className="px-1" title={name}>
                {heads[at]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line, index) => (
            <Row
              key={`${line.line} ${line.label}`}
              line={line}
              words={words?.[index] ?? ""}
              opens={lines[index - 1]?.section !== line.section}
              sizes={sizes}
              chosen={chosen !== null && covers(line, chosen.line) ? size : null}
              size={size}
              onChoose={onChoose}
            />
          ))}
        </tbody>
      </table>
    </>
  );
}
