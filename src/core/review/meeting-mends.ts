import { sameName } from "../base/names";
import { nameFor } from "../formula/meeting";
import { NoMeetingError } from "../plan/no-meeting";
import { unansweredWhole } from "../project/answerable";
import { type Edit, edited } from "../project/edits";
import { homeTableOfVisual } from "../project/home-table";
import { scopeOf } from "../project/names";
import type { Project, Visual } from "../project/schema";
import { toQuery } from "../view/query";
import type { Mend } from "./finding";

/** So many mends are offered: more would have to be read through. */
const MOST = 4;

/** What a visual cannot be asked, by names and types; null where it can or says nothing yet. */
function problemOf(visual: Visual, project: Project): Error | null {
  const query = toQuery(visual, project);
  return query && unansweredWhole(query, project);
}

/**
 * What makes a visual answer again whose tables do not meet in its split or its series: another split that
 * all have, or the split's name for a column that is meant by it. Each one was tried: with it the visual
 * answers. Also the table that cannot be split, where a link or a reading is set. Null where they meet.
 */
export function meetingMends(
  visual: Visual,
  project: Project,
): { mends: Mend[]; table: string | null } | null {
  const problem = problemOf(visual, project);
  if (!(problem instanceof NoMeetingError)) return null;
  const { table, place, told } = problem;
  const isHeldBack = (split: Visual["split"]) =>
    split !== null && (sameName(split.column, place.column) || split.column.endsWith(`.${place.column}`));
  const role = isHeldBack(visual.split) ? "split" : "series";
  const other = scopeOf(project).tables.find((t) => sameName(t.name, place.table));
  const instead = told.instead.map((name): Mend => {
    const column = nameFor(homeTableOfVisual(visual, project) ?? place.table, {
      table: place.table,
      column: name,
    });
    const type = other?.columns.find((c) => sameName(c.name, name))?.type;
    // Every single day would be too many to read.
    const by = type === "date" || type === "timestamp" ? (visual[role]?.by ?? "month") : undefined;
    const change = { [role]: { column, ...(by ? { by } : {}) } };
    const label = `Split by ${name}${by ? ` by ${by}` : ""}`;
    return { label, edit: { type: "change visual", id: visual.id, change } };
  });
  const owner = project.tables.find((t) => sameName(t.name, table));
  const renamed = told.renamed.flatMap((name): Mend[] => {
    if (!owner) return [];
    if ([...owner.columns, ...owner.derived].some((c) => sameName(c.name, place.column))) return [];
    const change = { name: place.column };
    const type = owner.derived.some((d) => d.name === name) ? "change derived" : "change column";
    return [
      {
        label: `Call ${table}.${name} “${place.column}”`,
        edit: { type, table: owner.id, column: name, change } as Edit,
      },
    ];
  });
  const mends = [...instead, ...renamed].filter(({ edit }) => {
    const after = edited(project, edit);
    const mended = after.visuals.find((v) => v.id === visual.id);
    return mended !== undefined && problemOf(mended, after) === null;
  });
  return { mends: mends.slice(0, MOST), table: owner?.id ?? null };
}
