"use client";
import { writeByPattern, writesDays } from "@/core/base/date-pattern";
import type { NumberFormat } from "@/core/base/number-format";
import { LONGEST } from "@/core/project/most";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";

const SAMPLE = "2025-12-31";
const PATTERNS = ["dd MMM yyyy", "d MMMM yyyy", "dd.MM.yyyy", "dd/MM/yyyy", "MM/dd/yyyy", "MMM yyyy", "yyyy"];
const OPTIONS = [
  { value: "", label: SAMPLE },
  ...PATTERNS.map((value) => ({ value, label: writeByPattern(SAMPLE, value) ?? value })),
];

/** How a date is written wherever captions do not say otherwise: one of a few ways, or a pattern of one's own. */
export function DateFormat({
  format,
  onChange,
}: {
  format: NumberFormat;
  onChange: (format: NumberFormat) => void;
}) {
  const { dates, ...rest } = format;
  const now = dates ?? "";
  const set = (pattern: string) => onChange(pattern === "" ? rest : { ...rest, dates: pattern });
  const isOwn = now !== "" && !PATTERNS.includes(now);
  return (
    <>
      <Labelled label="Dates as">
        {(id) => (
          <Choose
            id={id}
            value={now}
            options={
              isOwn ? [...OPTIONS, { value: now, label: writeByPattern(SAMPLE, now) ?? now }] : OPTIONS
            }
            onChange={set}
          />
        )}
      </Labelled>
      <Labelled label="Pattern">
        {(id) => (
          <CommitField
            id={id}
            mono
            value={now}
            placeholder="dd MMM yyyy"
            longest={LONGEST.pattern}
            check={(t) =>
              t.trim() === "" || writesDays(t) ? null : "No way to write a date. Use for example dd MMM yyyy."
            }
            onCommit={(t) => set(t.trim())}
          />
        )}
      </Labelled>
    </>
  );
}
