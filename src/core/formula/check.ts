import { findNamed, sameName } from "../base/names";
import { nearestName } from "../base/nearest";
import type { Mend, Problem, Span } from "../base/problem";
import type { ValueType } from "../base/value";
import { callExpr, extractExpr } from "./check-call";
import { type Checking, call, TYPE_WORDS } from "./checking";
import { type Definition, Definitions, type FormulaText, type Use, type Used } from "./definitions";
import type { BoundName, Checked, Expr, Level, Scope, ScopeColumn, ScopeTable } from "./expr";
import { type ScalarName, sharedType } from "./functions";
import { circleOf, pathsBetween, pathText, reachedFrom } from "./links";
import { parseFormula } from "./parse";
import { measureNamed, tableNamed } from "./scope-names";
import type { Node } from "./tree";

const MAX_TREE_DEPTH = 1500;
const SHOWN_OF_CIRCLE = 12;

const isBare = (name: string) => /^[\p{L}_][\p{L}\p{M}\p{N}_$]*$/u.test(name);

/** A name as a formula writes it: bare where it can be, else in double quotes. */
export function quoteName(name: string): string {
  return isBare(name) ? name : `"${name.replaceAll('"', '""')}"`;
}

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

class Checker implements Checking {
  readonly problems: Problem[] = [];
  readonly columns = new Map<string, { table: string; column: string }>();
  readonly measures = new Set<string>();
  readonly inputs = new Set<string>();
  readonly names: BoundName[] = [];
  private depth = 0;

  constructor(
    private readonly scope: Scope,
    readonly table: ScopeTable | null,
    private readonly source: string,
    /** Whether this is the formula of a derived column. */
    private readonly derived: boolean,
    /** What a measure or derived column is that the formula uses. */
    private readonly use: Use,
    /** The name of the measure that the formula is of, or null. */
    private readonly self: string | null,
  ) {}

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
        return this.input(node);
      case "name":
        return this.name(node, level);
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

  private input(node: Node & { kind: "input" }): Expr {
    if (this.derived)
      return this.fail(
        "level",
        node,
        `A derived column is computed once for each row, so it cannot use the input :${node.name}. Use the input in a measure.`,
      );
    const input = this.scope.inputs.find((i) => sameName(i.name, node.name));
    if (input) {
      this.inputs.add(input.name);
      return { op: "input", type: input.type, name: input.name };
    }
    const near = nearestName(
      node.name,
      this.scope.inputs.map((i) => i.name),
    );
    const mends = near ? [{ start: node.start, end: node.end, label: `Use :${near}`, text: `:${near}` }] : [];
    const advice = near
      ? `Did you mean :${near}?`
      : this.scope.inputs.length
        ? `The inputs are ${this.scope.inputs.map((i) => `:${i.name}`).join(", ")}.`
        : "Add the input first.";
    return this.fail("name", node, `There is no input called “${node.name}”. ${advice}`, mends);
  }

  /**
   * A bare name is a column of the formula's own table, else one reached through links, else a measure. At
   * group level, where a column has many values, it is a measure first, other than the formula's own.
   */
  private name(node: Node & { kind: "name" }, level: Level): Expr {
    if (node.parts.length > 2) return this.fail("name", node, "A name has at most two parts: table.column.");
    if (node.parts.length === 2) return this.qualified(node, level);
    const name = node.parts[0];
    const measure = measureNamed(this.scope, name);
    if (measure && level === "group" && !(this.self !== null && sameName(this.self, name)))
      return this.measure(node, measure, level);
    const columnOf = (table: ScopeTable | undefined) => findNamed(table?.columns ?? [], name);
    const own = this.table && columnOf(this.table);
    if (own && this.table) return this.column(node, this.table, own, level);
    const reached = this.table
      ? reachedFrom(this.scope.links ?? [], this.table.name).map((r) => tableNamed(this.scope, r))
      : [];
    const having = reached.filter((t): t is ScopeTable => columnOf(t) !== undefined);
    if (having.length > 1) {
      const written = having.map((t) => `${quoteName(t.name)}.${quoteName(name)}`);
      const mends = written.map((text) => ({ start: node.start, end: node.end, label: `Use ${text}`, text }));
      return this.fail(
        "name",
        node,
        `“${name}” could be ${written.join(" or ")}. Write the table before it.`,
        mends,
      );
    }
    if (having.length === 1) return this.column(node, having[0], columnOf(having[0]) as ScopeColumn, level);
    if (measure) return this.measure(node, measure, level);
    const known = [
      ...(this.table?.columns.map((c) => c.name) ?? []),
      ...this.scope.measures.map((m) => m.name),
      ...reached.flatMap((t) => t?.columns.map((c) => c.name) ?? []),
    ];
    const what = this.table ? `column of ${this.table.name} and no measure` : "column or measure";
    return this.unknown(node, name, what, known);
  }

  private qualified(node: Node & { kind: "name" }, level: Level): Expr {
    const { tables } = this.scope;
    const table = tables.find((t) => sameName(t.name, node.parts[0]));
    if (!table)
      return this.unknown(
        node,
        node.parts[0],
        "table",
        tables.map((t) => t.name),
      );
    const column = table.columns.find((c) => sameName(c.name, node.parts[1]));
    if (column) return this.column(node, table, column, level);
    return this.unknown(
      node,
      node.parts[1],
      `column in ${table.name}`,
      table.columns.map((c) => `${table.name}.${c.name}`),
    );
  }

  private unknown(span: Span, name: string, what: string, known: string[]): Expr {
    const { start, end } = span;
    const near = nearestName(name, known);
    const mends = near
      ? [{ start, end, label: `Use ${near}`, text: near.split(".").map(quoteName).join(".") }]
      : [];
    if (this.written(span) === `"${name}"`) {
      // Double quotes hold a name; a text stands in single ones.
      const text = `'${name.replaceAll("'", "''")}'`;
      const message = `There is no ${what} called “${name}”. A text stands in single quotes: ${text}.`;
      return this.fail("name", span, message, [
        { start, end, label: `Use the text ${text}`, text },
        ...mends,
      ]);
    }
    const advice = near
      ? ` Did you mean ${near}?`
      : known.length
        ? ` There are ${known.slice(0, 6).join(", ")}${known.length > 6 ? " and more" : ""}.`
        : "";
    return this.fail("name", span, `There is no ${what} called “${name}”.${advice}`, mends);
  }

  /** Reports unless links lead to the table in exactly one way. */
  private reaches(node: Span, table: ScopeTable, column: string): boolean {
    if (table === this.table || !this.table) return true;
    const links = this.scope.links ?? [];
    const circle = circleOf(links);
    const paths = pathsBetween(links, this.table.name, table.name);
    if (circle)
      this.fail(
        "circle",
        node,
        `These tables are linked in a circle: ${circle.join(" → ")}. Remove one of the links on the Data step.`,
      );
    else if (paths.length === 0)
      this.fail(
        "name",
        node,
        `No link leads from ${this.table.name} to ${table.name}, so ${table.name}.${column} has no value for its rows. Link the two tables on the Data step.`,
      );
    else if (paths.length > 1)
      this.fail(
        "name",
        node,
        `There is more than one way from ${this.table.name} to ${table.name}: ${paths.map(pathText).join("; or ")}. Remove one of the links on the Data step.`,
      );
    return !circle && paths.length === 1;
  }

  private column(node: Span, table: ScopeTable, column: ScopeColumn, level: Level): Expr {
    if (!this.table)
      return this.fail(
        "name",
        node,
        `${table.name}.${column.name} needs rows. Choose the measure's table first.`,
      );
    if (!this.reaches(node, table, column.name)) return { op: "constant", type: "null", value: null };
    this.columns.set(`${table.name}\n${column.name}`, { table: table.name, column: column.name });
    this.names.push({ start: node.start, end: node.end, table: table.name, column: column.name });
    const type =
      column.formula === undefined ? column.type : this.derivedType(node, table, column, column.formula);
    if (type === null) return { op: "constant", type: "null", value: null };
    if (level === "group") {
      const aggregate = type === "number" ? "avg" : type === "boolean" ? "count" : "max";
      const written = this.source.slice(node.start, node.end);
      const mends = (type === "number" ? ["sum", "avg"] : [aggregate]).map((a) =>
        this.wrapMend(node, `${a}(`, ")", `Wrap it: ${a}(${written})`),
      );
      return this.fail(
        "level",
        node,
        `${column.name} has one value per row here: wrap it, for example ${aggregate}(${written}).`,
        mends,
      );
    }
    return { op: "column", type, table: table.name, column: column.name };
  }

  /** The type of a derived column, by its own formula; null when that has a problem, which is reported. */
  private derivedType(node: Span, table: ScopeTable, column: ScopeColumn, formula: string): ValueType | null {
    const used = this.use({ level: "derived", name: column.name, table: table.name, formula });
    const checked = this.sound(node, used, `The derived column ${table.name}.${column.name}`);
    return checked?.type ?? null;
  }

  private measure(node: Span, measure: Scope["measures"][number], level: Level): Expr {
    this.measures.add(measure.name);
    this.names.push({ start: node.start, end: node.end, measure: measure.name });
    if (level === "row")
      return this.fail(
        "level",
        node,
        `${measure.name} is a measure: it has one value per group and cannot stand ${this.derived ? "in a derived column" : "inside an aggregate or a filter"}.`,
      );
    const used = this.use({ level: "group", ...measure });
    const checked = this.sound(node, used, `The measure ${measure.name}`);
    return checked?.node ?? { op: "constant", type: "null", value: null };
  }

  /**
   * What a used definition was checked to be, where it is sound; else null, and what is wrong with it is
   * reported.
   */
  private sound(node: Span, used: Used | { circle: string[] } | null, what: string): Used | null {
    // Not known yet: this check is only for finding what it uses, and is done again.
    if (used === null) return null;
    if ("circle" in used) {
      this.fail("circle", node, circleText(used.circle));
      return null;
    }
    if (!used.checked.expr) {
      const circle = used.checked.problems.find((p) => p.code === "circle");
      if (circle) this.fail("circle", node, circle.message);
      else this.fail("name", node, `${what} has a problem of its own. Mend it first.`);
      return null;
    }
    return used;
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
      case "date - number":
      case "number + date":
        return call(op, "date", [left, right]);
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

/** The tables or measures of a circle, shown whole while it is short. */
function circleText(circle: string[]): string {
  const what = circle[0].includes(".") ? "derived columns" : "measures";
  const shown =
    circle.length <= SHOWN_OF_CIRCLE
      ? circle
      : [
          ...circle.slice(0, SHOWN_OF_CIRCLE - 3),
          `${circle.length - SHOWN_OF_CIRCLE + 1} more`,
          ...circle.slice(-2),
        ];
  return `These ${what} use each other in a circle: ${shown.join(" → ")}.`;
}

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
  const checker = new Checker(scope, own, formula, level === "derived", use, self);
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
  const found = [...written, ...checker.problems].sort((a, b) => a.start - b.start);
  return {
    expr: found.length ? null : expr,
    type: expr.type,
    problems: found,
    uses: {
      columns: [...checker.columns.values()],
      measures: [...checker.measures],
      inputs: [...checker.inputs],
    },
    names: checker.names.sort((a, b) => a.start - b.start),
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
