import { Lock } from "lucide-react";
import type { ToteDesign } from "../../api/schema";
import { useFields } from "../../bench/context";
import { BaseRings, flatnessOf } from "../../drawing/BaseRings";
import { frameOf } from "../../drawing/scale";
import { SizeColumns } from "../../drawing/SizeColumns";
import { Choice } from "../../ui/Choice";
import { Help } from "../../ui/Help";
import { NumberField } from "../../ui/NumberField";
import { StepHead } from "../StepHead";

const MEASURE_OF: Record<string, string> = {
  around: "width",
  base_rounds: "depth",
  wall_rounds: "height",
  handle_chain: "drop",
};

function NumberRow({ name, label }: { name: string; label: string }) {
  const { work, selection, select } = useFields();
  if (!work) return null;
  const chosenName = selection?.number?.name === name;
  const crowded = work.sizes.length > 5;
  // A chosen number marks its own row; a chosen bar or line marks every number that is worked in it.
  const marked =
    selection !== null &&
    !selection.number &&
    work.sizes.some((size) => size.reasons.some((r) => r.name === name && r.line === selection.line));
  return (
    <tr className={marked || chosenName ? "bg-mark-soft" : ""}>
      <th scope="row">{label}</th>
      {work.sizes.map((size, index) => {
        const reason = size.reasons.find((r) => r.name === name);
        const measure = size.measures.find((m) => m.name === MEASURE_OF[name]);
        const chosen = chosenName && selection.number?.size === index;
        if (!reason) return <td key={index} />;
        return (
          <td key={index}>
            <button
              type="button"
              aria-label={`${label}, ${size.name}: ${reason.value}. Why?`}
              aria-pressed={chosen}
              data-testid={`number-${name}-${index}`}
              className={`inline-flex min-w-12 items-center justify-center gap-1 rounded px-2 py-0.5 ${
                chosen ? "bg-sheet ring-mark font-semibold ring-2" : "hover:bg-bank"
              } ${name === "around" ? "text-lg font-semibold" : ""}`}
              onClick={() => select({ line: reason.line, number: { name, size: index } })}
            >
              {reason.value}
              {reason.locked && <Lock size={13} aria-label="locked" />}
            </button>
            {measure && (
              <span
                className={`${crowded ? "block" : "ml-1"} text-[13px] whitespace-nowrap ${measure.within ? "text-quiet" : "text-wrong font-semibold"}`}
              >
                {measure.result}
              </span>
            )}
          </td>
        );
      })}
    </tr>
  );
}

const NUMBERS = [
  ["around", "Stitches around"],
  ["side", "Straight side"],
  ["base_rounds", "Base rounds"],
  ["extra", "Extra increases"],
  ["wall_rounds", "Wall rounds"],
  ["handle_skip", "Handle: skip"],
  ["handle_chain", "Handle: chain"],
] as const;

function Bases() {
  const { work, selection, select } = useFields();
  if (!work) return null;
  const frame = frameOf(work);
  return (
    <tr>
      <th scope="row">
        Base from above
        <Help term="Flatness">
          Stitches there are over stitches there is room for. 0.95 to 1.05 lies flat; below it cups, above it
          ruffles. Dots are increases.
        </Help>
      </th>
      {work.sizes.map((size, index) => {
        const flat = flatnessOf(size);
        return (
          <td key={index}>
            <BaseRings
              size={size}
              index={index}
              count={work.sizes.length}
              frame={frame}
              line={selection?.line ?? null}
              onSelect={(line) => select({ line })}
            />
            {flat && (
              <span
                className={`text-[13px] ${flat.word === "flat" ? "text-quiet" : "text-wrong font-semibold"}`}
              >
                {flat.word} {flat.q.toFixed(2)}
              </span>
            )}
          </td>
        );
      })}
    </tr>
  );
}

function Ways() {
  const { design } = useFields();
  const { way, swatch } = design.document;
  const set = (key: keyof ToteDesign["way"], value: string | number | boolean) =>
    design.change(`way.${key}`, (d) => ({ ...d, way: { ...d.way, [key]: value } }));
  return (
    <section aria-label="Ways of working" className="sheet mt-4 p-4">
      <h2 className="mb-2 text-lg">Ways of working</h2>
      <div className="flex flex-wrap gap-x-8 gap-y-3">
        <Choice
          label="Rounds"
          value={way.rounds}
          options={[
            ["joined", "joined"],
            ["spiral", "spiral"],
          ]}
          onChange={(value) => set("rounds", value)}
        />
        {way.rounds === "joined" && swatch.stitch !== "sc" && (
          <Choice
            label="Starting chain"
            value={way.chain_counts ? "yes" : "no"}
            options={[
              ["no", "does not count"],
              ["yes", "counts as a stitch"],
            ]}
            onChange={(value) => set("chain_counts", value === "yes")}
          />
        )}
        <Choice
          label="Increases"
          value={way.increases}
          options={[
            ["stacked", "stacked"],
            ["shifted", "shifted (rounder)"],
          ]}
          onChange={(value) => set("increases", value)}
        />
        <Choice
          label="From base to wall"
          value={way.base_edge}
          options={[
            ["plain", "plain"],
            ["back loops", "back loops (an edge)"],
          ]}
          onChange={(value) => set("base_edge", value)}
        />
        <Choice
          label="Carried"
          value={way.carried}
          options={[
            ["hand", "in the hand"],
            ["elbow", "on the elbow"],
            ["shoulder", "on the shoulder"],
          ]}
          onChange={(value) => set("carried", value)}
        />
        <NumberField
          className="w-24"
          label="Brim rounds"
          digits={0}
          value={way.brim_rounds}
          onChange={(v) => set("brim_rounds", v)}
        />
        <NumberField
          className="w-36"
          label="Rounds over handles"
          digits={0}
          value={way.over_rounds}
          onChange={(v) => set("over_rounds", v)}
        />
        <NumberField
          className="w-36"
          label="Wall is a multiple of"
          digits={0}
          value={way.wall_multiple}
          onChange={(v) => set("wall_multiple", v)}
        />
        <NumberField
          className="w-40"
          label="Handle takes of the front"
          unit="%"
          per={0.01}
          digits={0}
          value={way.handle_share}
          onChange={(v) => set("handle_share", v)}
        />
      </div>
    </section>
  );
}

export function ShapeStep() {
  return (
    <>
      <StepHead title="Base, wall, handles" next={{ to: "yarn", title: "Yarn" }}>
        The counts of every size, found together. Choose a number to see why; lock one, and the rest is found
        again.
      </StepHead>
      <SizeColumns caption="Counts of each size">
        <NumberRow name="around" label="Stitches around" />
        <Bases />
        {NUMBERS.slice(1).map(([name, label]) => (
          <NumberRow key={name} name={name} label={label} />
        ))}
      </SizeColumns>
      <Ways />
    </>
  );
}
