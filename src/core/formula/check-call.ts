import { DATE_BUCKETS } from "../base/calendar";
import { nearestName } from "../base/nearest";
import { AGGREGATES, type AggregateName, aggregateEntry, isAggregate } from "./aggregates";
import { type Checking, call, TYPE_WORDS } from "./checking";
import type { Expr, Level } from "./expr";
import { insteadOfFunction } from "./foreign-words";
import {
  DAY_FIELDS,
  FUNCTIONS,
  type FunctionEntry,
  functionNamed,
  isDateBucket,
  isDayField,
  isTimeField,
  isTimeUnit,
  TIME_FIELDS,
  TIME_UNITS,
} from "./functions";
import { habitOf } from "./habits";
import type { Node } from "./tree";

/** `extract(field from arg)`; `arg` is the checked source. */
export function extractExpr(c: Checking, node: Node & { kind: "extract" }, arg: Expr): Expr {
  const { field, fieldSpan } = node;
  const isDay = isDayField(field);
  if (!isDay && !isTimeField(field)) {
    const fields = [...DAY_FIELDS, ...TIME_FIELDS];
    const near = nearestName(field, fields);
    const mends = near ? [{ ...fieldSpan, label: `Use ${near}`, text: near }] : [];
    return c.fail(
      "name",
      fieldSpan,
      `“${field}” is no part of a date. The parts are ${fields.join(", ")}.`,
      mends,
    );
  }
  if (arg.type !== "date" && arg.type !== "timestamp" && arg.type !== "null")
    return c.fail(
      "type",
      node.arg,
      `“extract” needs a date or a timestamp here, and this is ${TYPE_WORDS[arg.type]}.`,
    );
  if (!isDay && arg.type === "date")
    return c.fail("type", node.arg, `A date has no ${field}; a timestamp has.`);
  const day = isDay && arg.type === "timestamp" ? call("day_of_timestamp", "date", [arg]) : arg;
  return call(`extract_${field}`, "number", [day]);
}

/** A call of a scalar function, an aggregate, total() or date_trunc(). */
export function callExpr(c: Checking, node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
  const { name } = node;
  if (name === "total") return total(c, node, level, inTotal);
  if (isAggregate(name)) return aggregate(c, node, name, level);
  if (name === "date_trunc") return dateTrunc(c, node, level, inTotal);
  if (name === "current_date" && node.args.length === 0) return { op: "today", type: "date" };
  const called = functionNamed(name);
  if (!called) {
    const isPlain = !node.star && !node.distinct && !node.filter && !node.orderBy;
    const habit = isPlain
      ? habitOf(
          name,
          node.args.map((arg) => c.written(arg)),
        )
      : null;
    if (habit !== null)
      return c.fail("name", node, `There is no function called “${node.name}”. Write ${habit}.`, [
        { start: node.start, end: node.end, label: `Write ${habit}`, text: habit },
      ]);
    const instead = insteadOfFunction(node.name);
    if (instead) return c.fail("foreign", node.nameSpan, instead);
    const near = nearestName(node.name, [
      ...["total", "extract", "current_date", "date_trunc"],
      ...Object.keys(FUNCTIONS),
      ...Object.keys(AGGREGATES),
    ]);
    const mends = near ? [{ ...node.nameSpan, label: `Use ${near}`, text: near }] : [];
    for (const arg of node.args) c.expr(arg, "row");
    return c.fail(
      "name",
      node.nameSpan,
      `There is no function called “${node.name}”.${near ? ` Did you mean ${near}?` : ""}`,
      mends,
    );
  }
  if (node.filter || node.distinct || node.star || node.orderBy)
    return c.fail(
      "syntax",
      node,
      `${name} works on one value at a time: distinct, *, within group and filter belong to aggregates such as sum.`,
    );
  const entry: FunctionEntry = FUNCTIONS[called];
  const args = node.args.map((arg) => c.expr(arg, level, inTotal));
  const [least, most] = entry.arity;
  if (args.length < least || args.length > most)
    return c.fail(
      "type",
      node,
      `${name} takes ${least === most ? least : `${least} to ${most}`} ${most === 1 ? "value" : "values"}: ${entry.signature}.`,
    );
  const type = entry.type(args.map((a) => a.type));
  if (type === null)
    return c.fail(
      "type",
      node,
      `${name} takes ${entry.takes}, and here it gets ${args.map((a) => TYPE_WORDS[a.type]).join(" and ")}.`,
    );
  return call(called, type, args);
}

function total(c: Checking, node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
  if (level === "row")
    return c.fail("level", node.nameSpan, "total() works on aggregates and cannot stand inside one.");
  if (inTotal)
    return c.fail("level", node.nameSpan, "total() inside total() changes nothing. Remove the inner one.");
  if (node.args.length !== 1 || node.filter || node.distinct || node.star)
    return c.fail("type", node, "total takes one aggregate: total(sum(x)).");
  const arg = c.expr(node.args[0], "group", true);
  return { op: "total", type: arg.type, arg };
}

function dateTrunc(c: Checking, node: Node & { kind: "call" }, level: Level, inTotal: boolean): Expr {
  const [unit, when] = node.args;
  if (node.args.length !== 2)
    return c.fail("type", node, "date_trunc takes a unit and a date: date_trunc('month', d).");
  const arg = c.expr(when, level, inTotal);
  const word = unit.kind === "literal" && typeof unit.value === "string" ? unit.value.toLowerCase() : "";
  if (!isDateBucket(word) && !isTimeUnit(word)) {
    const near = nearestName(word, [...DATE_BUCKETS, ...TIME_UNITS]);
    return c.fail(
      "name",
      unit,
      `The unit of date_trunc is one of ${DATE_BUCKETS.map((b) => `'${b}'`).join(", ")}, 'hour' and 'minute'.`,
      near ? [{ start: unit.start, end: unit.end, label: `Use '${near}'`, text: `'${near}'` }] : [],
    );
  }
  if (arg.type !== "date" && arg.type !== "timestamp" && arg.type !== "null")
    return c.fail(
      "type",
      when,
      `date_trunc needs a date or a timestamp here, and this is ${TYPE_WORDS[arg.type]}.`,
    );
  if (isTimeUnit(word))
    return arg.type === "date"
      ? c.fail("type", when, `A date has no ${word}; a timestamp has.`)
      : call(`trunc_to_${word}`, "timestamp", [arg]);
  if (arg.type !== "timestamp") return call(`trunc_to_${word}`, "date", [arg]);
  const day = call("day_of_timestamp", "date", [arg]);
  return call("at_midnight", "timestamp", [call(`trunc_to_${word}`, "date", [day])]);
}

/** What there is where somebody wants the largest of sums. */
const ONE_STEP =
  "A formula has no second step over groups: split a visual by them to see the value of each, and order it to see the largest.";

function aggregate(c: Checking, node: Node & { kind: "call" }, name: AggregateName, level: Level): Expr {
  const entry = aggregateEntry(name);
  if (level === "row")
    return c.fail(
      "level",
      node.nameSpan,
      c.isDerived
        ? `A derived column is computed for each row alone, and ${name} needs a group of rows. Write it in a measure.`
        : `Inside an aggregate or a filter each row is looked at alone, and ${name} needs a group of rows. ${ONE_STEP}`,
    );
  if (!c.table) return c.fail("name", node.nameSpan, `${name} needs rows. Choose the measure's table first.`);
  if (node.orderBy && !entry.ordered) return c.fail("syntax", node, `${name} takes no “within group”.`);
  if (node.star && (name !== "count" || node.distinct))
    return c.fail("type", node, `Only count takes *: write ${name}(a column).`);
  const wanted = entry.keyed ? 2 : 1;
  if (!node.star && (node.args.length !== wanted || (entry.ordered && !node.orderBy)))
    return c.fail("type", node, `Write ${entry.signature}.`);
  if (node.distinct && entry.distinct === "no") return c.fail("syntax", node, `${name} takes no distinct.`);
  const argNode = entry.ordered ? node.orderBy : node.args[0];
  const measure = argNode && !node.filter ? c.measureIn(argNode) : null;
  if (measure !== null && argNode) {
    const text = c.written(argNode);
    return c.fail(
      "level",
      node,
      `${measure} is a measure, which has one value for each group already, and ${name} looks at each row alone. ${ONE_STEP}`,
      [{ start: node.start, end: node.end, label: `Write ${text} alone`, text }],
    );
  }
  const arg = node.star || !argNode ? null : c.expr(argNode, "row");
  const type = arg ? entry.type(arg.type) : "number";
  if (type === null && arg && argNode) {
    const mends =
      arg.type === "text" && entry.type("number")
        ? [c.wrapMend(argNode, "cast(", " as number)", "Read the text as a number")]
        : [];
    return c.fail(
      "type",
      argNode,
      `${name} takes ${entry.takes}, and this is ${TYPE_WORDS[arg.type]}.`,
      mends,
    );
  }
  const fraction = entry.ordered ? fractionOf(c, node.args[0]) : null;
  const by = entry.keyed ? c.expr(node.args[1], "row") : null;
  const filter = node.filter ? c.expr(node.filter, "row") : null;
  if (node.filter && filter) c.typed(node.filter, filter, "boolean", "“where”");
  // Where it changes nothing, it is not asked of the engine.
  const distinct = node.distinct && entry.distinct === "yes";
  return {
    op: "aggregate",
    type: type ?? "number",
    fn: name,
    table: c.table.name,
    arg,
    by,
    fraction,
    distinct,
    filter,
  };
}

/** The share in percentile_cont: a number from 0 to 1, or an input. */
function fractionOf(c: Checking, node: Node): Expr {
  const expr = c.expr(node, "row");
  const isNumber =
    expr.op === "constant" && typeof expr.value === "number" && expr.value >= 0 && expr.value <= 1;
  if (isNumber || (expr.op === "input" && expr.type === "number")) return expr;
  return c.fail("type", node, "The share is a number from 0 to 1, for example 0.9, or an input.");
}
