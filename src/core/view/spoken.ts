import { hasRole, kindOf } from "../kinds";
import { ROLES, type RoleId } from "../project/roles";
import type { Visual } from "../project/schema";

const ROLE_IDS = Object.keys(ROLES) as RoleId[];

/**
 * A visual without the phrases that its kind has no role for. A series divides the rows of a split, and has
 * no say without one.
 */
export function spoken(visual: Visual): Visual {
  const silent = ROLE_IDS.filter(
    (role) =>
      !hasRole(visual.kind, role) || (role === "series" && !(visual.split && hasRole(visual.kind, "split"))),
  );
  // Two roles can stand in one field: the end of a scale alone, or both of its ends.
  const said = new Set(ROLE_IDS.filter((r) => !silent.includes(r)).flatMap((r) => Object.keys(ROLES[r])));
  const none = silent.flatMap((role) =>
    Object.entries(ROLES[role]).flatMap(([name, field]) => (said.has(name) ? [] : [[name, field.none]])),
  );
  return { ...visual, ...(Object.fromEntries(none) as Partial<Visual>) };
}

/** Whether a visual is drawn row by row, so that each row can have a number of its own. */
export const hasRows = (visual: Visual): boolean =>
  spoken(visual).split !== null && !kindOf(visual.kind).course;
