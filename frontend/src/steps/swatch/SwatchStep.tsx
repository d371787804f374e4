import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, unwrap } from "../../api/client";
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

type Stitch = "sc" | "hdc" | "dc";

const SPAN = { cm: "10 cm", in: "4 in" };

/** What is counted on a swatch, written into the text as its gauge. */
function GaugeOfText() {
  const design = useOpenDesign();
  const { work } = useBench();
  const { text, units } = design.document;
  const gauge = work?.gauge ?? null;
  const [stitch, setStitch] = useState<Stitch | null>(null);
  const [sts, setSts] = useState<number | null>(null);
  const [rows, setRows] = useState<number | null>(null);
  const known = gauge?.stitch === "sc" || gauge?.stitch === "dc" ? gauge.stitch : "hdc";
  const wanted = { stitch: stitch ?? known, sts: sts ?? gauge?.sts ?? 0, rows: rows ?? gauge?.rows ?? 0 };
  const write = useMutation({
    mutationFn: () => unwrap(client.POST("/api/text/gauge", { body: { text, units, ...wanted } })),
    onSuccess: (answer) => {
      setStitch(null);
      setSts(null);
      setRows(null);
      design.change("", (d) => ({ ...d, text: answer.text }));
    },
  });
  const changed = stitch !== null || sts !== null || rows !== null;
  return (
    <section className="sheet p-4" aria-label="The gauge of the text">
      <h2 className="text-lg">{gauge ? "Measured otherwise?" : "Which gauge has the sample?"}</h2>
      <p className="text-quiet mb-3 text-sm">
        Count stitches and rows over {SPAN[units]} of the sample. It is written into the head of the text, as
        its “Gauge:” line; measures and sizes follow from it.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <Choice
          label="Stitch"
          value={wanted.stitch}
          options={[
            ["sc", "single crochet"],
            ["hdc", "half double"],
            ["dc", "double"],
          ]}
          onChange={setStitch}
        />
        <NumberField
          className="w-28"
          label={`Stitches in ${SPAN[units]}`}
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
          onClick={() => write.mutate()}
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
