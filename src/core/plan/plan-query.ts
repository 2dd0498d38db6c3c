import { own } from "../base/own";
import type { Value } from "../base/value";
import type { Expr, Scope } from "../formula/expr";
import { bindInputs, TODAY } from "./bind-inputs";
import { inputValue } from "./input-value";
import { type Plan, planWith } from "./plan";
import type { Query } from "./query";
import { QueryError } from "./query-error";

/** The value of every input by its name in lower case: the query's own before the project's. */
function boundInputs(
  query: Query,
  scope: Scope,
  project: Record<string, Value>,
  today: Value,
): Map<string, Value> {
  const values = new Map<string, Value>();
  const given = new Map(Object.entries(query.inputs).map(([name, value]) => [name.toLowerCase(), value]));
  for (const { name, type } of scope.inputs) {
    const value = given.get(name.toLowerCase()) ?? own(project, name) ?? null;
    values.set(name.toLowerCase(), inputValue(value, type, name));
    given.delete(name.toLowerCase());
  }
  values.set(TODAY, today);
  const unknown = [...given.keys()][0];
  if (unknown !== undefined) throw new QueryError("unknown_input", `There is no input called “${unknown}”.`);
  return values;
}

/**
 * Checks a query against the names of a project, with the values of its inputs and of the day bound: see
 * `planWith`.
 */
export function planQuery(
  query: Query,
  scope: Scope,
  projectInputs: Record<string, Value>,
  today: Value,
): Plan {
  const inputs = boundInputs(query, scope, projectInputs, today);
  const bound = new Map<Expr, Expr>();
  return planWith(query, scope, (expr) => bindInputs(expr, inputs, bound));
}
