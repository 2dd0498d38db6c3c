import { cutText } from "../base/cut-text";
import { sameName } from "../base/names";
import { LONGEST } from "./most";
import type { TableInfo } from "./schema";

/** The longest row of columns side by side that are read as numbers; none where it is shorter than three. */
export function proposedTurn({ columns }: Pick<TableInfo, "columns">): string[] {
  let best: string[] = [];
  let now: string[] = [];
  for (const { name, reading } of columns) {
    now = reading.type === "number" ? [...now, name] : [];
    if (now.length > best.length) best = now;
  }
  return best.length > 2 ? best : [];
}

/**
 * Why columns cannot be turned into rows with these names for what they become; null where they can. A table
 * keeps the columns that are not turned.
 */
export function turnProblem(
  { name, columns }: Pick<TableInfo, "name" | "columns">,
  turn: { columns: readonly string[]; names: string; values: string },
): string | null {
  // A table can have thousands of columns: names are looked up, not compared each with each.
  const stay = new Map(columns.map((c) => [c.name.toLowerCase(), c.name]));
  const turned = new Set<string>();
  for (const column of turn.columns) {
    const key = column.toLowerCase();
    if (turned.has(key)) return "A column can be turned into rows once only.";
    if (!stay.delete(key)) return `${name} has no column “${column}” of its file.`;
    turned.add(key);
  }
  if (turned.size === 0) return "Choose at least one column.";
  const made = [turn.names.trim(), turn.values.trim()];
  if (made.includes("")) return "Both new columns need a name.";
  const long = made.find((n) => n.length > LONGEST.column);
  if (long !== undefined)
    return `A column’s name has at most ${LONGEST.column} characters; “${cutText(long, 20)}” has ${long.length.toLocaleString("en")}.`;
  if (sameName(made[0], made[1]))
    return `The names and the cells need columns of their own; both are called “${made[0]}”.`;
  const taken = made.find((n) => stay.has(n.toLowerCase()));
  return taken === undefined
    ? null
    : `There is a column “${taken}” already that stays as it is. Choose another name.`;
}
