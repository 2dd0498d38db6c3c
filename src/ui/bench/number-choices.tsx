"use client";
import { formatNumber, type NumberFormat } from "@/core/base/number-format";
import type { NumberSource } from "@/core/project/schema";
import { NumberEntry } from "../shared/number-entry";
import { type Option, OptionList } from "../shared/option-list";
import { useProject } from "../shared/project-context";
import { Segments } from "../shared/segments";

const AGAINST = [
  { id: "own", name: "each its own" },
  { id: "whole", name: "all the whole" },
] as const;

/** Where a number of the sentence comes from: an input, a measure, or it is written. */
export function NumberChoices({
  label,
  source,
  format,
  isNeeded = false,
  ofRows = false,
  whyNot,
  close,
  onChange,
}: {
  label: string;
  source: NumberSource | null;
  format: NumberFormat;
  /** Whether there has to be a number. */
  isNeeded?: boolean;
  /** Whether rows are held against it, so that a measure can give each its own. */
  ofRows?: boolean;
  /** Why a measure cannot stand here, where it cannot. */
  whyNot?: (source: NumberSource) => string | null;
  close: () => void;
  onChange: (source: NumberSource | null) => void;
}) {
  const inputs = useProject((s) => s.document.inputs);
  const measures = useProject((s) => s.document.measures);
  const chosen =
    source && ("input" in source ? source.input : "measure" in source ? source.measure : undefined);
  const options: Option[] = [
    ...inputs
      .filter((i) => i.type === "number")
      .map((i) => ({
        key: i.id,
        label: i.label,
        hint: typeof i.value === "number" ? formatNumber(i.value, i.format) : "",
        group: "Inputs",
        pick: () => onChange({ input: i.id }),
      })),
    ...measures.map((m) => ({
      key: m.id,
      label: m.label,
      group: "Measures",
      why: whyNot?.({ measure: m.id }),
      pick: () => onChange({ measure: m.id }),
    })),
    ...(source && !isNeeded
      ? [{ key: "none", label: "Take it out", group: "Or", pick: () => onChange(null) }]
      : []),
  ];
  return (
    <>
      <div className="border-b border-rule p-3">
        <NumberEntry
          label="A number"
          value={source && "number" in source ? source.number : null}
          format={format}
          onCommit={(n) => {
            onChange({ number: n });
            close();
          }}
        />
      </div>
      {ofRows && source && "measure" in source && (
        <div className="flex items-center justify-between gap-3 border-b border-rule p-3">
          <span className="text-sm">Rows stand against</span>
          <Segments
            label="Rows stand against"
            value={source.over ?? "own"}
            options={AGAINST}
            onChange={(over) => onChange({ measure: source.measure, ...(over === "whole" ? { over } : {}) })}
          />
        </div>
      )}
      <OptionList label={label} options={options} chosen={chosen ?? undefined} close={close} />
    </>
  );
}
