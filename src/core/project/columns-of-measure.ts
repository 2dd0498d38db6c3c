import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { tablesOf } from "../formula/expr";
import { unansweredIn } from "./answerable";
import { homeTableOf } from "./home-table";
import { type Named, scopeOf } from "./names";
import { type OfferedColumn, offeredColumns } from "./offered";
import type { Measure } from "./schema";

/**
 * The columns that are offered for a measure: those of its home table, and where it reads several tables only
 * those in which all of them meet.
 */
export function columnsOfMeasure(measure: Measure | undefined, project: Named): OfferedColumn[] {
  const home = homeTableOf(measure, project);
  const columns = offeredColumns(project, home);
  if (!measure || home === null) return columns;
  const { formula, table, name } = measure;
  const { expr } = checkFormula(formula, scopeOf(project), table, "group", name);
  if (!expr || tablesOf(expr).every((t) => sameName(t, home))) return columns;
  // Its formula, not its name: a measure that is only proposed has none in the project.
  const measures = [{ formula, as: "value" }];
  return columns.filter(
    (c) => !unansweredIn({ table: home, measures, splits: [{ column: c.name }] }, project).isWhole,
  );
}
