import { Lock } from "lucide-react";
import { useState } from "react";
import type { GradingView, NumberView } from "../../api/schema";
import { useOpenDesign, useSelection } from "../../bench/context";
import { useGrading } from "../../bench/useGrading";
import { Drawings } from "../../drawing/Drawings";
import { Trouble } from "../../ui/Trouble";
import { GrowthTable } from "./GrowthTable";
import { Held, PlainNumbers, Unnamed } from "./Held";
import { StepHead } from "../StepHead";
import { Sideways } from "../../ui/Sideways";

/** What a step of a number does to the bag, or why nothing moves it. */
function Step({ number, grading }: { number: NumberView; grading: GradingView }) {
  const way = grading.ways[number.ways[0] ?? -1];
  if (!way) return <span>stays: {number.reason ?? "nothing moves it"}</span>;
  const by = way.step[number.name] ?? 0;
  const others = Object.keys(way.step).filter((name) => name !== number.name);
  const [most] = way.moves;
  return (
    <>
      {`${Math.abs(by)} at a time`}
      {others.length > 0 && `, with ${others.join(", ")}`}
      {most &&
        ` · ${most.piece ? `${most.piece.toLowerCase()} ` : ""}${most.label.toLowerCase()} ${most.shown}`}
    </>
  );
}

function Row({
  number,
  grading,
  onPoint,
}: {
  number: NumberView;
  grading: GradingView;
  /** The way of the row that is pointed at, or none. */
  onPoint: (way: number | null) => void;
}) {
  const design = useOpenDesign();
  const { selection, select } = useSelection();
  const chosen = selection?.number?.name === number.name ? selection.number.size : null;
  const marked =
    chosen !== null || (selection !== null && !selection.number && number.lines.includes(selection.line));
  return (
    <tr
      className={marked ? "bg-mark-soft" : "hover:bg-bank"}
      onMouseEnter={() => onPoint(number.ways[0] ?? null)}
      onMouseLeave={() => onPoint(null)}
      onFocus={() => onPoint(number.ways[0] ?? null)}
      onBlur={() => onPoint(null)}
    >
      <th scope="row" className="text-ink text-[15px]">
        {number.name}
        {number.places > 1 && <span className="text-quiet block text-[13px]">in {number.places} places</span>}
      </th>
      {number.values.map((value, index) => {
        const size = grading.sizes[index] ?? "";
        const lock = design.document.sizes.find((wish) => wish.name === size)?.locks[number.name];
        return (
          <td key={size}>
            <button
              type="button"
              aria-label={`${number.name}, ${size}: ${value}. Why?`}
              aria-pressed={chosen === index}
              data-testid={`number-${number.name.replaceAll(" ", "-")}-${index}`}
              className={`inline-flex min-w-12 items-center justify-center gap-1 rounded px-2 py-0.5 text-base font-semibold ${
                chosen === index ? "bg-sheet ring-mark ring-2" : "hover:bg-bank"
              }`}
              onClick={() => select({ line: number.line, number: { name: number.name, size: index } })}
            >
              {value}
              {lock !== undefined && <Lock size={13} aria-label={`locked at ${lock}`} />}
            </button>
          </td>
        );
      })}
      <td className="text-quiet text-left text-[13px]">
        <Step number={number} grading={grading} />
      </td>
    </tr>
  );
}

/** The step *Shape* of a design that is a text: its numbers by name, how they can move, and what stays. */
export function ShapeStep() {
  const design = useOpenDesign();
  const { data: grading, error, busy, again } = useGrading(design.document);
  const [pointed, setPointed] = useState<number | null>(null);
  const sections = [...new Set(grading?.numbers.map((number) => number.section))];
  return (
    <>
      <StepHead title="Shape" next={{ to: "yarn", title: "Yarn" }}>
        In which ways this bag can grow, found from its text. Each was worked and proved before it is offered.
      </StepHead>
      <p className="text-quiet min-h-5 text-sm" role="status">
        {busy && "Being checked: each number is moved, and the text worked again…"}
      </p>
      <Drawings ghost={pointed === null ? [] : (grading?.ways[pointed]?.ghosts ?? [])} />
      <Trouble error={busy ? null : error} again={again} />
      {grading?.problem && (
        <p role="alert" className="bg-mark-soft max-w-xl rounded-md px-3 py-2">
          This text is not graded yet. {grading.problem}
        </p>
      )}
      {grading && grading.problem === null && (
        <>
          <p className="mb-2">
            <strong>
              This bag grows in {grading.ways.length} {grading.ways.length === 1 ? "way" : "ways"}.
            </strong>{" "}
            {!grading.named && <Unnamed />}
          </p>
          <Sideways label="The numbers of each size">
            <table
              className="numbers size-columns"
              style={{ minWidth: `${26 + 5 * grading.sizes.length}rem` }}
            >
              <caption className="sr-only">The numbers of each size by name</caption>
              <thead>
                <tr>
                  <td style={{ width: "10rem" }} />
                  {grading.sizes.map((size) => (
                    <th
                      key={size}
                      scope="col"
                      className="max-w-40 px-1 align-bottom text-[15px] font-semibold break-words"
                      title={size}
                    >
                      {size}
                    </th>
                  ))}
                  <th scope="col" className="text-quiet w-72 text-left text-[13px] font-normal">
                    how it moves
                  </th>
                </tr>
              </thead>
              {sections.map((section) => (
                <tbody key={section}>
                  <tr>
                    <th
                      scope="rowgroup"
                      colSpan={grading.sizes.length + 2}
                      className="font-text text-ink pt-2 font-semibold"
                    >
                      {section}
                    </th>
                  </tr>
                  {grading.numbers
                    .filter((number) => number.section === section)
                    .map((number) => (
                      <Row key={number.name} number={number} grading={grading} onPoint={setPointed} />
                    ))}
                </tbody>
              ))}
            </table>
          </Sideways>
          <GrowthTable grading={grading} />
          <Held grading={grading} />
          <PlainNumbers grading={grading} />
        </>
      )}
    </>
  );
}
