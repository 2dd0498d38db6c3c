"use client";
import type { Visual } from "@/core/project/schema";
import { useProject } from "../shared/project-context";
import type { splitOptions } from "../shared/split-options";
import { OptionList, Phrase } from "./phrase";

/** A phrase for a measure that a kind can do without. */
export function MeasurePhrase({
  label,
  id,
  missing,
  onChange,
}: {
  label: string;
  id: string | null;
  missing: string;
  onChange: (id: string | null) => void;
}) {
  const measures = useProject((s) => s.document.measures);
  const measure = measures.find((m) => m.id === id);
  return (
    <Phrase
      label={label}
      text={measure ? measure.label.toLowerCase() : missing}
      tone={measure ? "data" : "missing"}
    >
      {(close) => (
        <OptionList
          label={label}
          chosen={id ?? undefined}
          close={close}
          options={[
            ...measures.map((m) => ({
              key: m.id,
              label: m.label,
              hint: m.table ?? "",
              group: "Measures",
              pick: () => onChange(m.id),
            })),
            ...(id ? [{ key: "none", label: "Take it out", group: "Or", pick: () => onChange(null) }] : []),
          ]}
        />
      )}
    </Phrase>
  );
}

/** "and revenue and seats": further measures, each of which can be taken out again. */
export function MorePhrase({
  value,
  more,
  onChange,
}: {
  value: string | null;
  more: string[];
  onChange: (more: string[]) => void;
}) {
  const measures = useProject((s) => s.document.measures);
  const free = measures.filter((m) => m.id !== value && !more.includes(m.id));
  return (
    <>
      {more.map((id) => {
        const measure = measures.find((m) => m.id === id);
        return (
          <span key={id}>
            {" and "}
            <Phrase
              label="Further measure"
              text={measure ? measure.label.toLowerCase() : "a measure that is gone"}
              tone={measure ? "data" : "missing"}
            >
              {(close) => (
                <OptionList
                  label="Further measure"
                  chosen={id}
                  close={close}
                  options={[
                    ...free.map((m) => ({
                      key: m.id,
                      label: m.label,
                      hint: m.table ?? "",
                      group: "Measures",
                      pick: () => onChange(more.map((k) => (k === id ? m.id : k))),
                    })),
                    {
                      key: "none",
                      label: "Take it out",
                      group: "Or",
                      pick: () => onChange(more.filter((k) => k !== id)),
                    },
                  ]}
                />
              )}
            </Phrase>
          </span>
        );
      })}
      {more.length < 5 && free.length > 0 && (
        <>
          {" "}
          <Phrase label="Add a measure" text="and …" tone="missing">
            {(close) => (
              <OptionList
                label="Add a measure"
                close={close}
                options={free.map((m) => ({
                  key: m.id,
                  label: m.label,
                  hint: m.table ?? "",
                  pick: () => onChange([...more, m.id]),
                }))}
              />
            )}
          </Phrase>
        </>
      )}
    </>
  );
}

interface SplitProps {
  label: string;
  /** What stands before the column: "split by". */
  word: string;
  split: Visual["split"];
  splits: ReturnType<typeof splitOptions>;
  onChange: (split: Visual["split"]) => void;
}

/** A phrase for the column that the value is split by. */
export function SplitPhrase({ label, word, split, splits, onChange }: SplitProps) {
  const found = split && splits.find((o) => o.value === JSON.stringify(split));
  return (
    <>
      {found ? `, ${word} ` : ", "}
      <Phrase
        label={label}
        text={found ? found.label : split ? `${word} ${split.column}, which is gone` : `${word} …`}
        tone={found ? "data" : "missing"}
      >
        {(close) => (
          <OptionList
            label={label}
            chosen={found ? found.value : undefined}
            close={close}
            options={[
              ...splits.map((o) => ({
                key: o.value,
                label: o.label,
                group: o.group,
                pick: () => onChange(JSON.parse(o.value)),
              })),
              ...(split
                ? [
                    {
                      key: "none",
                      label: label === "Split" ? "No split" : "Take it out",
                      group: "Or",
                      pick: () => onChange(null),
                    },
                  ]
                : []),
            ]}
          />
        )}
      </Phrase>
    </>
  );
}
