import type { ToteDesign } from "../../api/schema";
import { faultAt, useFields } from "../../bench/context";
import { Choice } from "../../ui/Choice";
import { NumberField } from "../../ui/NumberField";
import { StepHead } from "../StepHead";
import { perUnit } from "../units";
import { Gauge } from "./Gauge";
import { YarnFields } from "./YarnFields";

function SwatchFields() {
  const bench = useFields();
  const { design } = bench;
  const { swatch, units } = design.document;
  const per = perUnit(design.document);
  const set = (key: keyof ToteDesign["swatch"], value: string | number | boolean) =>
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
