import { findNamed } from "../base/names";
import type { Kind } from "../kinds/anatomy/kind";
import { hasRole } from "../kinds/roles";
import { type Measure, type Project, type Visual, visualSchema } from "../project/schema";

const SIZES: Partial<Record<Visual["kind"], Visual["size"]>> = {
  "progress bar": { width: 400, height: 180 },
  number: { width: 320, height: 210 },
};

/**
 * A first set-up of a kind for a measure: split where the kind needs one, against an input where one of its
 * format exists.
 */
export function firstSetUp(
  kind: Kind,
  measure: Measure,
  project: Pick<Project, "tables" | "inputs" | "measures">,
): Visual {
  const table = findNamed(project.tables, measure.table);
  const texts = table?.columns.filter((c) => c.reading.type === "text" && !c.hidden) ?? [];
  const date = table?.columns.find((c) => c.reading.type === "date" && !c.hidden);
  const goal = project.inputs.find((i) => i.type === "number" && i.format.style === measure.format.style);
  const other = project.measures.find(
    (m) => m.id !== measure.id && m.table === measure.table && m.format.style === measure.format.style,
  );
  const byDate = date ? { column: date.name, by: "year" as const } : null;
  const column = texts[0] ? { column: texts[0].name } : byDate;
  const series =
    hasRole(kind.id, "series") && kind.id === "capsule stack"
      ? texts[0]
        ? (byDate ?? (texts[1] ? { column: texts[1].name } : null))
        : null
      : null;
  return visualSchema.parse({
    id: `draft-${kind.id.replaceAll(" ", "-")}`,
    name: measure.label,
    title: measure.label,
    kind: kind.id,
    value: measure.id,
    split: kind.needsSplit
      ? column
      : kind.id === "number" && date
        ? { column: date.name, by: "month" }
        : null,
    series,
    second: hasRole(kind.id, "second") ? (other?.id ?? null) : null,
    comparison: kind.id === "number" && goal ? { input: goal.id } : null,
    order: kind.id === "number" ? { by: "split", order: "asc" } : { by: "value", order: "desc" },
    keep: kind.needsSplit ? { first: 6, others: measure.format.style !== "percent" } : null,
    target: hasRole(kind.id, "target") && goal ? { input: goal.id } : null,
    size: SIZES[kind.id] ?? { width: 400, height: 330 },
  });
}
