import { useState } from "react";

interface Props {
  label: string;
  /** null: nothing is said, and the field is empty. */
  value: number | null;
  /** An empty field is an answer; `onClear` is called when it is emptied. */
  optional?: boolean;
  onClear?: () => void;
  /** How many internal units make one shown unit: 10 for mm shown as cm. */
  per?: number;
  digits?: number;
  unit?: string;
  fault?: string | undefined;
  hideLabel?: boolean;
  min?: number;
  step?: number;
  className?: string;
  onChange: (value: number) => void;
}

function shown(value: number | null, per: number, digits: number): string {
  return value === null ? "" : String(Number((value / per).toFixed(digits)));
}

/** A number that is edited in place. What is typed stays as typed; only whole numbers or decimals are passed on. */
export function NumberField(props: Props) {
  const { label, value, per = 1, digits = 1, unit, fault, hideLabel, className, onChange } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const parsed = typed === null ? (value ?? 0) / per : Number(typed.replace(",", "."));
  const empty = typed !== null && typed.trim() === "";
  const unusable = typed !== null && ((empty && !props.optional) || !Number.isFinite(parsed));
  const message = unusable ? "Write a number, such as 24 or 24.5" : fault;
  const change = (text: string) => {
    setTyped(text);
    const number = Number(text.replace(",", "."));
    if (text.trim() === "") props.onClear?.();
    if (text.trim() !== "" && Number.isFinite(number)) onChange(Math.round(number * per * 1000) / 1000);
  };
  return (
    <label className={`block ${className ?? ""}`}>
      <span className={hideLabel ? "sr-only" : "text-quiet text-[13px]"}>
        {label}
        {unit ? <span> ({unit})</span> : null}
      </span>
      <input
        className="field text-center"
        inputMode="decimal"
        value={typed ?? shown(value, per, digits)}
        aria-invalid={message !== undefined}
        title={message ?? ""}
        onChange={(event) => change(event.target.value)}
        onFocus={(event) => event.target.select()}
        onKeyDown={(event) => {
          const by = event.key === "ArrowUp" ? 1 : event.key === "ArrowDown" ? -1 : 0;
          if (by !== 0 && Number.isFinite(parsed)) {
            event.preventDefault();
            change(shown(parsed + by * (props.step ?? 1), 1, digits));
          }
        }}
        // What cannot be used stays, with the reason beside it.
        onBlur={() => {
          if (!unusable) setTyped(null);
        }}
      />
      {message !== undefined && <span className="text-wrong text-[13px]">{message}</span>}
    </label>
  );
}
