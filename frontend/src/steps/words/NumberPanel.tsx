import { X } from "lucide-react";
import { useState, type SyntheticEvent } from "react";
import type { NamedPlaceView } from "../../api/schema";
import { Choice } from "../../ui/Choice";
import { Trouble } from "../../ui/Trouble";
import { useNames } from "../shape/Naming";

type Where = "all" | "here";

/** The numbers of a name, opened from its place in the text: changed in all places or only here, size by size. */
export function NumberPanel({
  place,
  sizes,
  taken,
  onClose,
}: {
  place: NamedPlaceView;
  sizes: readonly string[];
  /** The names that the text has. */
  taken: readonly string[];
  onClose: () => void;
}) {
  const [values, setValues] = useState(() => place.values.map(String));
  const [where, setWhere] = useState<Where>("all");
  const { make, problem, error } = useNames(onClose);
  const { name } = place;
  if (name === null)
    return (
      <section aria-label="The numbers" className="sheet flex items-baseline gap-3 p-3">
        <p>
          <strong className="tabular">{place.shown}</strong> follows from other numbers: it is worked out from
          the names in its place.
        </p>
        <button type="button" className="button-bare" onClick={onClose}>
          Close
        </button>
      </section>
    );
  const numbers = values.map(Number);
  const good = values.every((value) => /^\d{1,5}$/.test(value.trim()));
  const changed = good && numbers.some((value, at) => value !== place.values[at]);
  const own = Array.from({ length: 99 }, (_, at) => `${name} ${at + 2}`).find((one) => !taken.includes(one));
  const submit = (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (!changed) return;
    const here = where === "here" ? { line: place.line, other: own ?? `${name} more` } : {};
    make.mutate({ verb: "set", name, values: numbers, ...here });
  };
  return (
    <form className="sheet p-3" aria-label={`The numbers of ${name}`} onSubmit={submit}>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <h2 className="text-lg">{name}</h2>
        {sizes.map((size, at) => (
          <label key={size} className="w-20">
            <span className="text-quiet block text-[13px] break-words">{size}</span>
            <input
              className="field text-center"
              inputMode="numeric"
              aria-label={`${name} in ${size}`}
              value={values[at] ?? ""}
              onChange={(event) => setValues(values.map((was, i) => (i === at ? event.target.value : was)))}
            />
          </label>
        ))}
        <Choice
          label="Where"
          value={where}
          options={[
            ["all", "in all places"],
            ["here", `only in line ${place.line}`],
          ]}
          onChange={setWhere}
        />
        <button type="submit" className="button" disabled={!changed || make.isPending}>
          {make.isPending ? "Being worked…" : "Change"}
        </button>
        <button type="button" className="button-bare" aria-label="Close" onClick={onClose}>
          <X size={16} aria-hidden />
        </button>
      </div>
      <p className="text-quiet mt-1 text-[13px]">
        {good
          ? "What follows from it is stated anew, and it is held in the sizes in which you change it."
          : "Write a whole number for each size."}
      </p>
      {problem && (
        <p role="alert" className="text-wrong text-sm">
          {problem}
        </p>
      )}
      <Trouble error={error} />
    </form>
  );
}
