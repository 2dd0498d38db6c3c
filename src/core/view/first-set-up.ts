import { findNamed } from "../base/names";
import type { Kind } from "../kinds/anatomy/kind";
import type { RoleId } from "../kinds/roles";
import { newVisual } from "../project/defaults";
import type { Measure, Project, Visual } from "../project/schema";

const columnSplit = (column?: { name: string }) => (column ? { column: column.name } : null);

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
  const column = columnSplit(texts[0]) ?? byDate;
  const has = (role: RoleId) => kind.roles.includes(role);
  const divided = texts[0] ? (byDate ?? columnSplit(texts[1])) : null;
  const overTime = kind.course && date ? { column: date.name, by: "month" as const } : null;
  return newVisual({
    id: `draft-${kind.id.replaceAll(" ", "-")}`,
    name: measure.label,
    title: measure.label,
    kind: kind.id,
    value: measure.id,
    split: kind.needsSplit ? column : overTime,
    series: kind.dividedAtFirst ? divided : null,
    second: has("second") ? (other?.id ?? null) : null,
    comparison: has("comparison") && goal ? { input: goal.id } : null,
    order: kind.course ? { by: "split", order: "asc" } : { by: "value", order: "desc" },
    keep: kind.needsSplit ? { first: 6, others: measure.format.style !== "percent" } : null,
    target: has("target") && goal ? { input: goal.id } : null,
    size: kind.firstSize,
  });
}
