"use client";
import { useState } from "react";
import { formatNumber, NO_VALUE } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import type { QueryInput, Result } from "@/core/plan/query";
import type { Measure, TableInfo } from "@/core/project/schema";
import { groupLabel, wordingOf } from "@/core/rows/key-labels";
import type { TableFormat } from "@/render/table/table-file";
import { Choose } from "../shared/choose";
import { useDraft, useResult } from "../shared/results";
import { saveBytes } from "../shared/save-bytes";
import { splitOptions } from "../shared/split-options";
import { TABLE_FORMAT_LABELS } from "../shared/table-formats";

const FIRST = 100;

/** A value of a measure as it is shown: a number in its format, a text as it is. */
export function shownValue(value: Value, measure: Measure): string {
  if (value === null) return NO_VALUE;
  return typeof value === "number" ? formatNumber(value, measure.format) : String(value);
}

/** The measure's answers by a split, the best first, live, with a bar each and the total at the foot. */
export function AnswerTable({
  measure,
  table,
  sound,
}: {
  measure: Measure;
  table: TableInfo | undefined;
  sound: boolean;
}) {
  const { draft } = useDraft();
  const options = splitOptions(draft, table?.name ?? null);
  const [chosen, setChosen] = useState<string | null>(null);
  const preferred = table?.columns.find((c) => c.reading.type === "text")?.name;
  const current =
    options.find((o) => o.value === chosen) ?? options.find((o) => o.label === preferred) ?? options[0];
  const split = current ? (JSON.parse(current.value) as { column: string; by?: string }) : null;
  const query: QueryInput | null =
    sound && table
      ? {
          table: table.name,
          measures: [
            { id: measure.name, as: "answer" },
            { formula: "count(*)", as: "rows" },
          ],
          splits: split ? [split as never] : [],
          keep: { first: FIRST, others: false },
          ...(split && !split.by
            ? { sort: { by: "answer", order: measure.betterWhen === "lower" ? "asc" : "desc" } }
            : {}),
        }
      : null;
  const { answer } = useResult(query);
  if (!table) return <p className="mt-6 text-muted">Choose a table to see this measure answered.</p>;
  if (answer && "error" in answer) return <p className="mt-6 text-signal">{answer.error}</p>;
  const takeOut = async (format: TableFormat, result: Result) => {
    // Writing files is fetched when it is first asked for.
    const { resultFile, TABLE_FORMATS } = await import("@/render/table/table-file");
    saveBytes(resultFile(format, result), `${measure.label}.${format}`, TABLE_FORMATS[format]);
  };
  const values = answer?.columns.find((c) => c.name === "answer")?.values ?? [];
  const rows = answer?.columns.find((c) => c.name === "rows")?.values ?? [];
  const keys = split ? (answer?.columns[0].values ?? []) : [];
  const most = Math.max(0, ...values.map((v) => (typeof v === "number" ? Math.abs(v) : 0)));
  return (
    <section aria-label="Answers" className="mt-5 flex min-h-0 flex-1 flex-col">
      <div className="flex items-center gap-2 pb-2">
        <span className="text-sm whitespace-nowrap text-muted">Split by</span>
        <div className="w-56 min-w-0">
          <Choose label="Split by" value={current?.value ?? ""} options={options} onChange={setChosen} />
        </div>
        {answer && (
          <div className="ml-auto w-28">
            <Choose
              label="Take the answers out"
              value=""
              options={[{ value: "", label: "Take out …" }, ...TABLE_FORMAT_LABELS]}
              onChange={(f) => f && void takeOut(f as TableFormat, answer)}
            />
          </div>
        )}
        {answer && (
          <span className="text-sm whitespace-nowrap text-muted">
            {answer.scanned.toLocaleString("en").replaceAll(",", "\u2009")} rows ·{" "}
            {answer.ms < 10 ? answer.ms.toFixed(1) : Math.round(answer.ms)} ms
          </span>
        )}
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard */}
      <div className="min-h-0 flex-1 overflow-auto" role="region" aria-label="Answer table" tabIndex={0}>
        <table className="w-full border-collapse text-sm">
          <thead className="sticky top-0 bg-paper">
            <tr className="border-b border-rule text-left text-muted">
              <th className="w-[30%] px-2 py-1.5 font-medium">{split?.column ?? ""}</th>
              <th className="w-24 px-2 py-1.5 text-right font-medium">rows</th>
              <th className="px-2 py-1.5 font-medium">{measure.label}</th>
              <th className="w-32 px-2 py-1.5" aria-label="Value" />
            </tr>
          </thead>
          <tbody>
            {answer &&
              keys.map((key, i) => {
                const value = values[i];
                const none = answer.noMatch?.row === i;
                const share = typeof value === "number" && most > 0 ? Math.abs(value) / most : 0;
                return (
                  <tr key={`${none} ${key}`} className="border-b border-rule/60">
                    <td className="max-w-0 truncate px-2 py-1.5">
                      {groupLabel(key, none, split?.by, wordingOf(draft))}
                    </td>
                    <td className="px-2 py-1.5 text-right font-mono text-muted">
                      {formatNumber(rows[i] as number, {
                        ...measure.format,
                        style: "number",
                        units: "none",
                        decimals: 0,
                        prefix: "",
                        suffix: "",
                      })}
                    </td>
                    <td className="px-2 py-1.5">
                      <div
                        className={`h-2 rounded-full ${typeof value === "number" && value < 0 ? "bg-signal" : "bg-verdigris"}`}
                        style={{ width: `${share * 100}%` }}
                      />
                    </td>
                    <td className="px-2 py-1.5 text-right font-mono font-medium">
                      {shownValue(value, measure)}
                    </td>
                  </tr>
                );
              })}
          </tbody>
          {answer && (
            <tfoot className="sticky bottom-0 bg-paper">
              <tr className="border-t border-rule font-semibold">
                <td className="px-2 py-1.5">All</td>
                <td className="px-2 py-1.5 text-right font-mono">
                  {formatNumber(answer.totals.rows as number, {
                    ...measure.format,
                    style: "number",
                    units: "none",
                    decimals: 0,
                    prefix: "",
                    suffix: "",
                  })}
                </td>
                <td />
                <td className="px-2 py-1.5 text-right font-mono">
                  {shownValue(answer.totals.answer, measure)}
                </td>
              </tr>
            </tfoot>
          )}
        </table>
        {keys.length === FIRST && <p className="py-2 text-sm text-muted">The first {FIRST} are shown.</p>}
      </div>
    </section>
  );
}
