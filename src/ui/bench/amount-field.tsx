"use client";
import { Link2 } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { NumberFormat } from "@/core/base/number-format";
import type { NumberSource } from "@/core/project/schema";
import { type Saying, sourceWords } from "@/core/view/sentence";
import { TypedNumber } from "../shared/typed-number";
import { stayForField } from "../shared/unsaved-field";
import { NumberChoices } from "./number-choices";

/** A number of a list, written or taken from a measure or an input. */
export type Amount = number | Exclude<NumberSource, { number: number }>;

const asSource = (amount: Amount): NumberSource => (typeof amount === "number" ? { number: amount } : amount);

/** A number that is typed in the notation of its measure, or taken from a measure or an input. */
export function AmountField({
  label,
  amount,
  format,
  saying,
  ofRows = false,
  onChange,
}: {
  label: string;
  amount: Amount;
  format: NumberFormat;
  saying: Pick<Saying, "visual" | "project">;
  /** Whether each row is held against it. */
  ofRows?: boolean;
  onChange: (amount: Amount) => void;
}) {
  const [open, setOpen] = useState(false);
  const source = asSource(amount);
  const { text, tone } = sourceWords(saying, source);
  const isTyped = typeof amount === "number";
  const choose = (next: NumberSource | null) => {
    if (next) onChange("number" in next ? next.number : next);
  };
  return (
    <div className="flex min-w-0 items-start">
      {isTyped && (
        <div className="min-w-0 flex-1 [&_.field]:rounded-r-none">
          <TypedNumber
            label={label}
            value={amount}
            percent={format.style === "percent"}
            onCommit={(next) => next !== null && onChange(next)}
          />
        </div>
      )}
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          aria-label={isTyped ? `${label}, from a measure or an input` : `${label}: ${text}`}
          title={isTyped ? "From a measure or an input" : text}
          className={`flex h-8 min-w-0 items-center border border-rule text-sm ${
            isTyped
              ? "w-6 shrink-0 justify-center rounded-r-sm border-l-0 text-muted hover:bg-tint"
              : `flex-1 rounded-sm px-1.5 ${tone === "input" ? "bg-amber-tint text-amber" : "bg-tint text-verdigris-deep"}`
          }`}
        >
          {isTyped ? <Link2 size={12} /> : <span className="truncate">{text}</span>}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={6}
            aria-label={label}
            onEscapeKeyDown={stayForField}
            className="z-40 w-80 rounded-md border border-rule bg-sheet text-base shadow-stage"
          >
            <NumberChoices
              label={label}
              source={source}
              format={format}
              isNeeded
              ofRows={ofRows}
              close={() => setOpen(false)}
              onChange={choose}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}
