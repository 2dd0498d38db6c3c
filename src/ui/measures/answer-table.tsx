"use client";
import { Rows3 } from "lucide-react";
import { useState } from "react";
import { formatNumber } from "@/core/base/number-format";
import type { Filter, Result, Split } from "@/core/plan/query";
import { columnsOfMeasure } from "@/core/project/columns-of-measure";
import { homeTableOf } from "@/core/project/home-table";
import type { Measure } from "@/core/project/schema";
import { wordingOf } from "@/core/rows/key-labels";
import {
  behindTried,
  FIRST_GROUPS,
  type Trial,
  type TriedGroup,
  trialQuery,
  triedGroups,
} from "@/core/view/tried-answers";
import { rowsOfServer } from "@/present/rows-source";
import type { TableFormat } from "@/render/table/table-file";
import { ActionMenu } from "../shared/action-menu";
import { Choose } from "../shared/choose";
import { FiltersPhrase } from "../shared/filters-phrase";
import { useProject } from "../shared/project-context";
import { useDraft, useResult } from "../shared/results";
import { saveBytes } from "../shared/save-bytes";
import { splitOptions } from "../shared/split-options";
import { TABLE_FORMAT_LABELS } from "../shared/table-formats";
import { AnswerRows } from "./answer-rows";
import { shownValue, WHOLE } from "./shown-value";

/** By two splits there can be very many groups: so many are drawn. */
const MOST_ROWS = 300;

/** What a measure is tried with: its splits and filters are kept while another measure of its table is open. */
function useTrial(measure: Measure, table: string | null) {
  const { draft } = useDraft();
  const columns = columnsOfMeasure(measure, draft);
  const options = splitOptions(columns);
  const [chosen, setChosen] = useState<string | null>(null);
  const [second, setSecond] = useState("");
  const [filters, setFilters] = useState<Filter[]>([]);
  const preferred = columns.find((c) => c.own && c.type === "text") ?? columns.find((c) => c.type === "text");
  const first =
    options.find((o) => o.value === chosen) ?? options.find((o) => o.label === preferred?.name) ?? options[0];
  const further = options.filter((o) => o.value !== first?.value);
  const then = further.find((o) => o.value === second);
  const splits = [first, then].flatMap((o) => (o ? (JSON.parse(o.value) as Split) : []));
  const known = filters.filter((f) => columns.some((c) => c.name === f.column));
  const trial: Trial | null =
    table === null
      ? null
      : { measure: measure.name, table, splits, filters: known, lower: measure.betterWhen === "lower" };
  return { trial, columns, options, first, further, then, setChosen, setSecond, setFilters };
}

/** Opens the rows behind a group of a trial, or behind its total. */
function useRowsBehind(measure: Measure) {
  const id = useProject((s) => s.id);
  const project = useProject((s) => s.document);
  const { draft } = useDraft();
  return (trial: Trial, group: TriedGroup | null) => {
    const source = rowsOfServer(`/api/projects/${encodeURIComponent(id)}`, draft);
    const name = group ? `${measure.label}, ${group.label}` : measure.label;
    const asked = { name, query: behindTried(trial, group) };
    void import("@/present/rows-sheet").then((m) => m.openRowsSheet(asked, project, source));
  };
}

/** The measure's answers by one split or two, under filters, the best first, with the rows behind each. */
export function AnswerTable({ measure, sound }: { measure: Measure; sound: boolean }) {
  const { draft } = useDraft();
  const table = homeTableOf(measure, draft);
  const { trial, columns, options, first, further, then, setChosen, setSecond, setFilters } = useTrial(
    measure,
    table,
  );
  const { answer } = useResult(sound && trial ? trialQuery(trial) : null);
  const openBehind = useRowsBehind(measure);
  if (!trial)
    return sound ? (
      <p className="mt-6 text-muted">It reads no rows: it has the same value everywhere.</p>
    ) : null;
  const takeOut = async (format: TableFormat, result: Result) => {
    // Writing files is fetched when it is first asked for.
    const { resultFile, TABLE_FORMATS } = await import("@/render/table/table-file");
    saveBytes(resultFile(format, result), `${measure.label}.${format}`, TABLE_FORMATS[format]);
  };
  const found = answer && !("error" in answer) ? answer : null;
  const all = found ? triedGroups(trial, found, wordingOf(draft)) : [];
  const groups = all.slice(0, MOST_ROWS);
  const most = Math.max(0, ...groups.map(({ value }) => (typeof value === "number" ? Math.abs(value) : 0)));
  const isCut = all.length > MOST_ROWS || (then === undefined && all.length === FIRST_GROUPS);
  return (
    <section aria-label="Answers" className="mt-5 flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 pb-2 text-sm">
        <span className="whitespace-nowrap text-muted">Split by</span>
        <div className="w-44 min-w-32">
          <Choose label="Split by" value={first?.value ?? ""} options={options} onChange={setChosen} />
        </div>
        <span className="text-muted">and by</span>
        <div className="w-36 min-w-28">
          <Choose
            label="And by"
            value={then?.value ?? ""}
            options={[{ value: "", label: "nothing more" }, ...further]}
            onChange={setSecond}
          />
        </div>
        <span className="text-muted">for</span>
        <FiltersPhrase columns={columns} filters={trial.filters} onChange={setFilters} />
        {found && (
          <div className="ml-auto flex items-center gap-2">
            <span className="whitespace-nowrap text-muted">
              {found.scanned.toLocaleString("en").replaceAll(",", "\u2009")} rows ·{" "}
              {found.ms < 10 ? found.ms.toFixed(1) : Math.round(found.ms)} ms
            </span>
            <ActionMenu
              label="Take the answers out"
              actions={TABLE_FORMAT_LABELS.map((format) => ({
                label: format.label,
                run: () => void takeOut(format.value as TableFormat, found),
              }))}
            />
          </div>
        )}
      </div>
      {answer && "error" in answer && <p className="mt-4 text-signal">{answer.error}</p>}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard */}
      <div className="min-h-0 flex-1 overflow-auto" role="region" aria-label="Answer table" tabIndex={0}>
        <table className="w-full border-collapse text-sm">
          <AnswerRows
            rows={groups}
            heads={{ label: trial.splits.map((s) => s.column).join(" · "), value: measure.label }}
            measure={measure}
            most={most}
            onBehind={(group) => openBehind(trial, group)}
          />
          {found && (
            <tfoot className="sticky bottom-0 bg-paper">
              <tr className="border-t border-rule font-semibold">
                <td className="px-2 py-1.5">All</td>
                <td className="px-2 py-1.5 text-right font-mono">
                  {formatNumber(found.totals.rows as number, { ...measure.format, ...WHOLE })}
                </td>
                <td />
                <td className="px-2 py-1.5 text-right font-mono">
                  {shownValue(found.totals.answer, measure)}
                </td>
                <td className="text-right">
                  <button
                    type="button"
                    title="Rows behind the total"
                    aria-label="Rows behind the total"
                    className="icon-button size-7"
                    onClick={() => openBehind(trial, null)}
                  >
                    <Rows3 size={14} />
                  </button>
                </td>
              </tr>
            </tfoot>
          )}
        </table>
        {isCut && <p className="py-2 text-sm text-muted">The first {groups.length} are shown.</p>}
      </div>
    </section>
  );
}
