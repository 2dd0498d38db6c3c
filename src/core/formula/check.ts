import { AGGREGATES } from "./aggregates";
import { DATE_BUCKETS, type DateBucket } from "./calendar";
import { type Checked, type Expr, type Level, type Scope, type ScopeTable, tableOf } from "./expr";
import { nearestName } from "./nearest";
import { parseFormula } from "./parse";
import type { Mend, Problem, Span } from "./problem";
import { DAY_FIELDS, OPERATOR_OF_FUNCTION, SCALAR_ALIASES, SCALAR_ENTRIES, sharedType, TIME_FIELDS } from "./scalars";
import type { Node } from "./tree";
import type { ValueType } from "./value";

const TYPE_WORDS: Record<ValueType, string> = { number: "a number", text: "a text", boolean: "true or false", date: "a date", timestamp: "a timestamp", null: "null" };
const MAX_TREE_DEPTH = 1500;
const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
const calls = new Map(SCALAR_ENTRIES.map((e) => [e.name, e]));
const aggregates = new Map(AGGREGATES.map((a) => [a.name, a]));
const isBare = (name: string) => /^[\p{L}_][\p{L}\p{M}\p{N}_$]*$/u.test(name);

/** A name as a formula writes it: bare where it can be, else in double quotes. */
export function quoteName(name: string): string {
  return isBare(name) ? name : `"${name.replaceAll('"', '""')}"`;
}

const parsed = new Map<string, ReturnType<typeof parseFormula>>();
function parseOnce(formula: string) {
  let result = parsed.get(formula);
  if (!result) {
    if (parsed.size > 500) parsed.clear();
    result = parseFormula(formula);
    parsed.set(formula, result);
  }
  return result;
}

class Checker {
  readonly problems: Problem[] = [];
  readonly columns = new Map<string, { table: string; column: string }>();
  readonly measures = new Set<string>();
  readonly inputs = new Set<string>();
  private depth = 0;

  constructor(
    private readonly scope: Scope,
    private readonly table: ScopeTable | null,
    /** The measures on the way to this formula, for finding circles. */
    private readonly path: string[],
    private readonly source: string,
  ) {}

  private fail(code: Problem["code"], span: Span, message: string, mends?: Mend[]): Expr {
    this.problems.push({ code, start: span.start, end: span.end, message, ...(mends?.length ? { mends } : {}) });
    return { op: "constant", type: "null", value: null };
  }

  expr(node: Node, level: Level, inTotal = false): Expr {
    if (this.depth > MAX_TREE_DEPTH) return this.fail("limit", node, "The formula has too many terms. Move a part of it into a measure of its own.");
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
        if (node.op === "not") return this.typed(node.arg, arg, "boolean", "“not”") && this.call("not", "boolean", [arg]);
        this.typed(node.arg, arg, "number", `“${node.op}”`);
        return node.op === "+" ? arg : this.call("negate", "number", [arg]);
      }
      case "binary":
        return this.binary(node, sub(node.left), sub(node.right));
      case "between": {
        const [arg, low, high] = [sub(node.arg), sub(node.low), sub(node.high)];
        const inside = this.call("and", "boolean", [this.compare(node, ">=", arg, low), this.compare(node, "<=", arg, high)]);
        return node.negated ? this.call("not", "boolean", [inside]) : inside;
      }
      case "in": {
        const arg = sub(node.arg);
        const any = this.call(
          "or",
          "boolean",
          node.list.map((item) => this.compare(item, "=", arg, sub(item))),
        );
        return node.negated ? this.call("not", "boolean", [any]) : any;
      }
      case "like": {
        const parts = [node.arg, node.pattern, ...(node.escape ? [node.escape] : [])];
        const args = parts.map((part) => {
          const e = sub(part);
          this.typed(part, e, "text", "“like”");
          return e;
        });
        const match = this.call("like", "boolean", args);
        return node.negated ? this.call("not", "boolean", [match]) : match;
      }
      case "isNull": {
        const test = this.call("is_null", "boolean", [sub(node.arg)]);
        return node.negated ? this.call("not", "boolean", [test]) : test;
      }
      case "isDistinct": {
        const test = this.compare(node, "is_distinct", sub(node.left), sub(node.right));
        return node.negated ? this.call("not", "boolean", [test]) : test;
      }
      case "case":
        return this.caseExpr(node, sub);
      case "cast":
        return this.cast(node, sub(node.arg), node.to);
      case "extract":
        return this.extract(node, sub(node.arg));
      case "call":
        return this.function(node, level, inTotal);
    }
  }

  private call(fn: string, type: ValueType, args: Expr[]): Expr {
    return { op: "call", type, fn, args };
  }

  /** Reports unless the expression has this type (or is null). Gives true so that it chains. */
  private typed(span: Span, expr: Expr, wanted: ValueType, what: string): true {
    if (expr.type !== wanted && expr.type !== "null") {
      const mends: Mend[] = wanted === "number" && expr.type === "text" ? [this.wrapMend(span, "cast(", " as number)", "Read the text as a number")] : [];
      this.fail("type", span, `${what} needs ${TYPE_WORDS[wanted]} here, and this is ${TYPE_WORDS[expr.type]}.`, mends);
    }
    return true;
  }

  private wrapMend(span: Span, before: string, after: string, label: string): Mend {
    return { start: span.start, end: span.end, label, text: before + this.source.slice(span.start, span.end) + after };
  }

  private input(node: Node & { kind: "input" }): Expr {
    const input = this.scope.inputs.find((i) => same(i.name, node.name));
    if (input) {
      this.inputs.add(input.name);
      return { op: "input", type: input.type, name: input.name };
    }
    const near = nearestName(
      node.name,
      this.scope.inputs.map((i) => i.name),
    );
    const mends = near ? [{ start: node.start, end: node.end, label: `Use :${near}`, text: `:${near}` }] : [];
    const advice = near ? `Did you mean :${near}?` : this.scope.inputs.length ? `The inputs are ${this.scope.inputs.map((i) => `:${i.name}`).join(", ")}.` : "Add the input first.";
    return this.fail("name", node, `There is no input called “${node.name}”. ${advice}`, mends);
  }

  private name(node: Node & { kind: "name" }, level: Level): Expr {
    if (node.parts.length > 2) return this.fail("name", node, "A name has at most two parts: table.column.");
    if (node.parts.length === 2) {
      const table = this.scope.tables.find((t) => same(t.name, node.parts[0]));
      if (!table)
        return this.unknown(
          node,
          node.parts[0],
          "table",
          this.scope.tables.map((t) => t.name),
        );
      const column = table.columns.find((c) => same(c.name, node.parts[1]));
      if (!column)
        return this.unknown(
          node,
          node.parts[1],
          `column in ${table.name}`,
          table.columns.map((c) => `${table.name}.${c.name}`),
        );
      return this.column(node, table, column, level);
    }
    const name = node.parts[0];
    const column = this.table?.columns.find((c) => same(c.name, name));
    if (column && this.table) return this.column(node, this.table, column, level);
    const measure = this.scope.measures.find((m) => same(m.name, name));
    if (measure) return this.measure(node, measure, level);
    const known = [...(this.table?.columns.map((c) => c.name) ?? []), ...this.scope.measures.map((m) => m.name)];
    const what = this.table ? `column of ${this.table.name} and no measure` : "column or measure";
    return this.unknown(node, name, what, known);
  }

  private unknown(span: Span, name: string, what: string, known: string[]): Expr {
    const near = nearestName(name, known);
    const mends = near ? [{ start: span.start, end: span.end, label: `Use ${near}`, text: near.split(".").map(quoteName).join(".") }] : [];
    const advice = near ? ` Did you mean ${near}?` : known.length ? ` There are ${known.slice(0, 6).join(", ")}${known.length > 6 ? " and more" : ""}.` : "";
    return this.fail("name", span, `There is no ${what} called “${name}”.${advice}`, mends);
  }

  private column(node: Span, table: ScopeTable, column: ScopeTable["columns"][number], level: Level): Expr {
    if (table !== this.table) {
      return this.fail(
        "unavailable",
        node,
        `${table.name}.${column.name} is reached through a link, which is not available yet. Use a column of ${this.table?.name ?? "the measure's own table"}.`,
      );
    }
    this.columns.set(`${table.name}\n${column.name}`, { table: table.name, column: column.name });
    if (level === "group") {
      const aggregate = column.type === "number" ? "avg" : column.type === "boolean" ? "count" : "max";
      const written = this.source.slice(node.start, node.end);
      const mends = (column.type === "number" ? ["sum", "avg"] : [aggregate]).map((a) => this.wrapMend(node, `${a}(`, ")", `Wrap it: ${a}(${written})`));
      return this.fail("level", node, `${column.name} has one value per row here: wrap it, for example ${aggregate}(${written}).`, mends);
    }
    return { op: "column", type: column.type, table: table.name, column: column.name };
  }

  private measure(node: Span, measure: Scope["measures"][number], level: Level): Expr {
    if (level === "row") return this.fail("level", node, `${measure.name} is a measure: it has one value per group and cannot stand inside an aggregate or a filter.`);
    this.measures.add(measure.name);
    if (this.path.some((p) => same(p, measure.name))) {
      const from = this.path.findIndex((p) => same(p, measure.name));
      return this.fail("circle", node, `These measures use each other in a circle: ${[...this.path.slice(from), measure.name].join(" → ")}.`);
    }
    const checked = checkFormula(measure.formula, this.scope, measure.table, "group", [...this.path, measure.name]);
    if (!checked.expr) {
      const circle = checked.problems.find((p) => p.code === "circle");
      return circle ? this.fail("circle", node, circle.message) : this.fail("name", node, `The measure ${measure.name} has a problem of its own. Mend it first.`);
    }
    const other = tableOf(checked.expr);
    if (other && this.table && other !== this.table.name) {
      return this.fail("unavailable", node, `${measure.name} is computed over ${other}; a measure of ${this.table.name} that uses it needs links, which are not available yet.`);
    }
    return checked.expr;
  }

  private binary(node: Node & { kind: "binary" }, left: Expr, right: Expr): Expr {
    const { op } = node;
    if (op === "and" || op === "or") {
      this.typed(node.left, left, "boolean", `“${op}”`);
      this.typed(node.right, right, "boolean", `“${op}”`);
      return this.call(op, "boolean", [left, right]);
    }
    if (["=", "<>", "<", "<=", ">", ">="].includes(op)) return this.compare(node, op, left, right);
    if (op === "||") {
      this.typed(node.left, left, "text", "“||”");
      this.typed(node.right, right, "text", "“||”");
      return this.call("||", "text", [left, right]);
    }
    const pair = `${left.type} ${op} ${right.type}`;
    switch (pair) {
      case "date - date":
        return this.call("-", "number", [left, right]);
      case "date + number":
      case "date - number":
      case "number + date":
        return this.call(op, "date", [left, right]);
      case "timestamp - timestamp":
        return this.call("days_between", "number", [left, right]);
      case "timestamp + number":
        return this.call("timestamp_plus_days", "timestamp", [left, right]);
      case "number + timestamp":
        return this.call("timestamp_plus_days", "timestamp", [right, left]);
      case "timestamp - number":
        return this.call("timestamp_minus_days", "timestamp", [left, right]);
    }
    this.typed(node.left, left, "number", `“${op}”`);
    this.typed(node.right, right, "number", `“${op}”`);
    return this.call(op, "number", [left, right]);
  }

  private compare(span: Span, fn: string, left: Expr, right: Expr): Expr {
    if (left.type === "date" && right.type === "timestamp") return this.call(fn, "boolean", [this.call("at_midnight", "timestamp", [left]), right]);
    if (left.type === "timestamp" && right.type === "date") return this.call(fn, "boolean", [left, this.call("at_midnight", "timestamp", [right])]);
    if (sharedType([left.type, right.type]) === null) {
      const hint = [left.type, right.type].includes("date") && [left.type, right.type].includes("text") ? " Write a date as date '2026-05-01'." : "";
      return this.fail("type", span, `This compares ${TYPE_WORDS[left.type]} with ${TYPE_WORDS[right.type]}.${hint}`);
    }
    return this.call(fn, "boolean", [left, right]);
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
    if (type === null) return this.fail("type", node, `The results of this “case” are of different types: ${[...new Set(results.map((r) => TYPE_WORDS[r.type]))].join(" and ")}.`);
    return this.call("case", type, args);
  }

  private cast(node: Span, arg: Expr, to: ValueType): Expr {
    const from = arg.type;
    if (from === to || from === "null" || to === "null") return { ...arg, type: to } as Expr;
    if (to === "text") return this.call(`text_from_${from}`, "text", [arg]);
    if (to === "number" && (from === "text" || from === "boolean")) return this.call("number_from", "number", [arg]);
    if (to === "boolean" && (from === "text" || from === "number")) return this.call(`boolean_from_${from}`, "boolean", [arg]);
    if (to === "date" && from === "timestamp") return this.call("day_of_timestamp", "date", [arg]);
    if (to === "timestamp" && from === "date") return this.call("at_midnight", "timestamp", [arg]);
    if ((to === "date" || to === "timestamp") && from === "text") return this.call(`${to}_from_text`, to, [arg]);
    return this.fail("type", node, `${TYPE_WORDS[from]} cannot become ${TYPE_WORDS[to]}.`);
  }

  private extract(node: Node & { kind: "extract" }, arg: Expr): Expr {
    const { field, fieldSpan } = node;
    const isDay = (DAY_FIELDS as readonly string[]).includes(field);
    if (!isDay && !Object.hasOwn(TIME_FIELDS, field)) {
      const fields = [...DAY_FIELDS, ...Object.keys(TIME_FIELDS)];
      const near = nearestName(field, fields);
      const mends = near ? [{ ...fieldSpan, label: `Use ${near}`, text: near }] : [];
      return this.fail("name", fieldSpan, `“${field}” is no part of a date. The parts are ${fields.join(", ")}.`, mends);
    }
    if (arg.type !== "date" && arg.type !== "timestamp" && arg.type !== "null")
      return this.fail("type", node.arg, `“extract” needs a date or a timestamp here, and this is ${TYPE_WORDS[arg.type]}.`);
    if (!isDay && arg.type === "date") return this.fail("type", node.arg, `A date has no ${field}; a timestamp has.`);
    const day = isDay && arg.type === "timestamp" ? this.call("day_of_timestamp", "date", [arg]) : arg;
    return this.call(`extract_${field}`, "number", [day]);
  }

  private function(node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
    const name = Object.hasOwn(SCALAR_ALIASES, node.name) ? SCALAR_ALIASES[node.name] : node.name;
    if (name === "total") return this.total(node, level, inTotal);
    if (aggregates.has(name)) return this.aggregate(node, level);
    if (name === "date_trunc") return this.dateTrunc(node, level, inTotal);
    if (name === "current_date" && node.args.length === 0) return { op: "today", type: "date" };
    const entry = calls.get(name);
    if (!entry) {
      const near = nearestName(node.name, ["total", "extract", "current_date", ...calls.keys(), ...aggregates.keys(), "date_trunc"]);
      const mends = near ? [{ ...node.nameSpan, label: `Use ${near}`, text: near }] : [];
      for (const arg of node.args) this.expr(arg, "row");
      return this.fail("name", node.nameSpan, `There is no function called “${node.name}”.${near ? ` Did you mean ${near}?` : ""}`, mends);
    }
    if (node.filter || node.distinct || node.star || node.orderBy)
      return this.fail("syntax", node, `${name} works on one value at a time: distinct, *, within group and filter belong to aggregates such as sum.`);
    const args = node.args.map((arg) => this.expr(arg, level, inTotal));
    const [least, most] = entry.arity;
    if (args.length < least || args.length > most)
      return this.fail("type", node, `${name} takes ${least === most ? least : `${least} to ${most}`} ${most === 1 ? "value" : "values"}: ${entry.signature}.`);
    const type = entry.type(args.map((a) => a.type));
    if (type === null) return this.fail("type", node, `${name} takes ${entry.takes}, and here it gets ${args.map((a) => TYPE_WORDS[a.type]).join(" and ")}.`);
    return this.call(OPERATOR_OF_FUNCTION[name] ?? name, type, args);
  }

  private total(node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
    if (level === "row") return this.fail("level", node.nameSpan, "total() works on aggregates and cannot stand inside one.");
    if (inTotal) return this.fail("level", node.nameSpan, "total() inside total() changes nothing. Remove the inner one.");
    if (node.args.length !== 1 || node.filter || node.distinct || node.star) return this.fail("type", node, "total takes one aggregate: total(sum(x)).");
    const arg = this.expr(node.args[0], "group", true);
    return { op: "total", type: arg.type, arg };
  }

  private dateTrunc(node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
    const [unit, when] = node.args;
    if (node.args.length !== 2) return this.fail("type", node, "date_trunc takes a unit and a date: date_trunc('month', d).");
    const arg = this.expr(when, level, inTotal);
    const word = unit.kind === "literal" && typeof unit.value === "string" ? unit.value.toLowerCase() : "";
    const isDay = (DATE_BUCKETS as readonly string[]).includes(word);
    if (!isDay && word !== "hour" && word !== "minute") {
      const near = nearestName(word, [...DATE_BUCKETS, "hour", "minute"]);
      return this.fail(
        "name",
        unit,
        `The unit of date_trunc is one of ${DATE_BUCKETS.map((b) => `'${b}'`).join(", ")}, 'hour' and 'minute'.`,
        near ? [{ start: unit.start, end: unit.end, label: `Use '${near}'`, text: `'${near}'` }] : [],
      );
    }
    if (arg.type !== "date" && arg.type !== "timestamp" && arg.type !== "null")
      return this.fail("type", when, `date_trunc needs a date or a timestamp here, and this is ${TYPE_WORDS[arg.type]}.`);
    if (arg.type === "timestamp")
      return isDay
        ? this.call("at_midnight", "timestamp", [this.call(`trunc_to_${word as DateBucket}`, "date", [this.call("day_of_timestamp", "date", [arg])])])
        : this.call(`trunc_to_${word}`, "timestamp", [arg]);
    return isDay ? this.call(`trunc_to_${word}`, "date", [arg]) : this.fail("type", when, `A date has no ${word}; a timestamp has.`);
  }

  private aggregate(node: Node & { kind: "call" }, level: Level): Expr {
    const { name } = node;
    const entry = aggregates.get(name);
    if (!entry) throw new Error(`no aggregate ${name}`);
    if (level === "row") return this.fail("level", node.nameSpan, `${name} is an aggregate and cannot stand inside another aggregate or a filter. Make it a measure of its own.`);
    if (!this.table) return this.fail("name", node.nameSpan, `${name} needs rows. Choose the measure's table first.`);
    if (node.orderBy && !entry.ordered) return this.fail("syntax", node, `${name} takes no “within group”.`);
    if (node.star && (name !== "count" || node.distinct)) return this.fail("type", node, `Only count takes *: write ${name}(a column).`);
    const wanted = entry.keyed ? 2 : 1;
    if (!node.star && (node.args.length !== wanted || (entry.ordered && !node.orderBy))) return this.fail("type", node, `Write ${entry.signature}.`);
    if (node.distinct && (entry.keyed || entry.ordered)) return this.fail("syntax", node, `${name} takes no distinct.`);
    const argNode = entry.ordered ? node.orderBy : node.args[0];
    const arg = node.star || !argNode ? null : this.expr(argNode, "row");
    const type = arg ? entry.type(arg.type) : "number";
    if (type === null && arg && argNode) {
      const mends = arg.type === "text" && entry.type("number") ? [this.wrapMend(argNode, "cast(", " as number)", "Read the text as a number")] : [];
      return this.fail("type", argNode, `${name} takes ${entry.takes}, and this is ${TYPE_WORDS[arg.type]}.`, mends);
    }
    const fraction = entry.ordered ? this.fraction(node.args[0]) : null;
    const by = entry.keyed ? this.expr(node.args[1], "row") : null;
    const filter = node.filter ? this.expr(node.filter, "row") : null;
    if (node.filter && filter) this.typed(node.filter, filter, "boolean", "“where”");
    // The smallest, the largest, and whether all or any are true do not depend on how often a value stands.
    const distinct = node.distinct && !["min", "max", "bool_and", "bool_or"].includes(name);
    return { op: "aggregate", type: type ?? "number", fn: name, table: this.table.name, arg, by, fraction, distinct, filter };
  }

  /** The share in percentile_cont: a number from 0 to 1, or an input. */
  private fraction(node: Node): Expr {
    const expr = this.expr(node, "row");
    const isNumber = expr.op === "constant" && typeof expr.value === "number" && expr.value >= 0 && expr.value <= 1;
    if (isNumber || (expr.op === "input" && expr.type === "number")) return expr;
    return this.fail("type", node, "The share is a number from 0 to 1, for example 0.9, or an input.");
  }
}

/**
 * Parses a formula and checks names, types and levels. Reports every problem with its place; `expr` is
 * null when there is any. `table` is the measure's own table (null when it has none).
 */
export function checkFormula(formula: string, scope: Scope, table: string | null, level: Level = "group", path: string[] = []): Checked {
  const { node, problems } = parseOnce(formula);
  const own = table === null ? null : (scope.tables.find((t) => same(t.name, table)) ?? null);
  const checker = new Checker(scope, own, path, formula);
  if (table !== null && !own)
    checker.problems.push({ code: "name", start: 0, end: formula.length, message: `There is no table called “${table}”. Choose another table for this measure.` });
  const expr = checker.expr(node, level);
  const found = [...problems, ...checker.problems].sort((a, b) => a.start - b.start);
  return {
    expr: found.length ? null : expr,
    type: expr.type,
    problems: found,
    uses: { columns: [...checker.columns.values()], measures: [...checker.measures], inputs: [...checker.inputs] },
  };
}
