"use client";
import { useId } from "react";
import type { NumberFormat } from "@/core/base/number-format";
import { TypedNumber } from "./typed-number";

/** A number to type under its label, taken on Enter or when the field is left. */
export function NumberEntry({
  label,
  value,
  format,
  onCommit,
}: {
  label: string;
  value: number | null;
  format: NumberFormat;
  onCommit: (value: number) => void;
}) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-xs text-muted">
        {label}
      </label>
      <TypedNumber
        id={id}
        value={value}
        percent={format.style === "percent"}
        optional
        onCommit={(next) => next !== null && onCommit(next)}
      />
    </div>
  );
}
