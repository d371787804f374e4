import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../../api/client";
import type { GaugeAskedView, GaugeBody } from "../../api/schema";
import { useBench, useOpenDesign } from "../../bench/context";
import { Choice } from "../../ui/Choice";
import { NumberField } from "../../ui/NumberField";
import { Trouble } from "../../ui/Trouble";
import { StepHead } from "../StepHead";
import { Gauge } from "./Gauge";
import { SampleGauge } from "./SampleGauge";
import { HookField } from "./HookField";
import { Swatches } from "./Swatches";
import { YarnFields } from "./YarnFields";

type Stitch = GaugeBody["stitch"];

const SPAN = { cm: "10 cm", in: "4 in" };

/** The stitches that a gauge can be of: those of the text first, and a mesh where it is one. */
function choices(asked: GaugeAskedView, known: string | undefined): [Stitch, string][] {
  const few = asked.stitches.filter((one, at) => at < 4 || one.stitch === known);
  const stitches = few.map((one): [Stitch, string] => [one.stitch as Stitch, one.name]);
  return asked.mesh ? [...stitches, ["mesh", "mesh"]] : stitches;
}

/** What is counted on a swatch, written into the text as its gauge. */
function GaugeOfText() {
  const design = useOpenDesign();
  const { work } = useBench();
  const { text, units } = design.document;
  const gauge = work?.gauge ?? null;
  const asked = work?.asked ?? null;
  const said = asked?.said ?? null;
  const [stitch, setStitch] = useState<Stitch | null>(null);
  const [sts, setSts] = useState<number | null>(null);
  const [rows, setRows] = useState<number | null>(null);
  const ofText = (gauge?.stitch ?? said?.stitch ?? asked?.stitches[0]?.stitch ?? "sc") as Stitch;
  const ofMesh = stitch === "mesh";
  const wanted = {
    stitch: stitch ?? ofText,
    sts: sts ?? (ofMesh ? 0 : (gauge?.sts ?? said?.sts ?? 0)),
    rows: rows ?? (ofMesh ? 0 : (gauge?.rows ?? said?.rows ?? 0)),
  };
  const write = useMutation({
    mutationFn: (body: Pick<GaugeBody, "stitch" | "sts" | "rows">) =>
      unwrap(client.POST("/api/text/gauge", { body: { text, units, ...body } })),
    onSuccess: (answer) => {
      setStitch(null);
      setSts(null);
      setRows(null);
      design.change("", (d) => ({ ...d, text: answer.text }));
    },
  });
  const changed = stitch !== null || sts !== null || rows !== null || (gauge === null && said !== null);
  return (
    <section className="sheet p-4" aria-label="The gauge of the text">
      <h2 className="text-lg">{gauge ? "Measured otherwise?" : "Which gauge has the sample?"}</h2>
      <p className="text-quiet mb-3 text-sm">
        Count stitches and rows over {SPAN[units]} of the sample. It is written into the head of the text, as
        its “Gauge:” line; measures and sizes follow from it.
      </p>
      {said && (
        <p className="bg-mark-soft mb-3 rounded-md px-3 py-2 text-sm" data-testid="gauge-said">
          Line {said.line} of the text may say it: <span className="font-text">“{said.words}”</span>. What is
          understood of it stands below; look at it, then write it as the gauge.
        </p>
      )}
      {asked?.mesh && !asked.mesh_known && (
        <p className="bg-mark-soft mb-3 rounded-md px-3 py-2 text-sm" data-testid="mesh-asked">
          This bag is mostly a mesh, and its loops are not measured: what it measures is an estimate. Choose
          “mesh”, and count the loops and rows of a piece of it
          {gauge ? "" : ", after the gauge of its stitches"}.
        </p>
      )}
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Stitch"
          value={wanted.stitch}
          options={asked ? choices(asked, gauge?.stitch) : []}
          onChange={setStitch}
        />
        <NumberField
          className="w-28"
          label={`${ofMesh ? "Loops" : "Stitches"} in ${SPAN[units]}`}
          value={wanted.sts}
          onChange={setSts}
        />
        <NumberField
          className="w-28"
          label={`Rows in ${SPAN[units]}`}
          value={wanted.rows}
          onChange={setRows}
        />
        <button
          type="button"
          className="button"
          disabled={!changed || wanted.sts <= 0 || wanted.rows <= 0 || write.isPending}
          onClick={() => write.mutate(wanted)}
        >
          Write it into the text
        </button>
      </div>
      <Trouble error={write.error} />
    </section>
  );
}

/** The step *Swatch* of a design that is a text: the gauge that it names, or is asked for. */
export function SwatchStep() {
  return (
    <>
      <StepHead title="Swatch" next={{ to: "sizes", title: "Sizes" }}>
        The gauge stands in the text. All measures of the bag follow from it.
      </StepHead>
      <div className="space-y-3">
        <Gauge />
        <GaugeOfText />
        <Swatches />
        <YarnFields />
        <HookField />
        <SampleGauge />
      </div>
    </>
  );
}
