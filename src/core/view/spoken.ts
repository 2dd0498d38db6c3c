import { hasRole } from "../kinds";
import type { RoleId } from "../kinds/roles";
import type { Visual } from "../project/schema";

/** A visual without the phrases that its kind has no role for. */
export function spoken(visual: Visual): Visual {
  const of = <T>(role: RoleId, value: T, none: T): T => (hasRole(visual.kind, role) ? value : none);
  const split = of("split", visual.split, null);
  return {
    ...visual,
    split,
    // A series divides the rows of a split, and takes the place of further measures.
    series: split ? of("series", visual.series, null) : null,
    more: of("more", visual.more, []),
    second: of("second", visual.second, null),
    headSize: of("headSize", visual.headSize, null),
    comparison: of("comparison", visual.comparison, null),
    target: of("target", visual.target, null),
    minimum: of("range", visual.minimum, null),
    maximum: of("range", visual.maximum, null),
    keep: of("keep", visual.keep, null),
    order: of("order", visual.order, { by: "split", order: "asc" }),
  };
}
