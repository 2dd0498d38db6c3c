"use client";
import { X } from "lucide-react";
import type { ReactNode } from "react";

import { columnsOfMeasure } from "@/core/project/columns-of-measure";
import type { Measure, Proof } from "@/core/project/schema";
import type { SettledProof } from "@/core/review/finding";
import { ActionMenu } from "../shared/action-menu";
import { Choose } from "../shared/choose";
import { FiltersPhrase } from "../shared/filters-phrase";
import { newId } from "../shared/ids";
import { useProject } from "../shared/project-context";
import { useProofs } from "../shared/proofs";
import { useDraft } from "../shared/results";
import { splitOptions } from "../shared/split-options";
import { TypedNumber } from "../shared/typed-number";

const KINDS: { value: Proof["type"]; label: string }[] = [
  { value: "between", label: "always between two limits" },
  { value: "equals", label: "a value under a filter" },
  { value: "same total", label: "the total of another measure" },
];

const begun: Record<Proof["type"], (id: string) => Proof> = {
  between: (id) => ({ id, type: "between", from: 0, to: null, split: null }),
  equals: (id) => ({ id, type: "equals", value: 0, tolerance: 0, filters: [] }),
  "same total": (id) => ({ id, type: "same total", measure: null, tolerance: 0 }),
};

function NumberField({
  label,
  value,
  percent,
  optional,
  onCommit,
}: {
  label: string;
  value: number | null;
  percent: boolean;
  optional?: boolean;
  onCommit: (n: number | null) => void;
}) {
  return (
    <TypedNumber
      label={label}
      value={value}
      percent={percent}
      optional={optional}
      placeholder={optional ? "no limit" : "a number"}
      onCommit={onCommit}
    />
  );
}

function ProofCard({
  settled,
  onChange,
  onRemove,
}: {
  settled: SettledProof;
  onChange: (proof: Proof) => void;
  onRemove: () => void;
}) {
  const { draft } = useDraft();
  const { measure, proof, holds, text } = settled;
  const percent = measure.format.style === "percent";
  const line = (word: string, field: ReactNode) => (
    <div className="grid grid-cols-[64px_1fr] items-center gap-1.5">
      <span className="text-muted">{word}</span>
      {field}
    </div>
  );
  return (
    <li
      className={`flex flex-col gap-1.5 rounded-md border bg-sheet p-2.5 text-sm ${holds === false ? "border-signal" : "border-rule"}`}
    >
      <div className="flex items-center gap-1.5">
        <span
          className={`size-2 shrink-0 rounded-full ${holds === null ? "bg-muted" : holds ? "bg-good" : "bg-signal"}`}
        />
        <span className="min-w-0 flex-1 font-medium">{KINDS.find((k) => k.value === proof.type)?.label}</span>
        <button type="button" className="icon-button size-6" aria-label="Remove this test" onClick={onRemove}>
          <X size={13} />
        </button>
      </div>
      {proof.type === "between" && (
        <>
          {line(
            "from",
            <NumberField
              label="Lower limit"
              optional
              percent={percent}
              value={proof.from}
              onCommit={(from) => onChange({ ...proof, from })}
            />,
          )}
          {line(
            "to",
            <NumberField
              label="Upper limit"
              optional
              percent={percent}
              value={proof.to}
              onCommit={(to) => onChange({ ...proof, to })}
            />,
          )}
          {line(
            "for every",
            <Choose
              label="For every"
              value={proof.split ? JSON.stringify(proof.split) : ""}
              options={[
                { value: "", label: "all rows together" },
                ...splitOptions(columnsOfMeasure(measure, draft)),
              ]}
              onChange={(split) => onChange({ ...proof, split: split ? JSON.parse(split) : null })}
            />,
          )}
        </>
      )}
      {proof.type === "equals" && (
        <>
          {line(
            "equals",
            <NumberField
              label="Expected value"
              percent={percent}
              value={proof.value}
              onCommit={(value) => onChange({ ...proof, value: value ?? 0 })}
            />,
          )}
          {line(
            "within",
            <NumberField
              label="Tolerance"
              percent={percent}
              value={proof.tolerance}
              onCommit={(n) => onChange({ ...proof, tolerance: Math.abs(n ?? 0) })}
            />,
          )}
          <p>
            for{" "}
            <FiltersPhrase
              columns={columnsOfMeasure(measure, draft)}
              filters={proof.filters}
              onChange={(filters) => onChange({ ...proof, filters })}
            />
          </p>
        </>
      )}
      {proof.type === "same total" && (
        <>
          {line(
            "that of",
            <Choose
              label="The other measure"
              value={proof.measure ?? ""}
              options={[
                { value: "", label: "Choose a measure" },
                ...draft.measures
                  .filter((m) => m.id !== measure.id)
                  .map((m) => ({ value: m.id, label: m.label })),
              ]}
              onChange={(id) => onChange({ ...proof, measure: id || null })}
            />,
          )}
          {line(
            "within",
            <NumberField
              label="Tolerance"
              percent={percent}
              value={proof.tolerance}
              onCommit={(n) => onChange({ ...proof, tolerance: Math.abs(n ?? 0) })}
            />,
          )}
        </>
      )}
      <p role="status" className={holds === false ? "text-signal" : "text-muted"}>
        {holds === false ? `Fails: ${text}.` : text}
      </p>
    </li>
  );
}

/** What is expected of a measure, and whether it holds over the rows there are. */
export function ProofList({ measure }: { measure: Measure }) {
  const apply = useProject((s) => s.apply);
  const settled = useProofs([measure]);
  const set = (proofs: Proof[]) => apply({ type: "change measure", id: measure.id, change: { proofs } });
  return (
    <section aria-label="Tests" className="flex flex-col gap-2">
      <h2 className="section-title mt-3">Tests</h2>
      <ul className="flex flex-col gap-2">
        {settled.map((s) => (
          <ProofCard
            key={s.proof.id}
            settled={s}
            onChange={(proof) => set(measure.proofs.map((p) => (p.id === proof.id ? proof : p)))}
            onRemove={() => set(measure.proofs.filter((p) => p.id !== s.proof.id))}
          />
        ))}
      </ul>
      <ActionMenu
        label="Add a test"
        actions={KINDS.map(({ value, label }) => ({
          label,
          run: () => set([...measure.proofs, begun[value as Proof["type"]](newId())]),
        }))}
      />
    </section>
  );
}
