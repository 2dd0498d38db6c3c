import type { Result } from "../plan/query";
import type { Categorized } from "../project/categories";
import type { Visual } from "../project/schema";
import { type Around, readResult } from "../rows/read-result";
import type { VisualData } from "../rows/visual-data";
import { spoken } from "./spoken";

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
  return readResult(spoken(visual), project, result, around);
}
