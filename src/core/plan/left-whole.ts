import { sameName } from "../base/names";
import { type Expr, type MeasureNode, type Scope, visitOwn } from "../formula/expr";
import { measureNamed } from "../formula/scope-names";
import type { Result } from "./query";

type Unfiltered = Result["unfiltered"];
type LeftWhole = Result["leftWhole"];

/** What an expression sets against each other. */
interface Compared {
  /** The tables of its aggregates, but those under measures that may stand whole. */
  tables: string[];
  /** The measures under it that say of themselves that they may stand whole. */
  whole: MeasureNode[];
}

function comparedIn(expr: Expr, scope: Scope): Compared {
  const tables = new Set<string>();
  const whole = new Map<string, MeasureNode>();
  const seen = new Set<Expr>();
  const waiting = [expr];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    visitOwn(next, (e) => {
      if (e.op === "aggregate") tables.add(e.table);
      if (e.op !== "measure") return;
      if (measureNamed(scope, e.name)?.standsWhole) whole.set(e.name, e);
      else waiting.push(e.expr);
    });
  }
  return { tables: [...tables], whole: [...whole.values()] };
}

/** The filter that means nothing to one of some tables; those that `among` asks for. */
function leaving(tables: string[], unfiltered: Unfiltered, among: "some" | "all") {
  const isWhole = (table: string, column: string) =>
    unfiltered.some((u) => u.column === column && sameName(u.table, table));
  return unfiltered.find(({ column }) => {
    const left = tables.filter((t) => isWhole(t, column)).length;
    return among === "all" ? left === tables.length : left > 0 && left < tables.length;
  });
}

/**
 * What the filters of a query leave whole of a measure. "mixed": a filter narrows one of the tables that it
 * reads and leaves another whole, so that a ratio or a difference of both would be of unlike things, and it
 * has no value. "alone": all of it is left whole, while rows of `base` are narrowed. "allowed": a measure that
 * says of itself that it may stand whole does so, on its own or under this one.
 */
export function leftWholeOf(
  { name, expr }: { name: string; expr: Expr },
  base: string | undefined,
  unfiltered: Unfiltered,
  scope: Scope,
): LeftWhole {
  if (unfiltered.length === 0) return [];
  const { tables, whole } = comparedIn(expr, scope);
  const allowed = whole.flatMap((node): LeftWhole => {
    const by = leaving(comparedIn(node.expr, scope).tables, unfiltered, "all");
    return by ? [{ measure: node.name, ...by, as: "allowed" }] : [];
  });
  const mixing = leaving(tables, unfiltered, "some");
  if (mixing) return [...allowed, { measure: name, ...mixing, as: "mixed" }];
  const isOfBase = base === undefined || tables.some((t) => sameName(t, base));
  const alone = isOfBase || tables.length === 0 ? undefined : leaving(tables, unfiltered, "all");
  const as = measureNamed(scope, name)?.standsWhole ? "allowed" : "alone";
  return alone ? [...allowed, { measure: name, ...alone, as }] : allowed;
}

/** Why a filter does not reach a table, as the beginning of a sentence. */
const notReached = ({ table, column, fails }: Unfiltered[number]): string =>
  fails
    ? `${table} has its own column for ${column}, which cannot be computed`
    : `${table} has nothing that means ${column}`;

/** That a filter leaves a table whole, and why, in a sentence. */
export const wholeWords = (left: Unfiltered[number]): string =>
  `${notReached(left)}, so that filter leaves it whole.`;

/** Why a measure of which a filter leaves one side whole has no value, in a sentence. */
export const mixedWords = (left: LeftWhole[number], name: string): string =>
  `${name}: ${notReached(left)}, so that filter would leave one side of it whole.`;
