import { Plus, Trash2 } from "lucide-react";
import { useState, type SyntheticEvent } from "react";
import type { Swatch } from "../../api/schema";
import { useBench, useChange, useDocument, useFault } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { Help } from "../../ui/Help";
import { NumberField } from "../../ui/NumberField";
import { Select } from "../../ui/Select";
import { WeighNow } from "../../ui/WeighNow";
import { perUnit } from "../units";
import { NumberInput } from "./formFields";
import { formValues } from "./formValues";

const STITCH_HELP =
  "One stitch, such as “hdc”, or the stitches of one repeat of a pattern: “FPdc, BPdc” for a post rib, “sc, 3 ch” for a mesh. Count them all, chains too.";

/** Swatches as they were measured, each in its stitch: the yarn is estimated from them. */
export function Swatches() {
  const { swatches } = useDocument();
  const { work } = useBench();
  const craft = useCraft();
  const [more, setMore] = useState(false);
  return (
    <section className="sheet p-4" aria-label="Swatches">
      <h2 className="text-lg">Swatches</h2>
      <p className="text-quiet mb-2 text-sm">
        As they were counted, measured and weighed: one for each stitch of the bag makes the yarn sharper.
      </p>
      {swatches.map((swatch, at) => (
        <OneSwatch key={at} swatch={swatch} at={at} tells={work?.swatches[at]?.tells ?? []} />
      ))}
      {more ? (
        <NewSwatch onDone={() => setMore(false)} />
      ) : (
        swatches.length < (craft?.most_swatches ?? 0) && (
          <button type="button" className="button-plain mt-3" onClick={() => setMore(true)}>
            <Plus size={16} aria-hidden /> {swatches.length === 0 ? "Add a swatch" : "Another swatch"}
          </button>
        )
      )}
    </section>
  );
}

function OneSwatch({ swatch, at, tells }: { swatch: Swatch; at: number; tells: readonly string[] }) {
  const document = useDocument();
  const change = useChange();
  const fault = useFault();
  const [open, setOpen] = useState(false);
  const per = perUnit(document);
  const { units, yarns } = document;
  const path = `$.swatches[${at}]`;
  const set = (part: Partial<Swatch>) =>
    change(`swatch.${at}.${Object.keys(part).join()}`, (d) => ({
      ...d,
      swatches: d.swatches.map((one, index) => (index === at ? { ...one, ...part } : one)),
    }));
  type Optional = "raw_width_mm" | "raw_height_mm" | "hanging_mm" | "load_g" | "strands" | "hook_mm";
  type Counted = "stitches" | "rows" | "width_mm" | "height_mm" | "weight_g";
  const number = (
    key: Optional | Counted,
    label: string,
    options: { optional?: boolean; length?: boolean } = {},
  ) => (
    <NumberField
      className="col-span-2"
      label={label}
      digits={options.length ? 2 : 1}
      per={options.length ? per : 1}
      value={swatch[key]}
      fault={fault(`${path}.${key}`)}
      optional={options.optional ?? false}
      onChange={(value) => set({ [key]: value })}
      {...(options.optional ? { onClear: () => set({ [key]: null }) } : {})}
    />
  );
  return (
    <fieldset className="border-line mt-2 border-t pt-2">
      <legend className="sr-only">Swatch in {swatch.stitch}</legend>
      {fault(path) && (
        <p role="alert" className="text-wrong text-[13px]">
          {fault(path)}
        </p>
      )}
      <div className="grid grid-cols-4 gap-x-3 gap-y-1 sm:grid-cols-12">
        <label className="col-span-4 sm:col-span-2">
          <span className="text-quiet text-[13px]">
            Stitch <Help term="Stitch">{STITCH_HELP}</Help>
          </span>
          <input
            className="field"
            value={swatch.stitch}
            aria-label="Stitch of the swatch"
            aria-invalid={fault(`${path}.stitch`) !== undefined}
            onChange={(event) => set({ stitch: event.target.value })}
          />
          {fault(`${path}.stitch`) && (
            <span className="text-wrong text-[13px]">{fault(`${path}.stitch`)}</span>
          )}
        </label>
        {number("stitches", "Stitches")}
        {number("rows", "Rows")}
        {number("width_mm", `Width (${units})`, { length: true })}
        {number("height_mm", `Height (${units})`, { length: true })}
        <span className="col-span-2">
          {number("weight_g", "Weight (g)")}
          <WeighNow what={`the swatch in ${swatch.stitch}`} onGrams={(grams) => set({ weight_g: grams })} />
        </span>
        {open && (
          <>
            {number("raw_width_mm", "Unblocked width", { optional: true, length: true })}
            {number("raw_height_mm", "Unblocked height", { optional: true, length: true })}
            {number("hanging_mm", "Hanging height", { optional: true, length: true })}
            {number("load_g", "Load (g)", { optional: true })}
            {number("strands", "Own strands", { optional: true })}
            {number("hook_mm", "Own hook (mm)", { optional: true })}
            {yarns.length > 1 && (
              <Select
                className="col-span-4"
                label="Yarn"
                value={swatch.yarn}
                onChange={(value) => set({ yarn: value })}
              >
                {yarns.map((yarn) => (
                  <option key={yarn.colour} value={yarn.colour}>
                    {yarn.colour ? `${yarn.colour}: ${yarn.name}` : yarn.name}
                  </option>
                ))}
              </Select>
            )}
            <label className="col-span-2 flex items-center gap-1.5 self-end pb-1 text-sm">
              <input
                type="checkbox"
                checked={swatch.blocked}
                onChange={(event) => set({ blocked: event.target.checked })}
              />
              Blocked
            </label>
          </>
        )}
      </div>
      <ul className="text-quiet mt-1 text-sm" aria-label={`What the swatch in ${swatch.stitch} tells`}>
        {tells.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <div className="mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="button-bare" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Less" : "Blocking, load, own hook"}
        </button>
        <span className="flex-1" />
        <button
          type="button"
          className="button-bare"
          onClick={() =>
            change("", (d) => ({ ...d, swatches: d.swatches.filter((_, index) => index !== at) }))
          }
        >
          <Trash2 size={15} aria-hidden /> Remove the swatch in {swatch.stitch}
        </button>
      </div>
    </fieldset>
  );
}

function NewSwatch({ onDone }: { onDone: () => void }) {
  const document = useDocument();
  const { work } = useBench();
  const change = useChange();
  const per = perUnit(document);
  const { units } = document;
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { text, number } = formValues(event.currentTarget);
    const swatch: Swatch = {
      stitch: text("stitch"),
      stitches: number("stitches") ?? 0,
      rows: number("rows") ?? 0,
      width_mm: (number("width") ?? 0) * per,
      height_mm: (number("height") ?? 0) * per,
      weight_g: number("weight") ?? 0,
      blocked: false,
      raw_width_mm: null,
      raw_height_mm: null,
      hanging_mm: null,
      load_g: null,
      yarn: document.yarns[0]?.colour ?? "",
      strands: null,
      hook_mm: null,
    };
    change("", (d) => ({ ...d, swatches: [...d.swatches, swatch] }));
    onDone();
  };
  return (
    <form className="border-line mt-2 border-t pt-2" onSubmit={submit} aria-label="A new swatch">
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-6">
        <label className="col-span-2 sm:col-span-1">
          <span className="text-quiet text-[13px]">
            Stitch <Help term="Stitch">{STITCH_HELP}</Help>
          </span>
          <input
            name="stitch"
            className="field"
            aria-label="Stitch of the swatch"
            defaultValue={work?.asked.stitches[0]?.stitch}
            required
            maxLength={120}
          />
        </label>
        <NumberInput name="stitches" label="Stitches" />
        <NumberInput name="rows" label="Rows" />
        <NumberInput name="width" label={`Width (${units})`} />
        <NumberInput name="height" label={`Height (${units})`} />
        <NumberInput name="weight" label="Weight (g)" optional />
      </div>
      <div className="mt-2 flex gap-2">
        <button type="submit" className="button">
          Keep the swatch
        </button>
        <button type="button" className="button-bare" onClick={onDone}>
          Cancel
        </button>
      </div>
    </form>
  );
}
