"use client";
import type { NumberFormat } from "@/core/base/number-format";
import { formatNumber } from "@/core/base/number-format";
import type { NumberSource } from "@/core/project/schema";
import { NumberEntry } from "../shared/number-entry";
import { useProject } from "../shared/project-context";
import { type Option, OptionList, Phrase } from "./phrase";

/** A phrase for a number that comes from an input, a measure, or is written. */
export function SourcePhrase({
  label,
  source,
  format,
  missing,
  allowNone,
  onChange,
}: {
  label: string;
  source: NumberSource | null;
  format: NumberFormat;
  missing: string;
  allowNone: boolean;
  onChange: (source: NumberSource | null) => void;
}) {
  const inputs = useProject((s) => s.document.inputs);
  const measures = useProject((s) => s.document.measures);
  const input = source && "input" in source ? inputs.find((i) => i.id === source.input) : undefined;
  const measure = source && "measure" in source ? measures.find((m) => m.id === source.measure) : undefined;
  const text = input
    ? `${input.label.toLowerCase()} ${typeof input.value === "number" ? formatNumber(input.value, input.format) : ""}`.trim()
    : measure
      ? measure.label.toLowerCase()
      : source && "number" in source
        ? formatNumber(source.number, format)
        : missing;
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
      pick: () => onChange({ measure: m.id }),
    })),
    ...(allowNone && source
      ? [{ key: "none", label: "Take it out", group: "Or", pick: () => onChange(null) }]
      : []),
  ];
  return (
    <Phrase label={label} text={text} tone={!source ? "missing" : input ? "input" : "data"}>
      {(close) => (
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
          <OptionList label={label} options={options} chosen={input?.id ?? measure?.id} close={close} />
        </>
      )}
    </Phrase>
  );
}
