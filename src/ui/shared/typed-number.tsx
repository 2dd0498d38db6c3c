"use client";
import { useRef, useState } from "react";
import { formatNumber, type NumberFormat, PERCENT_FORMAT } from "@/core/base/number-format";
import { isTyped, meaningsOf, writeTyped } from "@/core/data/typed-number";
import { unsaved } from "./unsaved-field";

const EXACT: NumberFormat = { ...PERCENT_FORMAT, decimals: 4 };
/** "70 %", "0.7 %": with the digits it needs and no more. */
const asPercent = (value: number) => formatNumber(value, EXACT).replace(/\.?0+(?=\u2009%)/, "");

interface Props {
  id?: string;
  label?: string;
  value: number | null;
  percent: boolean;
  placeholder?: string;
  /** Whether the field may be empty, which is null. */
  optional?: boolean;
  /** A sentence where a number will not do. */
  check?: (value: number) => string | null;
  onCommit: (value: number | null) => void;
}

/**
 * A number in the notation of its measure, which changes the document on Enter or when the field is left.
 * Where a text can mean two numbers (0.7 where a percent is meant), nothing changes until one is chosen.
 */
export function TypedNumber({ id, label, value, percent, placeholder, optional, check, onCommit }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [asked, setAsked] = useState<number[]>([]);
  // Asked on Enter, the likeliest answer is one more Enter away.
  const [byKey, setByKey] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const shown = text ?? (value === null ? "" : writeTyped(value, percent));
  const isEmpty = shown.trim() === "";
  const means = meaningsOf(shown, percent);
  const fits = means.filter((m) => !check?.(m));
  const problem = (): string | null => {
    if (text === null || (isEmpty && optional)) return null;
    if (!isTyped(shown, percent)) return `Write a number, for example ${percent ? "92 %" : "1200"}.`;
    return fits.length === 0 ? (check?.(means[0]) ?? null) : null;
  };
  const said = problem();
  const take = (next: number | null) => {
    setText(null);
    setAsked([]);
    if (next !== value) onCommit(next);
  };
  const forget = () => {
    setText(null);
    setAsked([]);
    field.current?.focus();
  };
  const commit = (isEnter: boolean) => {
    if (text === null || said) return;
    if (isEmpty) take(null);
    // What the field cannot hold is not meant.
    else if (fits.length === 1) take(fits[0]);
    else if (asked.length === 0) {
      setByKey(isEnter);
      setAsked(fits);
    }
  };
  return (
    <div {...unsaved(text !== null)}>
      <input
        ref={field}
        id={id}
        aria-label={label}
        aria-invalid={said !== null}
        value={shown}
        placeholder={placeholder}
        className={`field font-mono ${said ? "border-signal" : ""}`}
        onChange={(e) => {
          setText(e.target.value);
          setAsked([]);
        }}
        onBlur={() => commit(false)}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            // This press is not to choose the answer that takes the focus.
            e.preventDefault();
            commit(true);
          }
          if (e.key === "Escape") forget();
        }}
      />
      {said && (
        <p role="alert" className="mt-1 text-xs text-signal">
          {said}
        </p>
      )}
      {asked.length > 0 && (
        <fieldset role="alert" className="mt-1 flex flex-wrap items-center gap-1 text-xs">
          <legend className="float-left mr-1 py-1">Is it</legend>
          {asked.map((meaning, i) => (
            <button
              key={meaning}
              type="button"
              // biome-ignore lint/a11y/noAutofocus: the question is the answer to the key that was pressed.
              autoFocus={byKey && i === 0}
              className="button h-6 px-2 font-mono text-xs"
              onClick={() => {
                take(meaning);
                field.current?.focus();
              }}
              onKeyDown={(e) => e.key === "Escape" && forget()}
            >
              {asPercent(meaning)}
            </button>
          ))}
        </fieldset>
      )}
    </div>
  );
}
