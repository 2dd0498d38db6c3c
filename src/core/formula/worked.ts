import type { Span } from "../base/problem";
import { isAggregate } from "./aggregates";
import { checkFormula } from "./check";
import type { Scope } from "./expr";
import { parseFormula } from "./parse";
import type { Node } from "./tree";

/** A part of a formula that has a value of its own for a group of rows: its place, and what it is. */
export type WorkedPart = Span & ({ of: "formula" } | { of: "measure" | "input"; name: string });

/** The nodes right under another. */
function under(node: Node): Node[] {
  switch (node.kind) {
    case "unary":
    case "cast":
    case "isNull":
    case "extract":
      return [node.arg];
    case "binary":
    case "isDistinct":
      return [node.left, node.right];
    case "call":
      return [...node.args, ...(node.filter ? [node.filter] : []), ...(node.orderBy ? [node.orderBy] : [])];
    case "case":
      return [
        ...(node.subject ? [node.subject] : []),
        ...node.branches.flatMap((b) => [b.when, b.result]),
        ...(node.otherwise ? [node.otherwise] : []),
      ];
    case "between":
      return [node.arg, node.low, node.high];
    case "in":
      return [node.arg, ...node.list];
    case "like":
      return [node.arg, node.pattern, ...(node.escape ? [node.escape] : [])];
    default:
      return [];
  }
}

/**
 * The parts of a measure's formula that numbers can be put in the place of, in the order of the
 * text: aggregates and totals as they stand, measures and inputs by their names. None where the
 * formula has a problem.
 */
export function workedParts(formula: string, scope: Scope, table: string | null): WorkedPart[] {
  const checked = checkFormula(formula, scope, table, "group");
  if (!checked.expr) return [];
  const measures = new Map(checked.names.flatMap((n) => ("measure" in n ? [[n.start, n] as const] : [])));
  const parts: WorkedPart[] = [];
  const visit = (node: Node): void => {
    const { start, end } = node;
    const name = node.kind === "call" ? node.name.toLowerCase() : "";
    const measure = node.kind === "name" ? measures.get(start) : undefined;
    if (isAggregate(name) || name === "total") parts.push({ start, end, of: "formula" });
    else if (measure) parts.push({ start, end, of: "measure", name: measure.measure });
    else if (node.kind === "input") parts.push({ start, end, of: "input", name: node.name });
    else for (const inner of under(node)) visit(inner);
  };
  visit(parseFormula(formula).node);
  return parts.sort((a, b) => a.start - b.start);
}

/** A formula with a text in the place of each of some of its parts. */
export function withParts(formula: string, parts: readonly Span[], texts: readonly string[]): string {
  let [text, at] = ["", 0];
  for (const [i, { start, end }] of parts.entries()) {
    text += formula.slice(at, start) + texts[i];
    at = end;
  }
  return text + formula.slice(at);
}
