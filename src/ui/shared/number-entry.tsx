"use client";
import { useId, useState } from "react";
import type { NumberFormat } from "@/core/base/number-format";
import { readTyped } from "../../core/data/typed-number";

/** A number to type, taken on Enter; says what is wrong when it is none. */
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
  const percent = format.style === "percent";
  const id = useId();
  const [text, setText] = useState(
    value === null ? "" : percent ? `${Number((value * 100).toPrecision(12))} %` : String(value),
  );
  const [problem, setProblem] = useState(false);
  return (
    <form
      className="flex flex-col gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        const read = readTyped(text, percent);
        if (read === null) return setProblem(true);
        onCommit(read);
      }}
    >
      <label htmlFor={id} className="text-xs text-muted">
        {label}
      </label>
      <div className="flex gap-1.5">
        <input
          id={id}
          value={text}
          aria-invalid={problem}
          onChange={(e) => {
            setText(e.target.value);
            setProblem(false);
          }}
          className={`field font-mono ${problem ? "border-signal" : ""}`}
        />
        <button type="submit" className="button">
          Set
        </button>
      </div>
      {problem && (
        <p role="alert" className="text-xs text-signal">
          Write a number, for example {percent ? "92 %" : "1200"}.
        </p>
      )}
    </form>
  );
}
