"use client";
import { parseIsoDate } from "@/core/base/calendar";
import { sameName } from "@/core/base/names";
import type { Value } from "@/core/base/value";
import { LONGEST } from "@/core/project/most";
import { freeName } from "@/core/project/names";
import { offeredColumns } from "@/core/project/offered";
import type { Input } from "@/core/project/schema";
import { usesOfInput } from "@/core/project/uses";
import { isTyped, meaningsOf, unclear, writeTyped } from "../../core/data/typed-number";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { DateField } from "../shared/date-field";
import { later } from "../shared/fetched-later";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject } from "../shared/project-context";
import { useTellRemoved } from "../shared/tell-edit";
import { TypedNumber } from "../shared/typed-number";
import { DateFormat } from "./date-format";
import { FormatControls } from "./format-controls";

// It draws visuals, which measures do without.
const InputPreview = later(() => import("./input-preview").then((m) => m.InputPreview));

/** What an input can be set to: any value, a list of its own, or what stands in a column. */
function Choices({
  input,
  onChange,
}: {
  input: Input;
  onChange: (change: Partial<Omit<Input, "id">>) => void;
}) {
  const project = useProject((s) => s.document);
  const percent = input.format.style === "percent";
  const columns = project.tables.flatMap((t) =>
    offeredColumns(project, t.name).filter((c) => c.own && c.type === input.type),
  );
  const how = input.choicesFrom
    ? JSON.stringify([input.choicesFrom.table, input.choicesFrom.column])
    : input.choices.length > 0
      ? "list"
      : "any";
  const read = (line: string): Value =>
    input.type === "number" ? (meaningsOf(line, percent)[0] ?? null) : line;
  const linesOf = (text: string) =>
    [...new Set(text.split("\n").map((l) => l.trim()))].filter((l) => l !== "");
  const problem = (line: string): string | null => {
    if (input.type === "date")
      return parseIsoDate(line) === null ? `“${line}” is no date such as 2026-05-01.` : null;
    if (input.type !== "number") return null;
    return isTyped(line, percent) ? unclear(line, percent) : `“${line}” is no number.`;
  };
  return (
    <>
      <Labelled label="Choices">
        {(id) => (
          <Choose
            id={id}
            value={how}
            options={[
              {
                value: "any",
                label: input.type === "number" ? "any number within the limits" : `any ${input.type}`,
              },
              { value: "list", label: "a list" },
              ...columns.map((c) => ({
                value: JSON.stringify([c.table, c.column]),
                label: `what stands in ${c.table}.${c.column}`,
              })),
            ]}
            onChange={(next) => {
              if (next === "any") return onChange({ choices: [], choicesFrom: null });
              if (next === "list") return onChange({ choices: [input.value], choicesFrom: null });
              const [table, column] = JSON.parse(next) as [string, string];
              onChange({ choices: [], choicesFrom: { table, column } });
            }}
          />
        )}
      </Labelled>
      {how === "list" && (
        <Labelled label="One a line" stacked>
          {(id) => (
            <CommitField
              id={id}
              mono
              multiline
              rows={6}
              value={input.choices
                .map((c) =>
                  typeof c === "number" && percent
                    ? `${Number((c * 100).toPrecision(12))} %`
                    : String(c ?? ""),
                )
                .join("\n")}
              check={(t) =>
                linesOf(t).length === 0
                  ? "Write at least one."
                  : linesOf(t).length > 500
                    ? "At most 500."
                    : (linesOf(t)
                        .map(problem)
                        .find((p) => p !== null) ?? null)
              }
              onCommit={(t) => {
                const choices = linesOf(t).map(read);
                onChange({ choices, value: choices.includes(input.value) ? input.value : choices[0] });
              }}
            />
          )}
        </Labelled>
      )}
    </>
  );
}

/** One what-if input: its value, its limits and step, and where it is used. */
export function InputEditor({ input, onGone }: { input: Input; onGone: () => void }) {
  const document = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const tellRemoved = useTellRemoved();
  const uses = usesOfInput(document, input.id);
  const set = (change: Partial<Omit<Input, "id">>) => apply({ type: "change input", id: input.id, change });
  const percent = input.format.style === "percent";
  const limit = (key: "minimum" | "maximum" | "step", label: string) => (
    <Labelled label={label}>
      {(id) => (
        <TypedNumber
          id={id}
          value={input[key]}
          percent={percent}
          optional
          placeholder="none"
          check={(n) => {
            if (key === "step" && n <= 0) return "A step is above zero.";
            if (key === "minimum" && input.maximum !== null && n >= input.maximum)
              return "The minimum lies below the maximum.";
            return key === "maximum" && input.minimum !== null && n <= input.minimum
              ? "The maximum lies above the minimum."
              : null;
          }}
          onCommit={(n) => set({ [key]: n })}
        />
      )}
    </Labelled>
  );
  const checkNumber = (n: number): string | null => {
    if (input.minimum !== null && n < input.minimum)
      return `The minimum is ${writeTyped(input.minimum, percent)}.`;
    return input.maximum !== null && n > input.maximum
      ? `The maximum is ${writeTyped(input.maximum, percent)}.`
      : null;
  };
  const start = { number: 0, text: "", date: "2026-01-01" };
  return (
    <div className="areas-flat grid h-full grid-cols-[minmax(0,1fr)_280px] max-lg:grid-cols-[minmax(0,1fr)_244px]">
      <section className="min-h-0 overflow-auto px-6 pt-5 pb-6 narrow:overflow-visible">
        <p className="text-sm text-muted">Input</p>
        <h1 className="sr-only">{input.label}</h1>
        <div className="max-w-md [&_.field]:h-10 [&_.field]:text-lg [&_.field]:font-semibold">
          <CommitField
            label="Name"
            value={input.label}
            longest={LONGEST.name}
            check={(t) =>
              !t.trim()
                ? "A name is needed."
                : document.inputs.some((i) => i.id !== input.id && sameName(i.label, t.trim()))
                  ? "Another input has this name."
                  : null
            }
            onCommit={(label) =>
              set({
                label: label.trim(),
                name: freeName(
                  label,
                  document.inputs.filter((i) => i.id !== input.id).map((i) => i.name),
                ),
              })
            }
          />
        </div>
        <p className="mt-1 mb-4 font-mono text-sm text-muted">:{input.name}</p>
        <div className="flex max-w-md flex-col gap-2">
          <Labelled label="Holds a">
            {(id) => (
              <Choose
                id={id}
                value={input.type}
                options={[
                  { value: "number", label: "number" },
                  { value: "text", label: "text" },
                  { value: "date", label: "date" },
                ]}
                onChange={(t) =>
                  set({
                    type: t as Input["type"],
                    value: start[t as Input["type"]],
                    choices: [],
                    choicesFrom: null,
                  })
                }
              />
            )}
          </Labelled>
          <Labelled label="Set to">
            {(id) =>
              input.type === "number" ? (
                <TypedNumber
                  id={id}
                  value={typeof input.value === "number" ? input.value : null}
                  percent={percent}
                  check={checkNumber}
                  onCommit={(value) => value !== null && set({ value })}
                />
              ) : input.type === "date" ? (
                <DateField
                  id={id}
                  label="Set to"
                  value={String(input.value ?? "")}
                  onCommit={(value) => set({ value })}
                />
              ) : (
                <CommitField
                  id={id}
                  mono
                  longest={LONGEST.value}
                  value={String(input.value ?? "")}
                  onCommit={(value) => set({ value })}
                />
              )
            }
          </Labelled>
          <Choices input={input} onChange={set} />
          {input.type === "number" && input.choices.length === 0 && !input.choicesFrom && (
            <>
              {limit("minimum", "Minimum")}
              {limit("maximum", "Maximum")}
              {limit("step", "Step")}
            </>
          )}
        </div>
        <InputPreview input={input} onChange={(value) => set({ value })} />
      </section>
      <aside
        aria-label="About the input"
        className="areas-side flex min-h-0 flex-col gap-2 overflow-auto border-l border-rule bg-panel p-4"
      >
        <h2 className="section-title">Shown as</h2>
        {input.type === "number" ? (
          <FormatControls format={input.format} onChange={(format) => set({ format })} />
        ) : input.type === "date" ? (
          <DateFormat format={input.format} onChange={(format) => set({ format })} />
        ) : (
          <p className="text-sm text-muted">As it is written.</p>
        )}
        <h2 className="section-title mt-3">Used in</h2>
        <ul className="text-sm">
          {[
            ...uses.measures.map((m) => m.label),
            ...uses.visuals.map((v) => v.name),
            ...uses.boards.map((b) => b.name),
          ].map((name) => (
            <li key={name}>{name}</li>
          ))}
          {uses.measures.length + uses.visuals.length + uses.boards.length === 0 && (
            <li className="text-muted">Nothing yet.</li>
          )}
        </ul>
        <button
          type="button"
          className="button mt-3 shrink-0 self-start"
          onClick={() => {
            const names = [
              ...uses.measures.map((m) => m.label),
              ...uses.visuals.map((v) => v.name),
              ...uses.boards.map((b) => b.name),
            ];
            if (names.length)
              return void toast.error(
                `${input.label} is used in ${names.slice(0, 4).join(", ")}. Take it out there first.`,
              );
            apply({ type: "remove input", id: input.id });
            onGone();
            tellRemoved(`${input.label} is removed.`);
          }}
        >
          Remove the input
        </button>
      </aside>
    </div>
  );
}
