"use client";
import { Plus, X } from "lucide-react";
import type { NumberFormat } from "@/core/base/number-format";
import { meaningsOf, unclear, writeTyped } from "@/core/data/typed-number";
import { LONGEST } from "@/core/project/most";
import type { Rule } from "@/core/project/schema";
import { SYMBOLS } from "@/core/project/symbols";
import type { Saying } from "@/core/view/sentence";
import { hasRows } from "@/core/view/spoken";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { useProject } from "../shared/project-context";
import { AmountField } from "./amount-field";

const WHEN = [
  { value: "below", label: "below" },
  { value: "from", label: "from" },
  { value: "is", label: "is" },
];

/** What a rule compares with: a text where it asks what the value is, else a number from anywhere. */
function RuleLimit({
  label,
  rule: { when, than },
  format,
  saying,
  onChange,
}: {
  label: string;
  rule: Rule;
  format: NumberFormat;
  saying: Pick<Saying, "visual" | "project">;
  onChange: (than: Rule["than"]) => void;
}) {
  const percent = format.style === "percent";
  if (when === "is" && typeof than !== "object")
    return (
      <CommitField
        mono
        label={label}
        value={typeof than === "number" ? writeTyped(than, percent) : than}
        check={(text) => unclear(text, percent)}
        longest={LONGEST.compared}
        onCommit={(text) => {
          const [number] = meaningsOf(text, percent);
          onChange(number ?? text);
        }}
      />
    );
  return (
    <AmountField
      label={label}
      amount={typeof than === "string" ? 0 : than}
      format={format}
      saying={saying}
      ofRows={hasRows(saying.visual)}
      onChange={onChange}
    />
  );
}

/**
 * Conditions in their order, each with a word, a colour and a symbol; the first that holds gives a
 * row its colour.
 */
export function Rules({
  id,
  rules,
  format,
  saying,
}: {
  id: string;
  rules: Rule[];
  format: NumberFormat;
  saying: Pick<Saying, "visual" | "project">;
}) {
  const measures = useProject((s) => s.document.measures);
  const apply = useProject((s) => s.apply);
  const change = (next: Rule[]) => apply({ type: "change visual", id, change: { rules: next } });
  const set = (at: number, rule: Partial<Rule>) =>
    change(rules.map((r, i) => (i === at ? { ...r, ...rule } : r)));
  return (
    <div className="flex flex-col gap-2 pt-2">
      {rules.map((rule, i) => {
        const own = measures.find((m) => m.id === rule.measure)?.format ?? format;
        return (
          <fieldset
            // biome-ignore lint/suspicious/noArrayIndexKey: a rule has no other name than its place
            key={i}
            className="grid grid-cols-[1fr_60px_84px_24px] items-center gap-1 rounded-sm border border-rule p-1.5"
          >
            <legend className="sr-only">Rule {i + 1}</legend>
            <Choose
              label={`Measure of rule ${i + 1}`}
              value={rule.measure ?? ""}
              options={[
                { value: "", label: "the value" },
                ...measures.map((m) => ({ value: m.id, label: m.label })),
              ]}
              onChange={(m) => set(i, { measure: m || null })}
            />
            <Choose
              label={`Condition of rule ${i + 1}`}
              value={rule.when}
              options={WHEN}
              onChange={(when) => set(i, { when: when as Rule["when"] })}
            />
            <RuleLimit
              label={`Limit of rule ${i + 1}`}
              rule={rule}
              format={own}
              saying={saying}
              onChange={(than) => set(i, { than })}
            />
            <button
              type="button"
              className="icon-button size-6"
              aria-label={`Remove rule ${i + 1}`}
              onClick={() => change(rules.filter((_, k) => k !== i))}
            >
              <X size={13} />
            </button>
            <CommitField
              label={`Word of rule ${i + 1}`}
              value={rule.word}
              longest={LONGEST.word}
              onCommit={(word) => set(i, { word })}
            />
            <input
              type="color"
              aria-label={`Colour of rule ${i + 1}`}
              value={rule.color}
              onChange={(e) => set(i, { color: e.target.value })}
              className="h-7 w-full rounded-sm border border-rule bg-sheet p-0.5"
            />
            <div className="col-span-2">
              <Choose
                label={`Symbol of rule ${i + 1}`}
                value={rule.symbol}
                options={SYMBOLS.map((s) => ({ value: s, label: s === "none" ? "no symbol" : s }))}
                onChange={(symbol) => set(i, { symbol: symbol as Rule["symbol"] })}
              />
            </div>
          </fieldset>
        );
      })}
      {rules.length < 20 && (
        <button
          type="button"
          className="button self-start"
          onClick={() =>
            change([
              ...rules,
              {
                measure: null,
                when: rules.length === 0 ? "below" : "from",
                than: 0,
                word: rules.length === 0 ? "poor" : "good",
                color: rules.length === 0 ? "#c4452d" : "#1f7a6d",
                symbol: rules.length === 0 ? "triangle down" : "circle",
              },
            ])
          }
        >
          <Plus size={13} /> Add a rule
        </button>
      )}
    </div>
  );
}
