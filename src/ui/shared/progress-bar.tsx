"use client";
import { Progress } from "radix-ui";

/** How far something has come, 0 to 1; null while that is not known. */
export function ProgressBar({
  label,
  share,
  className,
}: {
  label: string;
  share: number | null;
  className: string;
}) {
  return (
    <Progress.Root
      aria-label={label}
      value={share === null ? null : Math.round(share * 100)}
      className={`h-1.5 overflow-hidden rounded-full bg-well ${className}`}
    >
      <Progress.Indicator
        className={`h-full rounded-full bg-verdigris transition-[width] ${share === null ? "w-1/3 animate-pulse" : ""}`}
        style={share === null ? undefined : { width: `${share * 100}%` }}
      />
    </Progress.Root>
  );
}
