import { type ReactNode, useId } from "react";

/** A label beside its control. The control gets the label's id through `children`. */
export function Labelled({
  label,
  children,
  stacked = false,
}: {
  label: string;
  children: (id: string) => ReactNode;
  stacked?: boolean;
}) {
  const id = useId();
  return (
    <div className={stacked ? "flex flex-col gap-1" : "grid min-h-8 grid-cols-[96px_1fr] items-center gap-2"}>
      <label htmlFor={id} className="text-sm text-muted">
        {label}
      </label>
      {children(id)}
    </div>
  );
}

/** A choice among a few, as the platform's own list. */
export function Choose({
  id,
  label,
  value,
  options,
  onChange,
  disabled,
}: {
  id?: string;
  label?: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  disabled?: boolean;
}) {
  return (
    <select
      id={id}
      aria-label={label}
      value={value}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value)}
      className="field pr-1"
    >
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}
