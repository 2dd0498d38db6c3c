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
    <div
      className={
        stacked ? "flex flex-col gap-1" : "grid min-h-8 grid-cols-[96px_minmax(0,1fr)] items-center gap-2"
      }
    >
      <label htmlFor={id} className="text-sm text-muted">
        {label}
      </label>
      {children(id)}
    </div>
  );
}
