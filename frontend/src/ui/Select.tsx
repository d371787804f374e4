import { useId, type ReactNode } from "react";

interface Props {
  label: string;
  name?: string;
  value?: string;
  /** What is chosen at first, in a form that is sent as a whole. */
  initial?: string | undefined;
  required?: boolean;
  className?: string;
  /** The label beside the list instead of above it. */
  beside?: boolean;
  onChange?: (value: string) => void;
  children: ReactNode;
}

/** A list to choose from, with its label tied to it (not around it: its options are no part of its name). */
export function Select({
  label,
  name,
  value,
  initial,
  required,
  className,
  beside,
  onChange,
  children,
}: Props) {
  const id = useId();
  return (
    <div className={beside ? "flex items-center gap-2 text-sm" : (className ?? "")}>
      <label htmlFor={id} className={beside ? "text-quiet" : "text-quiet block text-[13px] leading-[22.5px]"}>
        {label}
      </label>
      <select
        id={id}
        className={`field ${beside ? (className ?? "") : ""}`}
        {...(required ? { required } : {})}
        {...(name === undefined ? {} : { name })}
        {...(value === undefined ? {} : { value })}
        {...(initial === undefined ? {} : { defaultValue: initial })}
        {...(onChange ? { onChange: (event) => onChange(event.target.value) } : {})}
      >
        {children}
      </select>
    </div>
  );
}
