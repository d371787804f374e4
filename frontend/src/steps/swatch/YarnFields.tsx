import { Plus, Trash2 } from "lucide-react";
import { useState, type SyntheticEvent } from "react";
import type { Yarn, YarnSaidView } from "../../api/schema";
import { useBench, useChange, useDocument, useFault } from "../../bench/context";
import { useCraft } from "../../bench/useCraft";
import { NumberField } from "../../ui/NumberField";
import { Select } from "../../ui/Select";
import { NumberInput } from "./formFields";
import { formValues } from "./formValues";

/** The yarns as their labels say, one for each colour. */
export function YarnFields() {
  const { yarns } = useDocument();
  const { work } = useBench();
  const craft = useCraft();
  const [more, setMore] = useState(false);
  return (
    <section className="sheet p-4" aria-label="Yarn">
      <h2 className="text-lg">Yarn</h2>
      <p className="text-quiet mb-2 text-sm">
        {yarns.length === 0
          ? "Yarn is estimated once it is known what the label says. Until then nothing is assumed."
          : "As the labels say; one for each colour of the text."}
        {work?.yarn_said && (
          <>
            {" "}
            The text says: <span className="font-text">“{work.yarn_said.words}”</span>
            {yarns.length === 0 && "; what is understood of it stands below."}
          </>
        )}
      </p>
      {work && work.yarn.instead.length > 0 && (
        <p className="text-quiet text-[13px]">
          In place of the first one: {work.yarn.instead.join(", or ")}.
        </p>
      )}
      {yarns.map((yarn, at) => (
        <OneYarn key={at} yarn={yarn} at={at} only={yarns.length === 1} />
      ))}
      {yarns.length === 0 || more ? (
        // What the text says, and the classes to choose from, come later: the form begins anew with them.
        <NewYarn
          key={`${yarns.length} ${craft ? "classes" : ""} ${work?.yarn_said?.words ?? ""}`}
          first={yarns.length === 0}
          said={yarns.length === 0 ? (work?.yarn_said ?? null) : null}
          strands={work?.strands_said ?? 1}
          onDone={() => setMore(false)}
        />
      ) : (
        yarns.length < (craft?.most_yarns ?? 0) && (
          <button type="button" className="button-plain mt-3" onClick={() => setMore(true)}>
            <Plus size={16} aria-hidden /> Another colour or yarn
          </button>
        )
      )}
    </section>
  );
}

function OneYarn({ yarn, at, only }: { yarn: Yarn; at: number; only: boolean }) {
  const change = useChange();
  const fault = useFault();
  const craft = useCraft();
  const [typed, setTyped] = useState(yarn.measured_m !== null || yarn.metres_per_ball === null);
  const path = `$.yarns[${at}]`;
  const set = (part: Partial<Yarn>) =>
    change(`yarn.${at}.${Object.keys(part).join()}`, (d) => ({
      ...d,
      yarns: d.yarns.map((one, index) => (index === at ? { ...one, ...part } : one)),
    }));
  const words = (key: "name" | "colour" | "fibre", label: string, className: string) => (
    <label className={className}>
      <span className="text-quiet text-[13px]">{label}</span>
      <input
        className="field"
        value={yarn[key]}
        aria-invalid={fault(`${path}.${key}`) !== undefined}
        onChange={(event) => set({ [key]: event.target.value })}
      />
      {fault(`${path}.${key}`) && <span className="text-wrong text-[13px]">{fault(`${path}.${key}`)}</span>}
    </label>
  );
  const number = (
    key: "grams_per_ball" | "metres_per_ball" | "strands" | "have_g" | "measured_m" | "measured_g",
    label: string,
    unit: string,
    optional = false,
  ) => (
    <NumberField
      className="col-span-3 sm:col-span-2"
      label={label}
      unit={unit}
      value={yarn[key]}
      digits={key === "strands" ? 0 : 1}
      fault={fault(`${path}.${key}`)}
      optional={optional}
      onChange={(value) => set({ [key]: value })}
      {...(optional ? { onClear: () => set({ [key]: null }) } : {})}
    />
  );
  return (
    <fieldset className="border-line mt-2 border-t pt-2">
      <legend className="sr-only">{yarn.colour ? `Yarn of colour ${yarn.colour}` : "Yarn"}</legend>
      {fault(path) && <p className="text-wrong text-[13px]">{fault(path)}</p>}
      <div className="grid grid-cols-6 gap-x-3 gap-y-1">
        {words("name", "Name", "col-span-6 sm:col-span-2")}
        {words("fibre", "Fibre", "col-span-3 sm:col-span-2")}
        {words(
          "colour",
          only ? "Colour in the text (empty: all)" : "Colour in the text",
          "col-span-3 sm:col-span-2",
        )}
        <Select
          className="col-span-3 sm:col-span-2"
          label="Weight class"
          value={String(yarn.weight_class)}
          onChange={(value) => set({ weight_class: Number(value) })}
        >
          {craft?.yarn_classes.map((name, index) => (
            <option key={name} value={index}>
              {index} – {name}
            </option>
          ))}
        </Select>
        {number("grams_per_ball", "Grams a ball", "g")}
        {number("metres_per_ball", "Metres a ball", "m", true)}
        {number("strands", "Strands together", "")}
        {number("have_g", "In the drawer", "g", true)}
        {typed ? (
          <>
            {number("measured_m", "Measured length", "m", true)}
            {number("measured_g", "It weighs", "g", true)}
          </>
        ) : (
          <button
            type="button"
            className="button-bare col-span-3 self-end justify-self-start sm:col-span-2"
            onClick={() => setTyped(true)}
          >
            No label? Measure and weigh a length
          </button>
        )}
        <button
          type="button"
          className="button-bare col-span-3 self-end justify-self-end sm:col-span-2 sm:col-start-5"
          onClick={() => change("", (d) => ({ ...d, yarns: d.yarns.filter((_, index) => index !== at) }))}
        >
          <Trash2 size={15} aria-hidden /> Remove {yarn.name}
        </button>
      </div>
      {!only && (
        <label className="mt-1 flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            checked={yarn.carried}
            onChange={(event) => set({ carried: event.target.checked })}
          />
          Carried along where the colour changes, and not cut
        </label>
      )}
      {yarn.metres_per_ball === null && (yarn.measured_m === null || yarn.measured_g === null) && (
        <p className="text-warn text-[13px]">
          Without metres there are no grams: write what the label says, or measure a length of it and weigh
          it.
        </p>
      )}
    </fieldset>
  );
}

/** A yarn that is not known yet: what an estimate needs is asked for, and nothing is assumed. */
function NewYarn({
  first,
  said,
  strands,
  onDone,
}: {
  first: boolean;
  said: YarnSaidView | null;
  strands: number;
  onDone: () => void;
}) {
  const change = useChange();
  const craft = useCraft();
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { text, number } = formValues(event.currentTarget);
    const yarn: Yarn = {
      name: text("name"),
      colour: text("colour"),
      weight_class: Number(text("class")),
      fibre: "",
      grams_per_ball: number("grams") ?? 0,
      metres_per_ball: number("metres"),
      measured_m: null,
      measured_g: null,
      strands,
      have_g: null,
      carried: false,
    };
    change("", (d) => ({ ...d, yarns: [...d.yarns, yarn] }));
    onDone();
  };
  return (
    <form className="border-line mt-2 border-t pt-2" onSubmit={submit} aria-label="A new yarn">
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-6">
        <label className="col-span-2">
          <span className="text-quiet text-[13px]">Name</span>
          <input name="name" className="field" defaultValue={said?.name} required maxLength={80} />
        </label>
        <Select
          className="col-span-2"
          label="Weight class"
          name="class"
          initial={said?.weight_class?.toString()}
          required
        >
          <option value="">choose</option>
          {craft?.yarn_classes.map((name, index) => (
            <option key={name} value={index}>
              {index} – {name}
            </option>
          ))}
        </Select>
        <label className="col-span-2">
          <span className="text-quiet text-[13px]">
            {first ? "Colour in the text (empty: all)" : "Colour in the text"}
          </span>
          <input name="colour" className="field" maxLength={40} required={!first} />
        </label>
        <NumberInput name="grams" label="Grams a ball" value={said?.grams_per_ball ?? undefined} />
        <NumberInput
          name="metres"
          label="Metres a ball"
          value={said?.metres_per_ball ?? undefined}
          optional
        />
        <button type="submit" className="button col-span-2 justify-center">
          Set the yarn
        </button>
        {!first && (
          <button type="button" className="button-bare" onClick={onDone}>
            Cancel
          </button>
        )}
      </div>
    </form>
  );
}
