import type { Table } from "../core/data/column";
import { runQueries } from "../core/engine/run";
import { type Query, querySchema } from "../core/plan/query";
import { QueryError } from "../core/plan/query-error";
import { scopeOf } from "../core/project/names";
import type { Project, Visual } from "../core/project/schema";
import type { VisualData } from "../core/rows/visual-data";
import { toQuery } from "../core/view/query";
import { toVisualData } from "../core/view/visual-data";

/**
 * What a visual draws of made tables, as its project asks and the engine answers; `filters` are those of a
 * board around it. Throws where its query cannot be answered.
 */
export function answeredData(
  visual: Visual,
  project: Project,
  tables: Table[],
  filters: Query["filters"] = [],
): VisualData {
  const query = toQuery(visual, project, filters);
  if (!query) throw new Error("nothing is asked");
  const [result] = runQueries([querySchema.parse(query)], { tables, inputs: {}, scope: scopeOf(project) });
  if (result instanceof QueryError) throw result;
  return toVisualData(visual, project, result, { filters });
}
