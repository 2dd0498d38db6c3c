"use client";
import { Plus } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { formatNumber, NEW_FORMAT } from "@/core/base/number-format";
import { own } from "@/core/base/own";
import { checkFormula } from "@/core/formula/check";
import * as defaults from "@/core/project/defaults";

import { freeName, scopeOf } from "@/core/project/names";
import type { Measure } from "@/core/project/schema";
import { freeLabel, newId } from "../shared/ids";
import { ItemList } from "../shared/item-list";
import { useProject } from "../shared/project-context";
import { useFailedProofs } from "../shared/proofs";
import { useResults } from "../shared/results";
import { useSelected } from "../shared/selected";
import { InputEditor } from "./input-editor";
import { MeasureEditor } from "./measure-editor";
import { shownValue } from "./shown-value";

function useValuesNow(measures: Measure[]): { text: string; bad: boolean }[] {
  const document = useProject((s) => s.document);
  const scope = scopeOf(document);
  const sound = useMemo(
    () => measures.map((m) => checkFormula(m.formula, scope, m.table, "group", m.name).expr !== null),
    [scope, measures],
  );
  const answers = useResults(measures.map((m, i) => (sound[i] ? { measures: [{ id: m.name }] } : null)));
  return measures.map((m, i) => {
    const answer = answers[i];
    if (!sound[i]) return { text: "problem", bad: true };
    if (!answer) return { text: "…", bad: false };
    return "error" in answer
      ? { text: "problem", bad: true }
      : { text: shownValue(own(answer.totals, m.name) ?? null, m), bad: false };
  });
}

/** The second step: every measure and input, with its value now, and the one that is open. */
export function MeasuresScreen() {
  const document = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const { measures, inputs, tables } = document;
  const [find, setFind] = useState("");
  const inputId = useSearchParams().get("input");
  const [measure, chooseMeasure] = useSelected("measure", measures);
  const [input, chooseInput] = useSelected("input", inputs);
  const openInput = inputId !== null || (measures.length === 0 && inputs.length > 0) ? input : null;
  // What was just made is named first.
  const [made, setMade] = useState<string | null>(null);
  const open = openInput?.id ?? measure?.id;
  useEffect(() => {
    if (made === null || made !== open) return;
    setMade(null);
    const name = window.document.querySelector<HTMLInputElement>("main input[aria-label=Name]");
    name?.focus();
    name?.select();
  }, [made, open]);
  const now = useValuesNow(measures);
  const failing = new Set(useFailedProofs().map((p) => p.measure.id));
  const fits = (label: string, name: string) =>
    `${label} ${name}`.toLowerCase().includes(find.trim().toLowerCase());

  // A new number is written as the project writes them.
  const written = useProject((s) => s.document.conventions);
  const newMeasure = () => {
    const label = freeLabel(
      "New measure",
      measures.map((m) => m.label),
    );
    const id = newId();
    const table = measure?.table ?? tables[0]?.name ?? null;
    const isTaken = apply({
      type: "add measure",
      measure: defaults.newMeasure({
        id,
        name: freeName(
          label,
          measures.map((m) => m.name),
        ),
        label,
        table,
        tableSet: false,
        formula: "count(*)",
        format: { ...NEW_FORMAT, locale: written.locale, currency: written.currency },
      }),
    });
    if (isTaken) {
      setMade(id);
      chooseMeasure(id);
    }
  };
  const newInput = () => {
    const label = freeLabel(
      "New input",
      inputs.map((i) => i.label),
    );
    const id = newId();
    const isTaken = apply({
      type: "add input",
      input: defaults.newInput({
        id,
        name: freeName(
          label,
          inputs.map((i) => i.name),
        ),
        label,
        type: "number",
        value: 0,
        step: 1,
        format: { ...NEW_FORMAT, locale: written.locale, currency: written.currency },
      }),
    });
    if (isTaken) {
      setMade(id);
      chooseInput(id);
    }
  };

  return (
    <div className="areas grid h-full grid-cols-[290px_minmax(0,1fr)] max-lg:grid-cols-[228px_minmax(0,1fr)]">
      <aside
        aria-label="Measures and inputs"
        className="areas-list flex min-h-0 flex-col border-r border-rule"
      >
        <div className="p-3">
          <input
            aria-label="Find a measure or an input"
            value={find}
            onChange={(e) => setFind(e.target.value)}
            placeholder="Find a measure or an input"
            className="field"
          />
        </div>
        <ItemList label="Measures and inputs" className="min-h-0 flex-1 scroll-pb-20 overflow-auto">
          <div className="flex items-center justify-between px-4 pt-1 pb-1 text-xs text-muted">
            <span>Measures</span>
            <span>now</span>
          </div>
          {measures.map((m, i) =>
            fits(m.label, m.name) ? (
              <button
                key={m.id}
                type="button"
                data-item
                title={m.label}
                aria-current={!openInput && m.id === measure?.id}
                onClick={() => chooseMeasure(m.id)}
                className={`block w-full border-l-[3px] px-3.5 py-1.5 text-left ${!openInput && m.id === measure?.id ? "border-verdigris bg-tint" : "border-transparent hover:bg-well"}`}
              >
                <span className="flex items-baseline justify-between gap-2">
                  <span className="truncate font-semibold">{m.label}</span>
                  {failing.has(m.id) && (
                    <span
                      role="img"
                      aria-label="a test fails"
                      title="A test fails"
                      className="mr-auto size-2 shrink-0 self-center rounded-full bg-signal"
                    />
                  )}
                  <span className={`shrink-0 font-mono text-sm ${now[i].bad ? "text-signal" : ""}`}>
                    {now[i].text}
                  </span>
                </span>
                <span className="block truncate font-mono text-xs text-muted">
                  {m.formula.replace(/\s+/g, " ")}
                </span>
              </button>
            ) : null,
          )}
          <MakeNew text="New measure" className="bottom-10 py-1" onClick={newMeasure} />
          <div className="mt-2 flex items-center justify-between px-4 pt-1 pb-1 text-xs text-muted">
            <span>Inputs</span>
            <span>set to</span>
          </div>
          {inputs.map((i) =>
            fits(i.label, i.name) ? (
              <button
                key={i.id}
                type="button"
                data-item
                title={i.label}
                aria-current={openInput?.id === i.id}
                onClick={() => chooseInput(i.id)}
                className={`flex w-full items-baseline justify-between gap-2 border-l-[3px] px-3.5 py-2 text-left ${openInput?.id === i.id ? "border-amber-line bg-amber-tint" : "border-transparent hover:bg-well"}`}
              >
                <span className="truncate font-semibold">{i.label}</span>
                <span className="font-mono text-sm">
                  {typeof i.value === "number" ? formatNumber(i.value, i.format) : String(i.value ?? "—")}
                </span>
              </button>
            ) : null,
          )}
          <MakeNew text="New input" className="bottom-0 pt-1 pb-2" onClick={newInput} />
        </ItemList>
      </aside>
      {openInput ? (
        <InputEditor key={openInput.id} input={openInput} onGone={() => chooseMeasure(null)} />
      ) : measure ? (
        <MeasureEditor key={measure.id} measure={measure} onGone={() => chooseMeasure(null)} />
      ) : (
        <div className="grid place-items-center p-8 text-center">
          <div className="max-w-sm">
            <h1 className="text-lg">Name each number once</h1>
            <p className="mt-2 text-muted">
              A measure is a formula with a name, for example sum(passengers). Every visual that shows it then
              shows the same number.
            </p>
            <button type="button" className="button button-strong mt-4" onClick={newMeasure}>
              New measure
            </button>
          </div>
        </div>
      )}
    </div>
  );
}

/** Makes another entry of a list, in sight however long that is. */
function MakeNew({ text, className, onClick }: { text: string; className: string; onClick: () => void }) {
  return (
    <div className={`sticky bg-paper px-3 narrow:static ${className}`}>
      <button
        type="button"
        className="flex h-7 items-center gap-1.5 rounded-sm px-1.5 text-sm text-verdigris-deep hover:bg-well"
        onClick={onClick}
      >
        <Plus size={14} /> {text}
      </button>
    </div>
  );
}
