import type { SyntheticEvent } from "react";
import type { Yarn } from "../../api/schema";
import { faultAt, useBench } from "../../bench/context";
import { NumberField } from "../../ui/NumberField";
import { Select } from "../../ui/Select";

const CLASSES = ["lace", "super fine", "fine", "light", "medium", "bulky", "super bulky", "jumbo"];

/** The yarn as its label says, and the hook. */
export function YarnFields() {
  const bench = useBench();
  const { design } = bench;
  const yarn = design.document.yarn;
  if (!yarn) return <NoYarn />;
  const hook = design.document.hook_mm;
  const letter = bench.work?.gauge?.hook_letter;
  const set = (key: keyof Yarn, value: string | number) =>
    design.change(`yarn.${key}`, (d) => (d.yarn ? { ...d, yarn: { ...d.yarn, [key]: value } } : d));
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
          label={`Hook${letter ? ` – US ${letter}` : ""}`}
          unit="mm"
          digits={2}
          step={0.5}
          value={hook ?? 0}
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

/** Nothing is known of the yarn yet: what an estimate needs is asked for, and nothing is assumed. */
function NoYarn() {
  const { design } = useBench();
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const text = (name: string) => {
      const value = data.get(name);
      return typeof value === "string" ? value.trim() : "";
    };
    const number = (name: string) => Number(text(name).replace(",", "."));
    design.change("", (d) => ({
      ...d,
      hook_mm: number("hook"),
      yarn: {
        name: text("name"),
        weight_class: number("class"),
        fibre: "",
        grams_per_ball: number("grams"),
        metres_per_ball: number("metres"),
        strands: 1,
      },
    }));
  };
  const field = (name: string, label: string) => (
    <label>
      <span className="text-quiet text-[13px]">{label}</span>
      <input
        name={name}
        className="field text-center"
        inputMode="decimal"
        required
        pattern="[0-9]+([.,][0-9]+)?"
        title="a number, such as 50 or 4.5"
      />
    </label>
  );
  return (
    <form className="sheet p-4" onSubmit={submit} aria-label="Yarn and hook">
      <h2 className="font-text text-lg font-semibold">Yarn and hook</h2>
      <p className="text-quiet mb-2 text-sm">
        Yarn is estimated once it is known what the label says. Until then nothing is assumed.
      </p>
      <div className="grid grid-cols-6 items-end gap-3">
        <label className="col-span-2">
          <span className="text-quiet text-[13px]">Name</span>
          <input name="name" className="field" required maxLength={80} />
        </label>
        <Select className="col-span-2" label="Weight class" name="class" required>
          <option value="">choose</option>
          {CLASSES.map((name, index) => (
            <option key={name} value={index}>
              {index} – {name}
            </option>
          ))}
        </Select>
        {field("hook", "Hook (mm)")}
        <span />
        {field("grams", "Grams a ball")}
        {field("metres", "Metres a ball")}
        <button type="submit" className="button col-span-2 justify-center">
          Set the yarn
        </button>
      </div>
    </form>
  );
}
