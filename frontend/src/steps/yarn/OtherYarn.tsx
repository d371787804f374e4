import { useMutation } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { client, unwrap } from "../../api/client";
import type { Design, OtherWayView, OtherYarn as Other, OtherYarnView, WorkView } from "../../api/schema";
import { useChange, useDocument } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { Help } from "../../ui/Help";
import { LinesChanged } from "../../ui/LinesChanged";
import { Select } from "../../ui/Select";
import { Trouble } from "../../ui/Trouble";
import { NumberInput } from "../swatch/formFields";
import { formValues } from "../swatch/formValues";

const GAUGE_HELP =
  "Counted on a swatch in that yarn, with that hook, in the stitch of the text’s gauge. Leave both empty, and the gauge to expect is shown.";

/** One of the two ways: each size as it would be, what is not met, and the lines that change. */
function Way({
  title,
  way,
  goes,
  onTake,
}: {
  title: string;
  way: OtherWayView | null;
  goes: string;
  onTake: (way: OtherWayView) => void;
}) {
  if (!way) return null;
  return (
    <section aria-label={title} className="min-w-64 flex-1">
      <h3 className="text-base">{title}</h3>
      {way.problem ? (
        <p className="text-warn text-sm">Not this way: {way.problem}</p>
      ) : (
        <>
          <table className="numbers mt-1 text-sm">
            <thead>
              <tr>
                <th scope="col" className="text-left">
                  Size
                </th>
                <th scope="col">wide × high</th>
                <th scope="col">yarn</th>
                <th scope="col">balls</th>
              </tr>
            </thead>
            <tbody>
              {way.sizes.map((size) => (
                <tr key={size.size}>
                  <th scope="row">{size.size}</th>
                  <td>
                    {size.width} × {size.height}
                  </td>
                  <td className="font-semibold">
                    {size.yarn ? `${size.yarn.grams} g` : "–"}
                    {size.yarn && (
                      <span className="text-quiet block text-[13px] font-normal">
                        {size.yarn.low_g} to {size.yarn.high_g} g
                      </span>
                    )}
                  </td>
                  <td>{size.yarn?.balls ?? "–"}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {way.notes.length > 0 && (
            <ul className="bg-mark-soft mt-2 space-y-1 rounded-md px-3 py-2 text-sm">
              {way.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
            </ul>
          )}
          <details className="mt-2 text-sm">
            <summary>
              {way.changes.length === 0
                ? "No line of the text changes"
                : `${way.changes.length} ${way.changes.length === 1 ? "place" : "places"} of the text change`}
            </summary>
            <LinesChanged label={`Lines that change: ${title.toLowerCase()}`} changes={way.changes} />
          </details>
          {way.design ? (
            <div className="mt-2">
              <button type="button" className="button-plain" onClick={() => onTake(way)}>
                Take it with {title.toLowerCase()}
              </button>
              {goes && <p className="text-quiet mt-1 text-[13px]">{goes} Taking it can be undone.</p>}
            </div>
          ) : (
            <p className="text-quiet mt-2 text-[13px]">
              To take it, make a swatch in that yarn first, and write its stitches and rows above.
            </p>
          )}
        </>
      )}
    </section>
  );
}

function Found({ found, onTake }: { found: OtherYarnView; onTake: (way: OtherWayView) => void }) {
  const { units } = useDocument();
  if (found.problem) return <p className="text-warn mt-3 text-sm">{found.problem}</p>;
  return (
    <div className="mt-3" role="status">
      <p className="text-sm">
        <strong>
          {found.sts} × {found.rows}
        </strong>{" "}
        {found.stitch} over {found.span} {units}
        {found.measured ? ", as you counted it" : ": to be expected, from the thickness of yarn and hook"}
      </p>
      <div className="mt-2 flex flex-wrap gap-8">
        <Way title="The same measures" way={found.centimetres} goes={found.goes} onTake={onTake} />
        <Way title="The same counts" way={found.counts} goes={found.goes} onTake={onTake} />
      </div>
    </div>
  );
}

/** The whole design in another yarn or with another hook. */
export function OtherYarn({ work }: { work: WorkView }) {
  const document = useDocument();
  const change = useChange();
  const craft = useCraft();
  const [open, setOpen] = useState(false);
  const ask = useMutation({
    mutationFn: (body: { document: Design; other: Other }) =>
      unwrap(client.POST("/api/yarn/other", { body })),
  });
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { text, number } = formValues(event.currentTarget);
    ask.mutate({
      document,
      other: {
        name: text("name"),
        weight_class: number("weight_class"),
        grams_per_ball: number("grams") ?? 0,
        metres_per_ball: number("metres") ?? 0,
        strands: number("strands") ?? 1,
        hook_mm: number("hook"),
        stitches: number("stitches"),
        rows: number("rows"),
      },
    });
  };
  const span = document.units === "cm" ? "10 cm" : "4 in";
  const yarn = document.yarns[0];
  return (
    <section className="sheet mt-3 p-4" aria-label="Another yarn or hook">
      <h2 className="text-lg">Another yarn or hook</h2>
      <p className="text-quiet text-sm">
        What the whole design comes to in it, with the same measures or with the same counts. Nothing is
        changed by looking.
      </p>
      {!open ? (
        <button type="button" className="button-plain mt-2" onClick={() => setOpen(true)}>
          Try another yarn or hook
        </button>
      ) : (
        <form className="mt-2 grid grid-cols-2 items-end gap-3 sm:grid-cols-4" onSubmit={submit}>
          <label className="col-span-2 sm:col-span-1">
            <span className="text-quiet text-[13px]">Name</span>
            <input name="name" className="field" maxLength={80} />
          </label>
          <Select
            label="Weight class"
            name="weight_class"
            className="col-span-2 sm:col-span-1"
            initial={String(yarn?.weight_class ?? "")}
          >
            {(craft?.yarn_classes ?? []).map((name, at) => (
              <option key={name} value={at}>
                {at}: {name}
              </option>
            ))}
          </Select>
          <NumberInput name="grams" label="Grams a ball" value={yarn?.grams_per_ball} />
          <NumberInput name="metres" label="Metres a ball" value={yarn?.metres_per_ball ?? undefined} />
          <NumberInput name="strands" label="Strands" value={yarn?.strands} />
          <NumberInput name="hook" label="Hook (mm)" value={work.hook?.mm} optional />
          <NumberInput name="stitches" label={`Stitches in ${span}`} optional />
          <NumberInput name="rows" label={`Rows in ${span}`} optional />
          <span className="col-span-2 flex items-center gap-2 sm:col-span-4">
            <button type="submit" className="button" disabled={ask.isPending}>
              {ask.isPending ? "Working it in every size…" : "Work it out"}
            </button>
            <span className="text-quiet text-sm">
              Its gauge
              <Help term="Its gauge">{GAUGE_HELP}</Help>
            </span>
          </span>
        </form>
      )}
      <Trouble error={ask.error} />
      {ask.data && ask.variables.document !== document && (
        <p className="text-warn mt-3 text-sm" role="status">
          The design has changed since this was worked out: work it out again.
        </p>
      )}
      {ask.data && ask.variables.document === document && (
        <Found
          found={ask.data}
          onTake={(way) => {
            const after = way.design;
            if (after) change("", () => after);
            ask.reset();
            setOpen(false);
          }}
        />
      )}
    </section>
  );
}
