import { useBench, useOpenDesign } from "../../bench/context";
import { Help } from "../../ui/Help";

/** The gauge that is in force, and what follows from it. */
export function Gauge() {
  const design = useOpenDesign();
  const { work } = useBench();
  const gauge = work?.gauge;
  if (!gauge) return null;
  const units = design.document.units;
  return (
    <section className="sheet flex flex-wrap items-end gap-x-10 gap-y-3 p-4" aria-label="Gauge">
      <div>
        <h2 className="text-lg">Gauge</h2>
        <p className="font-text text-4xl font-semibold" data-testid="gauge">
          {gauge.sts} × {gauge.rows}
        </p>
        <p className="text-quiet text-sm">
          {gauge.name} stitches × rows over {gauge.span} {units}
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
