import { sameName } from "../base/names";
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
  const gone = turn.columns.find((c) => !columns.some((k) => sameName(k.name, c)));
  if (gone !== undefined) return `${name} has no column “${gone}” of its file.`;
  const turned = columns.filter((c) => turn.columns.some((t) => sameName(t, c.name)));
  if (turned.length === 0) return "Choose at least one column.";
  if (turned.length < turn.columns.length) return "A column can be turned into rows once only.";
  if (!turn.names.trim() || !turn.values.trim()) return "Both new columns need a name.";
  if (sameName(turn.names, turn.values))
    return `The names and the cells need columns of their own; both are called “${turn.names}”.`;
  const taken = [turn.names, turn.values].find((n) =>
    columns.some((c) => !turned.includes(c) && sameName(c.name, n)),
  );
  return taken === undefined
    ? null
    : `There is a column “${taken}” already that stays as it is. Choose another name.`;
}
