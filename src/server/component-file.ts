import { readFileSync } from "node:fs";
import { join } from "node:path";
import { componentCode } from "@/code/component/component-code";
import { querySchema, type Result } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import type { Project, Visual } from "@/core/project/schema";
import { settledFormulas } from "@/core/snapshot/settled-formulas";
import { travellingDocument } from "@/core/snapshot/travelling-document";
import { ColumnSet, columnsOfQuery } from "@/core/snapshot/used-columns";
import { toQuery } from "@/core/view/query";
import { settings } from "./settings";

/** A visual with its answer as a component of React in one file of TypeScript. */
export function componentFile(document: Project, visual: Visual, result: Result): string {
  const query = toQuery(visual, document);
  const inputs = Object.fromEntries(document.inputs.map((i) => [i.name, i.value]));
  const used = new ColumnSet();
  if (query)
    for (const place of columnsOfQuery(querySchema.parse(query), scopeOf(document), inputs)) used.add(place);
  const project = travellingDocument(document, { board: null, visuals: [visual] }, used);
  const kind = `${visual.kind.replaceAll(" ", "-")}.js`;
  return componentCode({
    visual,
    project: { ...project, visuals: [] },
    formulas: settledFormulas(project),
    result,
    drawing: readFileSync(join(settings.root, "dist", "embed", "kinds", kind), "utf8"),
  });
}
