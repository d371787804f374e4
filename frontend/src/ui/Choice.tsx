interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  hideLabel?: boolean;
  onChange: (value: T) => void;
}

/** A few options beside each other; arrow keys move between them, as in any group of radio buttons. */
export function Choice<T extends string>({ label, value, options, hideLabel, onChange }: Props<T>) {
  return (
    <fieldset className="min-w-0">
      <legend className={hideLabel ? "sr-only" : "text-quiet text-[13px]"}>{label}</legend>
      <div className="border-line bg-sheet inline-flex flex-wrap rounded-md border p-0.5">
        {options.map(([key, text]) => (
          <label
            key={key}
            className={`cursor-pointer rounded px-2 py-0.5 text-sm whitespace-nowrap has-focus-visible:outline-2 ${
              key === value ? "bg-rill text-rill-ink" : "text-ink"
            }`}
          >
            <input
              type="radio"
              className="sr-only"
              name={label}
              checked={key === value}
              onChange={() => onChange(key)}
            />
            {text}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
