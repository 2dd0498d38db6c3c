"use client";
import { useMemo } from "react";
import { listed } from "@/core/base/listed";
import { sameName } from "@/core/base/names";
import { own } from "@/core/base/own";
import { checkFormula } from "@/core/formula/check";
import { type Scope, tablesOf } from "@/core/formula/expr";
import { tablesMeant, tableTold } from "@/core/formula/home-table";
import { formatAfter } from "@/core/project/first-format";
import { homeTableOf } from "@/core/project/home-table";
import { LONGEST } from "@/core/project/most";
import { freeName, scopeOf } from "@/core/project/names";
import type { Measure } from "@/core/project/schema";
import { usesOfMeasure } from "@/core/project/uses";
import { type MeasureDoubt, measureDoubts } from "@/core/review/measure-doubts";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject } from "../shared/project-context";
import { useResult } from "../shared/results";
import { StepLink } from "../shared/step-link";
import { useTellRemoved } from "../shared/tell-edit";
import { AnswerTable } from "./answer-table";
import { DateFormat } from "./date-format";
import { FormatControls } from "./format-controls";
import { FormulaEditor } from "./formula-editor";
import { ProblemList } from "./problem-list";
import { ProofList } from "./proof-list";
import { shownValue } from "./shown-value";

/** So many tables are asked about by a button each; any is chosen from the list. */
const MOST_TABLES = 4;

const TYPE_SAYS: Record<string, string> = {
  number: "a number",
  text: "a text",
  boolean: "true or false",
  date: "a date",
  timestamp: "a timestamp",
  null: "nothing yet",
};

/**
 * One measure: its name, its formula with problems in place, its answers, how it is shown and where
 * it is used.
 */
export function MeasureEditor({ measure, onGone }: { measure: Measure; onGone: () => void }) {
  const document = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const projectId = useProject((s) => s.id);
  const tellRemoved = useTellRemoved();
  const scope = scopeOf(document);
  const checked = useMemo(
    () => checkFormula(measure.formula, scope, measure.table, "group", measure.name),
    [measure.formula, measure.table, measure.name, scope],
  );
  const uses = useMemo(() => usesOfMeasure(document, measure.id), [document, measure.id]);
  const sound = checked.expr !== null;
  const isDated = checked.type === "date" || checked.type === "timestamp";
  const home = homeTableOf(measure, document);
  const read = (checked.expr ? tablesOf(checked.expr) : []).sort(
    (a, b) => Number(b === home) - Number(a === home),
  );
  const meant = useMemo(() => otherTables(measure, scope, sound), [measure, scope, sound]);
  const { answer } = useResult(sound ? { measures: [{ id: measure.name }] } : null);
  const now = answer && !("error" in answer) ? (own(answer.totals, measure.name) ?? null) : null;
  const set = (change: Partial<Omit<Measure, "id">>, group?: string) =>
    apply({ type: "change measure", id: measure.id, change }, group);
  const write = (formula: string) => {
    const table = measure.tableSet ? measure.table : tableTold(formula, scope, measure.table, measure.name);
    const format = formatAfter({ ...measure, table }, formula, document);
    set({ formula, ...(format === measure.format ? {} : { format }) }, `formula ${measure.id}`);
  };
  const rename = (label: string) => {
    const others = document.measures.filter((m) => m.id !== measure.id).map((m) => m.name);
    set({ label: label.trim(), name: freeName(label, others) });
  };
  return (
    <div className="areas-flat grid h-full grid-cols-[minmax(0,1fr)_280px] max-lg:grid-cols-[minmax(0,1fr)_244px]">
      <section className="flex min-h-0 flex-col px-6 pt-5 pb-3">
        <div className="grid grid-cols-[minmax(0,1fr)_280px] narrow:grid-cols-1 items-start max-lg:grid-cols-[minmax(0,1fr)_220px] gap-4">
          <h1 className="text-xl">
            <TitleField
              value={measure.label}
              taken={document.measures.filter((m) => m.id !== measure.id).map((m) => m.label)}
              onCommit={rename}
            />
          </h1>
          <Labelled label="From table">
            {(id) => (
              <Choose
                id={id}
                value={measure.tableSet ? (measure.table ?? "") : ""}
                options={[
                  { value: "", label: followed(measure, read) },
                  ...document.tables.map((t) => ({ value: t.name, label: t.name })),
                ]}
                onChange={(t) => set(t ? { table: t, tableSet: true } : { tableSet: false })}
              />
            )}
          </Labelled>
        </div>
        <p className="mt-0.5 mb-3 font-mono text-sm text-muted">{measure.name}</p>
        <FormulaEditor
          key={measure.id}
          label={`Formula of ${measure.label}`}
          value={measure.formula}
          scope={scope}
          table={measure.table}
          problems={checked.problems}
          onChange={(formula) => write(formula)}
        />
        <div className="mt-2 min-h-6 text-sm" aria-live="polite">
          {sound ? (
            <span className="text-muted">
              <span className="mr-1.5 inline-block size-2 rounded-full bg-good" />
              {TYPE_SAYS[checked.type]}
              {read.length > 0 && (
                <>
                  {" "}
                  from <strong>{listed(read)}</strong>
                </>
              )}
              , now{" "}
              <strong className="font-mono text-ink">
                {answer && !("error" in answer) ? shownValue(now, measure) : "…"}
              </strong>
            </span>
          ) : (
            !meant && <ProblemList formula={measure.formula} problems={checked.problems} onMend={write} />
          )}
          {meant && (
            <TablesMeantRow
              meant={meant}
              sound={sound}
              onSet={(table) => set({ table, tableSet: true }, `table ${measure.id}`)}
            />
          )}
        </div>
        <Doubts
          doubts={sound ? measureDoubts(measure, document, typeof now === "number" ? now : null) : []}
        />
        <AnswerTable key={measure.table} measure={measure} sound={sound} />
      </section>
      <aside
        aria-label="About the measure"
        className="areas-side flex min-h-0 flex-col gap-2 overflow-auto border-l border-rule bg-panel p-4"
      >
        <h2 className="section-title">Shown as</h2>
        {checked.type === "text" ? (
          <p className="text-sm text-muted">A text, as it is.</p>
        ) : isDated ? (
          <DateFormat format={measure.format} onChange={(format) => set({ format })} />
        ) : (
          <FormatControls format={measure.format} onChange={(format) => set({ format })} />
        )}
        <Labelled label="Better when">
          {(id) => (
            <Choose
              id={id}
              value={measure.betterWhen}
              options={[
                { value: "higher", label: "higher" },
                { value: "lower", label: "lower" },
                { value: "neither", label: "neither" },
              ]}
              onChange={(b) => set({ betterWhen: b as Measure["betterWhen"] })}
            />
          )}
        </Labelled>
        <Labelled label="Beside others, where a filter means nothing to its rows" stacked>
          {(id) => (
            <Choose
              id={id}
              value={measure.standsWhole ? "whole" : "none"}
              options={[
                { value: "none", label: "no value: nothing is held against it" },
                { value: "whole", label: "its value over all rows, which captions say" },
              ]}
              onChange={(choice) => set({ standsWhole: choice === "whole" })}
            />
          )}
        </Labelled>
        <h2 className="section-title mt-3">Note</h2>
        <CommitField
          label="Note"
          multiline
          value={measure.note}
          longest={LONGEST.note}
          onCommit={(note) => set({ note })}
          placeholder="What it counts, in a sentence"
        />
        {sound && <ProofList measure={measure} />}
        <h2 className="section-title mt-3">Used in</h2>
        {uses.measures.length + uses.visuals.length + uses.boards.length === 0 && (
          <p className="text-sm text-muted">Nothing yet.</p>
        )}
        <ul className="flex flex-col gap-1 text-sm">
          {uses.measures.map((m) => (
            <li key={m.id}>
              <StepLink className="hover:underline" to={`/p/${projectId}/measures?measure=${m.id}`}>
                {m.label}
              </StepLink>
            </li>
          ))}
          {uses.visuals.map((v) => (
            <li key={v.id}>
              <StepLink className="hover:underline" to={`/p/${projectId}/visuals?visual=${v.id}`}>
                {v.name}
              </StepLink>
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="button mt-3 shrink-0 self-start"
          onClick={() => {
            const names = [
              ...uses.measures.map((m) => m.label),
              ...[...uses.visuals, ...uses.boards].map(({ name }) => name),
            ];
            if (names.length) {
              toast.error(`${measure.label} is used in ${listed(names)}. Take it out there first.`);
              return;
            }
            apply({ type: "remove measure", id: measure.id });
            onGone();
            tellRemoved(`${measure.label} is removed.`);
          }}
        >
          Remove the measure
        </button>
      </aside>
    </div>
  );
}

/** What the first choice of a table says: which one the formula's names tell. */
function followed({ tableSet, table }: Measure, read: string[]): string {
  if (tableSet) return "as its names tell";
  if (table !== null) return `${table}, as its names tell`;
  return read.length > 1 ? "several, as its names tell" : "as its names tell";
}

/**
 * The tables that a formula's names can be meant of, where that is to be asked: there are several and nobody
 * has said which; or the table that was set is none of them, and the formula has no sense there.
 */
function otherTables(
  { formula, table, tableSet, name }: Measure,
  scope: Scope,
  sound: boolean,
): string[] | null {
  const meant = tablesMeant(formula, scope, name);
  if (meant.says !== "tables") return null;
  const { tables } = meant;
  if (sound) return !tableSet && tables.length > 1 ? tables : null;
  return tables.some((t) => sameName(t, table ?? "")) ? null : tables;
}

/** Asks of which of some tables the formula's names are meant, a button each. */
function TablesMeantRow({
  meant,
  sound,
  onSet,
}: {
  meant: string[];
  sound: boolean;
  onSet: (table: string) => void;
}) {
  const first = meant.slice(0, MOST_TABLES);
  return (
    <p className={sound ? "text-muted" : "text-signal"}>
      What it names stands in {listed(meant, MOST_TABLES)}. Whose rows are meant?
      {first.map((table) => (
        <button
          key={table}
          type="button"
          className="button ml-2 h-6 px-2 text-xs text-ink"
          onClick={() => onSet(table)}
        >
          Those of {table}
        </button>
      ))}
    </p>
  );
}

/** What makes the measure wrong wherever it stands, each with what mends it. */
function Doubts({ doubts }: { doubts: MeasureDoubt[] }) {
  const apply = useProject((s) => s.apply);
  return (
    <ul className="mt-1 flex flex-col gap-1 text-sm" aria-live="polite">
      {doubts.map(({ id, text, why, mend }) => (
        <li key={id} className="rounded-sm bg-amber-tint px-2 py-1.5">
          {text} <span className="text-muted">{why}</span>
          {mend && (
            <button type="button" className="button ml-2 h-6 px-2 text-xs" onClick={() => apply(mend.edit)}>
              {mend.label}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

function TitleField({
  value,
  taken,
  onCommit,
}: {
  value: string;
  taken: string[];
  onCommit: (text: string) => void;
}) {
  return (
    <div className="[&_.field]:h-10 [&_.field]:border-transparent [&_.field]:bg-transparent [&_.field]:px-1 [&_.field]:text-xl [&_.field]:font-semibold [&_.field]:hover:border-rule [&_.field]:focus:bg-sheet">
      <CommitField
        label="Name"
        value={value}
        longest={LONGEST.name}
        check={(text) => {
          const name = text.trim();
          if (!name) return "A name is needed.";
          return taken.some((k) => sameName(k, name)) ? "Another measure has this name." : null;
        }}
        onCommit={onCommit}
      />
    </div>
  );
}
