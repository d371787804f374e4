import { Trash2 } from "lucide-react";
import type { SyntheticEvent } from "react";
import type { ExtraYarn, WorkView } from "../../api/schema";
import { useChange, useDocument, useFault } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { Select } from "../../ui/Select";
import { NumberInput } from "../swatch/formFields";
import { formValues } from "../swatch/formValues";
import { perUnit } from "../units";

/** What uses yarn besides stitches: seams, cords, tassels; each a line that can be changed. */
export function Extras({ work }: { work: WorkView }) {
  const document = useDocument();
  const craft = useCraft();
  const change = useChange();
  const fault = useFault();
  const per = perUnit(document);
  const { extras, units } = document;
  const measures = work.bag.map((one) => ({
    name: one.name,
    label: one.piece ? `${one.piece}: ${one.label}` : one.label,
  }));
  const length = (one: ExtraYarn) =>
    one.measure
      ? `as long as “${measures.find((each) => each.name === one.measure)?.label ?? one.measure}”`
      : `${((one.length_mm ?? 0) / per).toFixed(1)} ${units}`;
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { text, number } = formValues(event.currentTarget);
    const own = number("length");
    const extra: ExtraYarn = {
      kind: text("kind"),
      measure: text("measure"),
      length_mm: own === null ? null : own * per,
      count: number("count") ?? 1,
      colour: "",
    };
    change("", (d) => ({ ...d, extras: [...d.extras, extra] }));
    event.currentTarget.reset();
  };
  return (
    <section className="sheet mt-3 p-4" aria-label="What else uses yarn">
      <h2 className="text-lg">What else uses yarn</h2>
      <p className="text-quiet text-sm">
        Stitches, chains, joins, tails and 2 % waste are in the estimate. Seams, cords and tassels are not,
        until they stand here.
      </p>
      <ul className="mt-2 text-sm">
        {extras.map((one, at) => (
          <li key={at} className="border-line flex items-center gap-3 border-t py-1">
            <span className="flex-1">
              {one.count} × {one.kind}, {length(one)}
              {fault(`$.extras[${at}]`) && (
                <span className="text-wrong block text-[13px]">{fault(`$.extras[${at}]`)}</span>
              )}
            </span>
            <button
              type="button"
              className="button-bare"
              aria-label={`Remove: ${one.kind}, ${length(one)}`}
              onClick={() =>
                change("", (d) => ({ ...d, extras: d.extras.filter((_, index) => index !== at) }))
              }
            >
              <Trash2 size={15} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <form className="mt-2 grid grid-cols-2 items-end gap-3 sm:grid-cols-7" onSubmit={submit}>
        <Select label="Kind" name="kind" className="sm:col-span-2">
          {craft?.extras.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </Select>
        <NumberInput name="count" label="How many" optional />
        <Select label="As long as" name="measure" className="sm:col-span-2">
          <option value="">its own length</option>
          {measures.map((one) => (
            <option key={one.name} value={one.name}>
              {one.label}
            </option>
          ))}
        </Select>
        <NumberInput name="length" label={`Length (${units})`} optional />
        <button type="submit" className="button justify-center">
          Add it
        </button>
      </form>
    </section>
  );
}
