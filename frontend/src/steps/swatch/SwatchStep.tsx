import { faultAt, useBench } from "../../bench/context";
import type { Design } from "../../api/schema";
import { Choice } from "../../ui/Choice";
import { Help } from "../../ui/Help";
import { NumberField } from "../../ui/NumberField";
import { Select } from "../../ui/Select";
import { StepHead } from "../StepHead";
import { perUnit } from "../units";

const CLASSES = ["lace", "super fine", "fine", "light", "medium", "bulky", "super bulky", "jumbo"];

function YarnFields() {
  const bench = useBench();
  const { design } = bench;
  const yarn = design.document.yarn;
  const set = (key: keyof Design["yarn"], value: string | number) =>
    design.change(`yarn.${key}`, (d) => ({ ...d, yarn: { ...d.yarn, [key]: value } }));
  return (
    <fieldset className="sheet p-4">
      <legend className="font-text px-1 text-lg font-semibold">Yarn and hook</legend>
      <div className="grid grid-cols-6 gap-3">
        <label className="col-span-3">
          <span className="text-quiet text-[13px]">Name</span>
          <input className="field" value={yarn.name} onChange={(event) => set("name", event.target.value)} />
          {faultAt(bench, "$.yarn.name") && (
            <span className="text-wrong text-[13px]">{faultAt(bench, "$.yarn.name")}</span>
          )}
        </label>
        <label className="col-span-3">
          <span className="text-quiet text-[13px]">Fibre</span>
          <input
            className="field"
            value={yarn.fibre}
            onChange={(event) => set("fibre", event.target.value)}
          />
        </label>
        <Select
          className="col-span-2"
          label="Weight class"
          value={String(yarn.weight_class)}
          onChange={(value) => set("weight_class", Number(value))}
        >
          {CLASSES.map((name, index) => (
            <option key={name} value={index}>
              {index} – {name}
            </option>
          ))}
        </Select>
        <NumberField
          className="col-span-2"
          label="Grams a ball"
          unit="g"
          value={yarn.grams_per_ball}
          fault={faultAt(bench, "$.yarn.grams_per_ball")}
          onChange={(value) => set("grams_per_ball", value)}
        />
        <NumberField
          className="col-span-2"
          label="Metres a ball"
          unit="m"
          value={yarn.metres_per_ball}
          fault={faultAt(bench, "$.yarn.metres_per_ball")}
          onChange={(value) => set("metres_per_ball", value)}
        />
        <NumberField
          className="col-span-2"
          label="Strands together"
          digits={0}
          value={yarn.strands}
          fault={faultAt(bench, "$.yarn.strands")}
          onChange={(value) => set("strands", value)}
        />
        <NumberField
          className="col-span-2"
          label={`Hook${bench.work?.gauge.hook_letter ? ` – US ${bench.work.gauge.hook_letter}` : ""}`}
          unit="mm"
          digits={2}
          step={0.5}
          value={design.document.hook_mm}
          fault={faultAt(bench, "$.hook_mm")}
          onChange={(value) => design.change("hook", (d) => ({ ...d, hook_mm: value }))}
        />
        <p className="text-quiet col-span-2 self-end pb-1 text-[13px]">
          A hook a size smaller than the label says makes a firm bag.
        </p>
      </div>
    </fieldset>
  );
}

function SwatchFields() {
  const bench = useBench();
  const { design } = bench;
  const { swatch, units } = design.document;
  const per = perUnit(design.document);
  const set = (key: keyof Design["swatch"], value: string | number | boolean) =>
    design.change(`swatch.${key}`, (d) => ({ ...d, swatch: { ...d.swatch, [key]: value } }));
  const whole = faultAt(bench, "$.swatch");
  return (
    <fieldset className="sheet p-4">
      <legend className="font-text px-1 text-lg font-semibold">Swatch</legend>
      <div className="mb-3 flex flex-wrap gap-6">
        <Choice
          label="Stitch"
          value={swatch.stitch}
          options={[
            ["sc", "single crochet"],
            ["hdc", "half double"],
            ["dc", "double"],
          ]}
          onChange={(value) => set("stitch", value)}
        />
        <Choice
          label="Units"
          value={units}
          options={[
            ["cm", "cm"],
            ["in", "inches"],
          ]}
          onChange={(value) => design.change("", (d) => ({ ...d, units: value }))}
        />
        <Choice
          label="Measured"
          value={swatch.blocked ? "yes" : "no"}
          options={[
            ["no", "as it came"],
            ["yes", "blocked"],
          ]}
          onChange={(value) => set("blocked", value === "yes")}
        />
      </div>
      <div className="grid grid-cols-5 gap-3">
        <NumberField
          label="Stitches"
          value={swatch.stitches}
          fault={faultAt(bench, "$.swatch.stitches")}
          onChange={(value) => set("stitches", value)}
        />
        <NumberField
          label="are wide"
          unit={units}
          per={per}
          value={swatch.width_mm}
          fault={faultAt(bench, "$.swatch.width_mm")}
          onChange={(value) => set("width_mm", value)}
        />
        <NumberField
          label="Rows"
          value={swatch.rows}
          fault={faultAt(bench, "$.swatch.rows")}
          onChange={(value) => set("rows", value)}
        />
        <NumberField
          label="are high"
          unit={units}
          per={per}
          value={swatch.height_mm}
          fault={faultAt(bench, "$.swatch.height_mm")}
          onChange={(value) => set("height_mm", value)}
        />
        <NumberField
          label="Weight"
          unit="g"
          value={swatch.weight_g}
          fault={faultAt(bench, "$.swatch.weight_g")}
          onChange={(value) => set("weight_g", value)}
        />
      </div>
      {whole ? (
        <p className="text-wrong mt-2 text-sm">{whole}</p>
      ) : (
        <p className="text-quiet mt-2 text-[13px]">
          Weight 0: not weighed. A weighed swatch makes the yarn estimate three times as sharp.
        </p>
      )}
    </fieldset>
  );
}

function Gauge() {
  const { work, design } = useBench();
  if (!work) return null;
  const { gauge } = work;
  const units = design.document.units;
  return (
    <section className="sheet flex flex-wrap items-end gap-x-10 gap-y-3 p-4" aria-label="Gauge">
      <div>
        <h2 className="text-lg">Gauge</h2>
        <p className="font-text text-4xl font-semibold" data-testid="gauge">
          {gauge.sts} × {gauge.rows}
        </p>
        <p className="text-quiet text-sm">
          stitches × rows over {gauge.span} {units}
        </p>
      </div>
      <dl className="grid grid-cols-[auto_auto] gap-x-4 gap-y-0.5 text-sm">
        <dt className="text-quiet">One stitch</dt>
        <dd>
          {gauge.width_mm} mm wide, {gauge.height_mm} mm high
        </dd>
        <dt className="text-quiet">
          A flat circle needs
          <Help term="Flat">
            A disc lies flat when each round adds 2π × row height ÷ stitch width stitches. Fewer and it cups,
            more and it ruffles.
          </Help>
        </dt>
        <dd>{gauge.flat_increases} increases a round</dd>
        <dt className="text-quiet">Yarn against usual values</dt>
        <dd>
          {gauge.yarn_correction === null
            ? "weigh the swatch to know"
            : `${gauge.yarn_correction >= 1 ? "+" : "−"}${Math.abs(Math.round((gauge.yarn_correction - 1) * 100))} %`}
        </dd>
      </dl>
    </section>
  );
}

export function SwatchStep() {
  return (
    <>
      <StepHead title="Swatch" next={{ to: "sizes", title: "Sizes" }}>
        Measure a swatch in the stitch of the bag, in the state in which the bag will be used. All sizes
        follow from it.
      </StepHead>
      <div className="space-y-3">
        <Gauge />
        <SwatchFields />
        <YarnFields />
      </div>
    </>
  );
}
