import { kindOf } from "../kinds";
import type { Result } from "../plan/query";
import type { Categorized } from "../project/categories";
import type { Visual } from "../project/schema";
import { type Around, readResult } from "../rows/read-result";
import type { VisualData } from "../rows/visual-data";
import { spoken } from "./spoken";

/** Where measures are the parts of a whole, their sum is that whole: none where they are not of one sort. */
function summed(data: VisualData): VisualData {
  const { rows, names } = data;
  const isOneSort = rows.every((r) => r.format?.style === data.format.style);
  const values = rows.flatMap((r) => r.value ?? []);
  const total = isOneSort && values.length > 0 ? values.reduce((sum, v) => sum + v, 0) : null;
  const written = { value: total, format: data.format };
  return { ...data, total, names: { ...names, value: written, total: written } };
}

/**
 * Puts the answer to a visual's query (null while it is awaited) into the words of its sentence; see
 * `readResult`.
 */
export function toVisualData(
  visual: Visual,
  project: Categorized,
  result: Result | { error: string } | null,
  around: Around = {},
): VisualData {
  const said = spoken(visual);
  const data = readResult(said, project, result, around);
  const areParts = kindOf(said.kind).sumsMeasures && said.split === null && data.rows.length > 1;
  return areParts ? summed(data) : data;
}
