import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { client, unwrap, whileBusy } from "../../api/client";
import type { SampleGaugeView } from "../../api/schema";
import { useOpenDesign } from "../../bench/context";
import { NumberField } from "../../ui/NumberField";
import { Trouble } from "../../ui/Trouble";
import { perUnit } from "../units";

type Stitch = "sc" | "hdc" | "dc";

const isStitch = (stitch: string): stitch is Stitch => ["sc", "hdc", "dc"].includes(stitch);

/** A number give or take what measuring leaves open. */
function GiveOrTake({ value, error }: { value: number | null; error: number | null }) {
  if (value === null) return <span title="nothing that was measured tells of it">–</span>;
  return (
    <>
      {value.toFixed(1)} <span className="text-quiet text-xl font-normal">± {(error ?? 0).toFixed(1)}</span>
    </>
  );
}

function Fitted({ fitted }: { fitted: SampleGaugeView }) {
  const design = useOpenDesign();
  const { text, units } = design.document;
  const { stitch, sts, rows } = fitted;
  const write = useMutation({
    mutationFn: (wanted: { stitch: Stitch; sts: number; rows: number }) =>
      unwrap(client.POST("/api/text/gauge", { body: { text, units, ...wanted } })),
    onSuccess: (answer) => design.change("", (d) => ({ ...d, text: answer.text })),
  });
  if (sts === null && rows === null)
    return <p className="text-quiet mt-3 text-sm">Measure a width and a height of it to begin with.</p>;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
      <p className="font-text tabular text-3xl font-semibold" data-testid="sample-gauge">
        <GiveOrTake value={sts} error={fitted.sts_error} /> ×{" "}
        <GiveOrTake value={rows} error={fitted.rows_error} />
      </p>
      <p className="text-quiet text-sm">
        {stitch} stitches × rows over {fitted.span} {units}, as the sample was made
      </p>
      {sts !== null && rows !== null && isStitch(stitch) && (
        <button
          type="button"
          className="button-plain"
          disabled={write.isPending}
          onClick={() => write.mutate({ stitch, sts, rows })}
        >
          Write it into the text
        </button>
      )}
      <Trouble error={write.error} />
    </div>
  );
}

/** The finished sample, measured: the gauge that it has, and what of it does not agree. */
export function SampleGauge() {
  const design = useOpenDesign();
  const { document } = design;
  const per = perUnit(document);
  const query = useQuery({
    queryKey: ["sample", document.text, document.sample, document.units, document.made_mm],
    queryFn: ({ signal }) => unwrap(client.POST("/api/gauge/sample", { body: { document }, signal })),
    placeholderData: keepPreviousData,
    retry: whileBusy,
  });
  const fitted = query.data;
  if (!fitted) return null;
  const set = (name: string, mm: number | null) =>
    design.change(`made.${name}`, (d) => {
      const others = Object.entries(d.made_mm).filter(([each]) => each !== name);
      return { ...d, made_mm: Object.fromEntries(mm === null ? others : [...others, [name, mm] as const]) };
    });
  return (
    <section className="sheet p-4" aria-label="The finished sample">
      <h2 className="text-lg">Or measure the sample itself</h2>
      <p className="text-quiet text-sm">
        What the bag or a piece of it measures, as it was made from this text. One width and one height are
        enough; more make it sharper, and show what does not agree.
      </p>
      {fitted.problem ? (
        <p className="mt-2 text-sm">{fitted.problem}</p>
      ) : (
        <>
          <Fitted fitted={fitted} />
          <ul className="mt-3 grid gap-x-6 gap-y-2 sm:grid-cols-2">
            {fitted.measures.map((measure) => (
              <li key={measure.name}>
                <div className="flex items-center gap-2">
                  <NumberField
                    className="w-20"
                    label={`${measure.label} of the sample`}
                    hideLabel
                    optional
                    per={per}
                    value={document.made_mm[measure.name] ?? null}
                    onChange={(mm) => set(measure.name, mm)}
                    onClear={() => set(measure.name, null)}
                  />
                  <span className="min-w-0 flex-1 text-sm">
                    {measure.label} ({document.units})
                    {measure.comes_to && (
                      <span className="text-quiet tabular block text-[13px]">
                        comes to {measure.comes_to} ({measure.off})
                      </span>
                    )}
                  </span>
                </div>
                {measure.says && <p className="text-warn text-[13px]">{measure.says}</p>}
              </li>
            ))}
          </ul>
        </>
      )}
      <Trouble error={query.error} />
    </section>
  );
}
