"use client";
import { useState } from "react";
import { formatNumber } from "@/core/base/number-format";
import type { QueryInput, Result } from "@/core/plan/query";
import { columnsOfMeasure } from "@/core/project/columns-of-measure";
import { homeTableOf } from "@/core/project/home-table";
import type { Measure } from "@/core/project/schema";
import { groupLabel, wordingOf } from "@/core/rows/key-labels";
import type { TableFormat } from "@/render/table/table-file";
import { ActionMenu } from "../shared/action-menu";
import { Choose } from "../shared/choose";
import { useDraft, useResult } from "../shared/results";
import { saveBytes } from "../shared/save-bytes";
import { splitOptions } from "../shared/split-options";
import { TABLE_FORMAT_LABELS } from "../shared/table-formats";
import { AnswerRows } from "./answer-rows";
import { shownValue, WHOLE } from "./shown-value";

const FIRST = 100;

/** The measure's answers by a split, the best first, live, with a bar each and the total at the foot. */
export function AnswerTable({ measure, sound }: { measure: Measure; sound: boolean }) {
  const { draft } = useDraft();
  const table = homeTableOf(measure, draft);
  const columns = columnsOfMeasure(measure, draft);
  const options = splitOptions(columns);
  const [chosen, setChosen] = useState<string | null>(null);
  const preferred = columns.find((c) => c.own && c.type === "text") ?? columns.find((c) => c.type === "text");
  const current =
    options.find((o) => o.value === chosen) ?? options.find((o) => o.label === preferred?.name) ?? options[0];
  const split = current ? (JSON.parse(current.value) as { column: string; by?: string }) : null;
  const query: QueryInput | null =
    sound && table !== null
      ? {
          table,
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
  if (table === null)
    return sound ? (
      <p className="mt-6 text-muted">It reads no rows: it has the same value everywhere.</p>
    ) : null;
  if (answer && "error" in answer) return <p className="mt-6 text-signal">{answer.error}</p>;
  const takeOut = async (format: TableFormat, result: Result) => {
    // Writing files is fetched when it is first asked for.
    const { resultFile, TABLE_FORMATS } = await import("@/render/table/table-file");
    saveBytes(resultFile(format, result), `${measure.label}.${format}`, TABLE_FORMATS[format]);
  };
  const values = answer?.columns.find((c) => c.name === "answer")?.values ?? [];
  const counts = answer?.columns.find((c) => c.name === "rows")?.values ?? [];
  const keys = split ? (answer?.columns[0].values ?? []) : [];
  const most = Math.max(0, ...values.map((v) => (typeof v === "number" ? Math.abs(v) : 0)));
  return (
    <section aria-label="Answers" className="mt-5 flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 pb-2">
        <span className="text-sm whitespace-nowrap text-muted">Split by</span>
        <div className="w-56 min-w-32">
          <Choose label="Split by" value={current?.value ?? ""} options={options} onChange={setChosen} />
        </div>
        {answer && (
          <div className="ml-auto">
            <ActionMenu
              label="Take the answers out"
              actions={TABLE_FORMAT_LABELS.map((format) => ({
                label: format.label,
                run: () => void takeOut(format.value as TableFormat, answer),
              }))}
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
          <AnswerRows
            rows={keys.map((key, i) => ({
              id: `${answer?.noMatch?.row === i} ${key}`,
              label: groupLabel(key, answer?.noMatch?.row === i, split?.by, wordingOf(draft)),
              key,
              count: counts[i] as number,
              value: values[i],
            }))}
            heads={{ label: split?.column ?? "", value: measure.label }}
            measure={measure}
            most={most}
          />
          {answer && (
            <tfoot className="sticky bottom-0 bg-paper">
              <tr className="border-t border-rule font-semibold">
                <td className="px-2 py-1.5">All</td>
                <td className="px-2 py-1.5 text-right font-mono">
                  {formatNumber(answer.totals.rows as number, { ...measure.format, ...WHOLE })}
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
