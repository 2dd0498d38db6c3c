"use client";
import { Minus, Plus } from "lucide-react";
import { useState } from "react";
import { formatNumber } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import type { Input } from "@/core/project/schema";
import { stepped } from "@/core/project/stepping";
import { meaningsOf } from "../../core/data/typed-number";
import type { ChooseProps } from "../shared/choose-props";
import { useColumnValues } from "../shared/column-values";
import { CommitField } from "../shared/commit-field";
import { later } from "../shared/fetched-later";

// A board without such inputs does not carry them.
const Choose = later(() => import("../shared/choose").then((m) => m.Choose), {
  waiting: ({ options, value }: ChooseProps) => (
    <span className="field block w-36">{options.find((o) => o.value === value)?.label}</span>
  ),
});
const DateField = later(() => import("../shared/date-field").then((m) => m.DateField), {
  waiting: ({ value }) => <span className="field block w-36">{value}</span>,
});

interface Props {
  input: Input;
  value: Value;
  onChange: (value: Value) => void;
}

/** An input by its type: a list where it has choices, else a stepper, a date or a text. */
export function InputControl({ input, value, onChange }: Props) {
  const choices = useChoices(input);
  if (choices === null && input.type === "number")
    return <Stepper input={input} value={value} onChange={onChange} />;
  return (
    <fieldset>
      <legend className="block max-w-52 truncate pb-0.5 text-xs text-muted">{input.label}</legend>
      {choices !== null ? (
        <Choose
          label={input.label}
          value={String(value)}
          options={(choices.some((c) => c === value) ? choices : [value, ...choices]).map((c) => ({
            value: String(c),
            label: choiceLabel(c, input),
          }))}
          onChange={(text) => onChange(choices.find((c) => String(c) === text) ?? value)}
        />
      ) : input.type === "date" ? (
        <DateField label={input.label} value={String(value ?? "")} onCommit={onChange} />
      ) : (
        <CommitField label={input.label} value={String(value ?? "")} onCommit={onChange} />
      )}
    </fieldset>
  );
}

const choiceLabel = (value: Value, input: Input) =>
  typeof value === "number" ? formatNumber(value, input.format) : String(value ?? "(none)");

/** The values that an input can be chosen from, or null where any value can be set. */
function useChoices(input: Input): Value[] | null {
  const from = input.choicesFrom;
  const values = useColumnValues(from?.table ?? null, from?.column ?? null);
  if (from)
    return values
      .map((v) => v.value)
      .filter((v) => typeof v === (input.type === "number" ? "number" : "string"));
  return input.choices.length > 0 ? input.choices : null;
}

/** A number as a stepper: two buttons, arrow keys, or a typed number within its limits. */
function Stepper({ input, value, onChange }: Props) {
  const [text, setText] = useState<string | null>(null);
  const now = typeof value === "number" ? value : 0;
  const percent = input.format.style === "percent";
  const least = input.minimum ?? Number.NEGATIVE_INFINITY;
  const most = input.maximum ?? Number.POSITIVE_INFINITY;
  const commit = () => {
    const means = text === null ? [] : meaningsOf(text, percent);
    // Where a text can mean two numbers, the input's limits tell which, else the percents that stand here.
    const fitting = means.filter((n) => n >= least && n <= most);
    const standing = means.length > 1 ? meaningsOf(`${text}%`, percent)[0] : means[0];
    const read = fitting.length === 1 ? fitting[0] : standing;
    if (read !== undefined) onChange(Math.min(most, Math.max(least, read)));
    setText(null);
  };
  const step = (direction: 1 | -1) => onChange(stepped(now, direction, input));
  return (
    <fieldset>
      <legend className="block max-w-52 truncate pb-0.5 text-xs text-muted">{input.label}</legend>
      <div className="flex items-center rounded-sm border border-rule bg-sheet">
        <button
          type="button"
          className="icon-button size-7"
          aria-label={`${input.label} down`}
          disabled={now <= least}
          onClick={() => step(-1)}
        >
          <Minus size={13} />
        </button>
        <input
          role="spinbutton"
          aria-label={input.label}
          aria-valuenow={now}
          aria-valuemin={input.minimum ?? undefined}
          aria-valuemax={input.maximum ?? undefined}
          aria-valuetext={formatNumber(now, input.format)}
          value={text ?? formatNumber(now, input.format)}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === "Enter") commit();
            if (e.key === "Escape") setText(null);
            if (e.key === "ArrowUp" || e.key === "ArrowDown") {
              e.preventDefault();
              step(e.key === "ArrowUp" ? 1 : -1);
            }
          }}
          className="h-7 w-16 bg-transparent text-center font-mono text-sm font-medium"
        />
        <button
          type="button"
          className="icon-button size-7"
          aria-label={`${input.label} up`}
          disabled={now >= most}
          onClick={() => step(1)}
        >
          <Plus size={13} />
        </button>
      </div>
    </fieldset>
  );
}
