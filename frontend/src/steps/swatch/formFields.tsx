/** A required number of a form that is sent as a whole. */
export function NumberInput({
  name,
  label,
  optional,
  value,
}: {
  name: string;
  label: string;
  optional?: boolean;
  value?: number | undefined;
}) {
  return (
    <label>
      <span className="text-quiet text-[13px]">{label}</span>
      <input
        name={name}
        defaultValue={value}
        className="field text-center"
        inputMode="decimal"
        required={!optional}
        pattern="[0-9]+([.,][0-9]+)?"
        title="a number, such as 50 or 4.5"
      />
    </label>
  );
}
