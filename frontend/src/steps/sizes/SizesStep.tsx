import { useMutation } from "@tanstack/react-query";
import { Plus, Ruler } from "lucide-react";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { BagMeasureView, GradedView } from "../../api/schema";
import { useBench, useChange, useDocument, useFault, useOpenDesign, useSelection } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { useRepair } from "../../bench/useRepair";
import { Drawings } from "../../drawing/Drawings";
import { Questions } from "../../proof/Questions";
import { NumberField } from "../../ui/NumberField";
import { Trouble } from "../../ui/Trouble";
import { StepHead } from "../StepHead";
import { perUnit } from "../units";
import { Contents, Holds } from "./Contents";
import { Preview } from "./Preview";
import { SizeHead } from "./SizeHead";
import { Steps } from "./Steps";
import { useGraded, useLiveGrading } from "./useLiveGrading";
import { columnsOf, freshName, sampleOf, sizesOfText, withLock, withTarget, type Column } from "./wishes";
import { Sideways } from "../../ui/Sideways";

type Live = ReturnType<typeof useLiveGrading>;

/** What a size measures, and what it shall measure: an empty field is no wish. */
function Cell({
  column,
  measure,
  sample,
  live,
}: {
  column: Column;
  measure: BagMeasureView;
  sample: boolean;
  live: Live;
}) {
  const design = useOpenDesign();
  const { work } = useBench();
  const inText = sizesOfText(design.document, work);
  const per = perUnit(design.document);
  const craft = useCraft();
  const fault = useFault();
  const { name } = column.wish;
  const place = design.document.sizes.findIndex((wish) => wish.name === name);
  const now = column.at < 0 ? null : (measure.shown[column.at] ?? null);
  const wanted = column.wish.targets_mm[measure.name];
  const tolerance =
    column.wish.tolerances_mm[measure.name] ??
    craft?.usual_tolerances_mm[measure.name] ??
    craft?.usual_tolerance_mm ??
    0;
  const mm = column.at < 0 ? null : (measure.mm[column.at] ?? null);
  const off = wanted !== undefined && mm !== null && Math.abs(mm - wanted) > tolerance;
  const comes = live.graded?.targets.find((each) => each.size === name && each.name === measure.name);
  if (sample)
    return (
      <td className="font-semibold" title={measure.why[column.at] ?? ""}>
        {now ?? "–"}
      </td>
    );
  return (
    <td className="align-top">
      <NumberField
        className="mx-auto w-20"
        label={`${measure.piece ? `${measure.piece}: ` : ""}${measure.label} of ${name}`}
        hideLabel
        optional
        per={per}
        value={wanted ?? null}
        fault={fault(`$.sizes[${place}].targets_mm.${measure.name}`)}
        onChange={(value) =>
          design.change(`target.${name}.${measure.name}`, (d) =>
            withTarget(d, inText, name, measure.name, value),
          )
        }
        onClear={() => design.change("", (d) => withTarget(d, inText, name, measure.name, null))}
      />
      {comes ? (
        <span
          data-testid={`comes-to-${name}-${measure.name}`}
          className={`text-[13px] font-semibold ${comes.within ? "text-sound" : "text-wrong"} ${live.stale ? "opacity-50" : ""}`}
          title={`${comes.difference} from what is wanted`}
        >
          → {comes.result}
        </span>
      ) : (
        <span className={`text-[13px] ${off ? "text-wrong font-semibold" : "text-quiet"}`}>
          {now === null ? "" : `is ${now}`}
        </span>
      )}
    </td>
  );
}

/** The measures by piece; pieces of the body only where they are asked for, or have a target. */
function groups(
  measures: readonly BagMeasureView[],
  all: boolean,
  columns: readonly Column[],
): [string | null, BagMeasureView[]][] {
  const wanted = new Set(columns.flatMap((column) => Object.keys(column.wish.targets_mm)));
  const whole = measures.some((measure) => measure.piece === null);
  const shown = measures.filter((measure) => all || !whole || !measure.of_body || wanted.has(measure.name));
  return byPiece(shown);
}

function byPiece(measures: readonly BagMeasureView[]): [string | null, BagMeasureView[]][] {
  const pieces = [...new Set(measures.map((measure) => measure.piece))];
  return pieces.map((piece) => [piece, measures.filter((measure) => measure.piece === piece)]);
}

/** How wide a column is, in rem: its name is read in its field as a whole, unless it is very long. */
function widthOf(column: Column): number {
  return Math.min(14, Math.max(6.75, 0.6 * column.wish.name.length + 2));
}

/** The step *Sizes* of a design that is a text: targets by the measures that this bag has. */
export function SizesStep() {
  const design = useOpenDesign();
  const { work } = useBench();
  const { document } = design;
  const craft = useCraft();
  const [preview, setPreview] = useState<GradedView | null>(null);
  const [all, setAll] = useState(false);
  const ask = useGraded();
  const grade = useMutation({
    mutationFn: ask,
    onSuccess: setPreview,
  });
  const inText = sizesOfText(document, work);
  const columns = columnsOf(document, inText);
  const full = { ...document, sizes: columns.map((column) => column.wish) };
  const live = useLiveGrading(full, columns.length > 1 && (work?.ok ?? false) && inText.current);
  if (!work) return null;
  const start = sampleOf(document, inText);
  const names = columns.map((column) => column.wish.name);
  const rems = columns.map(widthOf);
  const wantedMeasures = new Set(columns.flatMap((column) => Object.keys(column.wish.targets_mm)));
  const add = () =>
    design.change("", () => ({
      ...full,
      sizes: [...full.sizes, { name: freshName(names), targets_mm: {}, tolerances_mm: {}, locks: {} }],
    }));
  if (work.bag.length === 0) return <NoMeasures />;
  return (
    <>
      <StepHead title="Sizes" next={{ to: "shape", title: "Shape" }}>
        What each size shall measure. A field that is left empty is no wish; that measure follows.
      </StepHead>
      <Drawings height={130} />
      <Open />
      <Sideways label="The measures of each size">
        <table
          className="numbers size-columns"
          style={{ minWidth: `${12 + rems.reduce((sum, one) => sum + one, 0)}rem` }}
        >
          <caption className="sr-only">Measures of each size, as they are and as they are wanted</caption>
          <colgroup>
            <col style={{ width: "12rem" }} />
            {columns.map((column) => (
              <col key={column.wish.name} style={{ width: `${widthOf(column)}rem` }} />
            ))}
          </colgroup>
          <thead>
            <tr>
              <td />
              {columns.map((column) => (
                <th
                  key={column.wish.name}
                  scope="col"
                  className="px-1 pb-1 align-top text-[15px] font-semibold"
                >
                  <SizeHead column={column} columns={columns} sample={column.wish.name === start} />
                </th>
              ))}
            </tr>
          </thead>
          <Contents columns={columns} start={start} />
          {groups(work.bag, all, columns).map(([piece, measures]) => (
            <tbody key={piece ?? ""}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={columns.length + 1}
                  className="font-text text-ink pt-2 font-semibold"
                >
                  {piece ?? "The bag"}
                </th>
              </tr>
              {measures.map((measure) => (
                <tr key={measure.name}>
                  <th scope="row">
                    {measure.label} ({document.units})
                    {measure.estimated && <span className="block">estimated</span>}
                    {wantedMeasures.has(measure.name) && <Counts measure={measure} />}
                  </th>
                  {columns.map((column) => (
                    <Cell
                      key={column.wish.name}
                      column={column}
                      measure={measure}
                      sample={column.wish.name === start}
                      live={live}
                    />
                  ))}
                </tr>
              ))}
            </tbody>
          ))}
          <Steps columns={columns} start={start} />
          <Holds columns={columns} />
        </table>
      </Sideways>
      <div className="bg-paper border-line z-20 mt-3 flex flex-wrap items-center gap-3 border-t py-2 lg:sticky lg:-bottom-4 lg:-mx-5 lg:px-5">
        <button
          type="button"
          className="button-plain"
          disabled={columns.length >= (craft?.most_sizes ?? 1)}
          onClick={add}
        >
          <Plus size={16} aria-hidden /> Add a size
        </button>
        <button
          type="button"
          className="button"
          disabled={columns.length < 2 || grade.isPending || !work.ok}
          onClick={() => {
            if (full.sizes.length !== document.sizes.length) design.change("", () => full);
            grade.mutate(full);
          }}
        >
          <Ruler size={16} aria-hidden />{" "}
          {grade.isPending ? "Finding and proving the sizes…" : "Grade to these"}
        </button>
        <label className="text-quiet flex items-center gap-1.5 text-sm">
          <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} />
          Measures of each piece, too
        </label>
        {/* Of one height, whatever it says: else the buttons move away under the hand that presses them. */}
        <p
          className="text-quiet h-10 min-w-60 flex-1 overflow-auto text-[13px] leading-5"
          role="status"
          aria-label="What the sizes come to"
          // It scrolls by itself, so it can be reached by keyboard.
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
          tabIndex={0}
        >
          {grade.isPending
            ? "Each size is worked stitch by stitch. This takes a few seconds for a long text."
            : columns.length < 2
              ? "Add a size, and say what it shall measure."
              : !work.ok
                ? "The text has to be proved first: see the findings."
                : live.busy
                  ? "Finding what comes nearest…"
                  : live.graded
                    ? `${live.graded.problem ?? (live.graded.notes.length > 0 ? live.graded.notes.join(" ") : "All of them come out within their tolerances.")} ${live.graded.changes.length === 0 ? "The text is so already." : "Nothing is changed yet."}`
                    : "You see what changes in the text before it changes."}
        </p>
      </div>
      {grade.error ? (
        <Trouble error={grade.error} again={() => grade.mutate(full)} />
      ) : (
        <Trouble error={live.error} again={live.again} />
      )}
      <Preview
        graded={preview}
        onClose={() => setPreview(null)}
        busy={grade.isPending}
        onInstead={(other) => {
          const locked = Object.entries(other.locks).reduce(
            (now, [name, value]) => withLock(now, inText, other.size, name, value),
            full,
          );
          design.change("", () => locked);
          grade.mutate(locked);
        }}
        onTake={(graded) => {
          // In the order in which they were written; the sample stays the one that it was.
          const sizes = full.sizes.toSorted(
            (one, other) => graded.sizes.indexOf(one.name) - graded.sizes.indexOf(other.name),
          );
          design.change("", () => ({ ...full, text: graded.text, sizes, sample: start }));
          setPreview(null);
        }}
      />
    </>
  );
}

const COUNTS = [
  [1, "counts"],
  [4, "counts more"],
  [0.25, "counts less"],
  [0, "does not count"],
] as const;

/** How much a measure counts, where not all can be met. */
function Counts({ measure }: { measure: BagMeasureView }) {
  const change = useChange();
  const weight = useDocument().weights[measure.name] ?? 1;
  return (
    <select
      className="text-quiet block bg-transparent text-[13px]"
      aria-label={`How much ${measure.piece ? `${measure.piece}: ` : ""}${measure.label} counts`}
      value={weight}
      onChange={(event) => {
        const next = Number(event.target.value);
        change("", (d) => {
          const others = Object.entries(d.weights).filter(([name]) => name !== measure.name);
          return {
            ...d,
            weights: Object.fromEntries(next === 1 ? others : [...others, [measure.name, next]]),
          };
        });
      }}
    >
      {COUNTS.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
      {!COUNTS.some(([value]) => value === weight) && <option value={weight}>counts {weight} times</option>}
    </select>
  );
}

/** What the text leaves open, asked where it decides what is measured. */
function Open() {
  const { work } = useBench();
  const { select } = useSelection();
  const repair = useRepair();
  const go = useNavigate();
  return (
    <div className="my-3 empty:hidden">
      <Questions
        questions={work?.questions ?? []}
        onAnswer={repair}
        onLine={(line) => {
          select({ line });
          void go("../words?view=edit");
        }}
      />
    </div>
  );
}

function NoMeasures() {
  return (
    <>
      <StepHead title="Sizes">What each size shall measure.</StepHead>
      <p className="sheet max-w-xl p-4">
        Nothing of this bag is measured yet: the text names no gauge, or it is not understood which of its
        pieces is the bag. Say the gauge of your sample under{" "}
        <Link className="underline" to="../swatch">
          Swatch
        </Link>
        , and look at the questions under{" "}
        <Link className="underline" to="../words?view=edit">
          Words
        </Link>
        .
      </p>
      <Open />
    </>
  );
}
