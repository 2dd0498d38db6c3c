import type { Visual } from "@/core/project/schema";
import { subjectOf } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import type { CategoryOf } from "@/core/scene/marks";
import type { CavloCategory } from "./public";

/** A category as a page is told of it. */
export function categoryTold(
  { key, side }: CategoryOf,
  visual: Pick<Visual, "id">,
  data: VisualData,
): CavloCategory {
  const entries = side === "series" ? data.series : data.rows;
  const subject = subjectOf(key);
  return {
    visual: visual.id,
    side,
    category: entries.find((e) => e.key === key)?.label ?? "",
    value: subject.type === "category" ? subject.value : null,
  };
}
