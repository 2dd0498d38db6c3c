import { findNamed } from "../base/names";
import type { Mend, Problem, Span } from "../base/problem";
import type { ValueType } from "../base/value";
import { callExpr, extractExpr } from "./check-call";
import { type Checking, call, TYPE_WORDS } from "./checking";
import { type Definition, Definitions, type FormulaText, type Use } from "./definitions";
import type { Checked, Expr, Level, Scope, ScopeTable } from "./expr";
import { type ScalarName, sharedType } from "./functions";
import { parseFormula } from "./parse";
import { quoteName } from "./quote-name";
import { type NameContext, NameResolver } from "./resolve-names";
import { measureNamed, tableNamed } from "./scope-names";
import type { Node } from "./tree";

const MAX_TREE_DEPTH = 1500;

const parsed = new Map<string, ReturnType<typeof parseFormula>>();
const MOST_PARSED = 3000;
function parseOnce(formula: string) {
  let result = parsed.get(formula);
  if (!result) {
    if (parsed.size > MOST_PARSED) parsed.clear();
    result = parseFormula(formula);
    parsed.set(formula, result);
  }
  return result;
}

/** So many whole days lead from no date in use past the last one. */
const FEW_DAYS = 1_000_000;

/** A date so many days later or earlier. Whole ones that are known are added as numbers, which is faster. */
function daysFrom(date: Expr, op: "+" | "-", days: Expr): Expr {
  const isWhole =
    days.op === "constant" && Number.isInteger(days.value) && Math.abs(Number(days.value)) <= FEW_DAYS;
  if (isWhole) return call(op, "date", [date, days]);
  return call(op === "+" ? "date_plus_days" : "date_minus_days", "date", [date, days]);
}

class Checker implements Checking {
  readonly problems: Problem[] = [];
  readonly names: NameResolver;
  private depth = 0;

  readonly isDerived: boolean;

  constructor(
    readonly table: ScopeTable | null,
    private readonly source: string,
    context: NameContext,
  ) {
    this.isDerived = context.derived;
    this.names = new NameResolver(this, context);
  }

  measureIn(node: Node): string | null {
    return node.kind === "name" ? this.names.measureOnly(node) : null;
  }

  fail(code: Problem["code"], span: Span, message: string, mends?: Mend[]): Expr {
    this.problems.push({
      code,
      start: span.start,
      end: span.end,
      message,
      ...(mends?.length ? { mends } : {}),
    });
    return { op: "constant", type: "null", value: null };
  }

  written({ start, end }: Span): string {
    return this.source.slice(start, end);
  }

  expr(node: Node, level: Level, inTotal = false): Expr {
    if (this.depth > MAX_TREE_DEPTH)
      return this.fail(
        "limit",
        node,
        "The formula has too many terms. Move a part of it into a measure of its own.",
      );
    this.depth++;
    const result = this.visit(node, level, inTotal);
    this.depth--;
    return result;
  }

  private visit(node: Node, level: Level, inTotal: boolean): Expr {
    const sub = (child: Node) => this.expr(child, level, inTotal);
    switch (node.kind) {
      case "error":
        return { op: "constant", type: "null", value: null };
      case "literal":
        return { op: "constant", type: node.type, value: node.value };
      case "input":
        return this.names.input(node);
      case "name":
        return this.names.name(node, level);
      case "unary": {
        const arg = sub(node.arg);
        if (node.op === "not")
          return this.typed(node.arg, arg, "boolean", "“not”") && call("not", "boolean", [arg]);
        this.typed(node.arg, arg, "number", `“${node.op}”`);
        return node.op === "+" ? arg : call("negate", "number", [arg]);
      }
      case "binary":
        return this.binary(node, sub(node.left), sub(node.right));
      case "between": {
        const [arg, low, high] = [sub(node.arg), sub(node.low), sub(node.high)];
        const inside = call("and", "boolean", [
          this.compare(node, ">=", arg, low),
          this.compare(node, "<=", arg, high),
        ]);
        return node.negated ? call("not", "boolean", [inside]) : inside;
      }
      case "in": {
        const arg = sub(node.arg);
        const any = call(
          "or",
          "boolean",
          node.list.map((item) => this.compare(item, "=", arg, sub(item))),
        );
        return node.negated ? call("not", "boolean", [any]) : any;
      }
      case "like": {
        const parts = [node.arg, node.pattern, ...(node.escape ? [node.escape] : [])];
        const args = parts.map((part) => {
          const e = sub(part);
          this.typed(part, e, "text", "“like”");
          return e;
        });
        const match = call("like", "boolean", args);
        return node.negated ? call("not", "boolean", [match]) : match;
      }
      case "isNull": {
        const test = call("is_null", "boolean", [sub(node.arg)]);
        return node.negated ? call("not", "boolean", [test]) : test;
      }
      case "isDistinct": {
        const test = this.compare(node, "is_distinct", sub(node.left), sub(node.right));
        return node.negated ? call("not", "boolean", [test]) : test;
      }
      case "case":
        return this.caseExpr(node, sub);
      case "cast":
        return this.cast(node, sub(node.arg), node.to);
      case "extract":
        return extractExpr(this, node, sub(node.arg));
      case "call":
        return callExpr(this, node, level, inTotal);
    }
  }

  /** Reports unless the expression has this type (or is null). Gives true so that it chains. */
  typed(span: Span, expr: Expr, wanted: ValueType, what: string): true {
    if (expr.type !== wanted && expr.type !== "null") {
      const mends: Mend[] =
        wanted === "number" && expr.type === "text"
          ? [this.wrapMend(span, "cast(", " as number)", "Read the text as a number")]
          : [];
      this.fail(
        "type",
        span,
        `${what} needs ${TYPE_WORDS[wanted]} here, and this is ${TYPE_WORDS[expr.type]}.`,
        mends,
      );
    }
    return true;
  }

  wrapMend(span: Span, before: string, after: string, label: string): Mend {
    return {
      start: span.start,
      end: span.end,
      label,
      text: before + this.source.slice(span.start, span.end) + after,
    };
  }

  private binary(node: Node & { kind: "binary" }, left: Expr, right: Expr): Expr {
    const { op } = node;
    if (op === "and" || op === "or") {
      this.typed(node.left, left, "boolean", `“${op}”`);
      this.typed(node.right, right, "boolean", `“${op}”`);
      return call(op, "boolean", [left, right]);
    }
    if (isComparison(op)) return this.compare(node, op, left, right);
    if (op === "||") {
      this.typed(node.left, left, "text", "“||”");
      this.typed(node.right, right, "text", "“||”");
      return call("||", "text", [left, right]);
    }
    const pair = `${left.type} ${op} ${right.type}`;
    switch (pair) {
      case "date - date":
        return call("-", "number", [left, right]);
      case "date + number":
        return daysFrom(left, "+", right);
      case "date - number":
        return daysFrom(left, "-", right);
      case "number + date":
        return daysFrom(right, "+", left);
      case "timestamp - timestamp":
        return call("days_between", "number", [left, right]);
      case "timestamp + number":
        return call("timestamp_plus_days", "timestamp", [left, right]);
      case "number + timestamp":
        return call("timestamp_plus_days", "timestamp", [right, left]);
      case "timestamp - number":
        return call("timestamp_minus_days", "timestamp", [left, right]);
    }
    this.typed(node.left, left, "number", `“${op}”`);
    this.typed(node.right, right, "number", `“${op}”`);
    return call(op, "number", [left, right]);
  }

  private compare(span: Span, fn: Comparison, left: Expr, right: Expr): Expr {
    if (left.type === "date" && right.type === "timestamp")
      return call(fn, "boolean", [call("at_midnight", "timestamp", [left]), right]);
    if (left.type === "timestamp" && right.type === "date")
      return call(fn, "boolean", [left, call("at_midnight", "timestamp", [right])]);
    if (sharedType([left.type, right.type]) === null) {
      const hint =
        [left.type, right.type].includes("date") && [left.type, right.type].includes("text")
          ? " Write a date as date '2026-05-01'."
          : "";
      return this.fail(
        "type",
        span,
        `This compares ${TYPE_WORDS[left.type]} with ${TYPE_WORDS[right.type]}.${hint}`,
      );
    }
    return call(fn, "boolean", [left, right]);
  }

  private caseExpr(node: Node & { kind: "case" }, sub: (n: Node) => Expr): Expr {
    const subject = node.subject ? sub(node.subject) : null;
    const args: Expr[] = [];
    const results: Expr[] = [];
    for (const branch of node.branches) {
      const when = sub(branch.when);
      if (!subject) this.typed(branch.when, when, "boolean", "“when”");
      const result = sub(branch.result);
      args.push(subject ? this.compare(branch.when, "=", subject, when) : when, result);
      results.push(result);
    }
    if (node.otherwise) {
      const otherwise = sub(node.otherwise);
      args.push(otherwise);
      results.push(otherwise);
    }
    const type = sharedType(results.map((r) => r.type));
    if (type === null)
      return this.fail(
        "type",
        node,
        `The results of this “case” are of different types: ${[...new Set(results.map((r) => TYPE_WORDS[r.type]))].join(" and ")}.`,
      );
    return call("case", type, args);
  }

  private cast(node: Span, arg: Expr, to: ValueType): Expr {
    const from = arg.type;
    if (from === to || from === "null" || to === "null") return { ...arg, type: to } as Expr;
    if (to === "text" && from !== "text") return call(`text_from_${from}`, "text", [arg]);
    if (to === "number" && (from === "text" || from === "boolean"))
      return call("number_from", "number", [arg]);
    if (to === "boolean" && (from === "text" || from === "number"))
      return call(`boolean_from_${from}`, "boolean", [arg]);
    if (to === "date" && from === "timestamp") return call("day_of_timestamp", "date", [arg]);
    if (to === "timestamp" && from === "date") return call("at_midnight", "timestamp", [arg]);
    if ((to === "date" || to === "timestamp") && from === "text") return call(`${to}_from_text`, to, [arg]);
    return this.fail("type", node, `${TYPE_WORDS[from]} cannot become ${TYPE_WORDS[to]}.`);
  }
}

const COMPARISONS = ["=", "<>", "<", "<=", ">", ">="] as const;
type Comparison = (typeof COMPARISONS)[number] | (ScalarName & "is_distinct");
const isComparison = (op: string): op is (typeof COMPARISONS)[number] =>
  (COMPARISONS as readonly string[]).includes(op);

/** What a derived column needs that has no formula yet. */
function emptyDerived(table: ScopeTable | null): string {
  const [first] = table?.columns ?? [];
  const example = first ? `, for example ${quoteName(first.name)}` : "";
  return `The formula is empty. It is computed for each row: begin with a column${example}.`;
}

/** Checks one formula on its own; what it uses comes from `use`. */
function checkOne(text: FormulaText | Definition, scope: Scope, use: Use): Checked {
  const { formula, table, level } = text;
  const { node, problems } = parseOnce(formula);
  const own = table === null ? null : (tableNamed(scope, table) ?? null);
  const self = level === "group" && "name" in text ? text.name : null;
  const checker = new Checker(own, formula, { scope, derived: level === "derived", use, self });
  if (table !== null && !own)
    checker.problems.push({
      code: "name",
      start: 0,
      end: formula.length,
      message: `There is no table called “${table}”. Choose another table for this formula.`,
    });
  const expr = checker.expr(node, level === "derived" ? "row" : level);
  const written =
    level === "derived" && formula.trim() === ""
      ? problems.map((p) => ({ ...p, message: emptyDerived(own) }))
      : problems;
  const all = [...written, ...checker.problems].sort((a, b) => a.start - b.start);
  const foreign = all.find((p) => p.code === "foreign");
  const found = foreign ? [foreign] : all;
  return {
    expr: found.length ? null : expr,
    type: expr.type,
    problems: found,
    uses: {
      columns: [...checker.names.columns.values()],
      measures: [...checker.names.measures],
      inputs: [...checker.names.inputs],
    },
    names: checker.names.names.sort((a, b) => a.start - b.start),
  };
}

const known = new WeakMap<Scope, Definitions>();

/** The measures and derived columns of a scope, each checked once. */
function definitionsOf(scope: Scope): Definitions {
  let definitions = known.get(scope);
  if (!definitions) {
    definitions = new Definitions((text, use) => checkOne(text, scope, use));
    known.set(scope, definitions);
  }
  return definitions;
}

/**
 * Parses a formula and checks names, types and levels. Reports every problem with its place; `expr` is
 * null when there is any. `table` is the formula's own table (null when it has none). A derived column is a
 * row-level formula without inputs. `self` is the measure, or the derived column as `table.column`, that the
 * formula is of: what uses it again is a circle. Every measure of a scope is checked once, in time that grows
 * with what is written.
 */
export function checkFormula(
  formula: string,
  scope: Scope,
  table: string | null,
  level: Level | "derived" = "group",
  self?: string,
): Checked {
  if (level === "row" || self === undefined) return definitionsOf(scope).checkText({ formula, table, level });
  const definition: Definition =
    level === "derived"
      ? { level, name: self.slice((table ?? "").length + 1), table: table ?? "", formula }
      : { level, name: self, table, formula };
  return definitionsOf(scope).check(definition, declared(scope, definition)?.formula === formula);
}

/** What the scope itself says of a definition. */
function declared(scope: Scope, { level, name, table }: Definition): { formula?: string } | undefined {
  if (level !== "group") return findNamed(tableNamed(scope, table ?? "")?.columns ?? [], name);
  const measure = measureNamed(scope, name);
  return measure && (measure.table ?? null) === table ? measure : undefined;
}

/** The type of a derived column by its formula; "null" while that has a problem. */
export function derivedType(formula: string, scope: Scope, table: string, column: string): ValueType {
  const checked = checkFormula(formula, scope, table, "derived", `${table}.${column}`);
  return checked.expr ? checked.type : "null";
}
