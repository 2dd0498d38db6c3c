import { findNamed, sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { type Expr, measuresUnder, visitOwn, withMeasures } from "../formula/expr";
import { scopeOf } from "../project/names";
import type { Measure, Project } from "../project/schema";

type Known = Pick<Project, "tables" | "links" | "inputs" | "measures" | "conventions">;

const checkedOf = ({ formula, table, name }: Measure, project: Known) =>
  checkFormula(formula, scopeOf(project), table, "group", name);

const TYPES: Partial<Record<Expr["type"], string>> = {
  text: "a text",
  boolean: "true or false",
  date: "a date",
  timestamp: "a timestamp",
};

/** Why a measure has no size that a picture could show, as words that follow its name; null where it has. */
export function whyNoSize(measure: Measure, project: Known): string | null {
  const { expr, type } = checkedOf(measure, project);
  if (!expr) return "has a problem: mend its formula first";
  return TYPES[type] ? `is ${TYPES[type]}, and has no size` : null;
}

/** Whether a measure holds groups against the total of all: without a split it says nothing, as 100 %. */
export function isOfTotal(measure: Measure, project: Known): boolean {
  const { expr } = checkedOf(measure, project);
  let found = false;
  for (const own of expr ? withMeasures(expr) : [])
    visitOwn(own, (e) => {
      found ||= e.op === "total";
    });
  return found;
}

/** Whether a measure is computed with an input, itself or through others. */
export function isMadeWith(measure: Measure, input: string, project: Known): boolean {
  const { expr } = checkedOf(measure, project);
  const under = (expr ? measuresUnder(expr) : []).flatMap((m) => findNamed(project.measures, m.name) ?? []);
  return [measure, ...under].some((m) =>
    checkedOf(m, project).uses.inputs.some((name) => sameName(name, input)),
  );
}
