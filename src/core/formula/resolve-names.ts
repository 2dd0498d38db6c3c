import { listed } from "../base/listed";
import { findNamed, sameName } from "../base/names";
import { nearestName } from "../base/nearest";
import type { Span } from "../base/problem";
import type { ValueType } from "../base/value";
import type { Checking } from "./checking";
import type { Use, Used } from "./definitions";
import type { BoundName, Expr, Level, Scope, ScopeColumn, ScopeTable } from "./expr";
import { circleOf, pathsBetween, pathText, reachedFrom } from "./links";
import { quoteName } from "./quote-name";
import { measureNamed, tableNamed } from "./scope-names";
import type { Node } from "./tree";

const SHOWN_OF_CIRCLE = 12;

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

/** What a formula's names are looked up in. */
export interface NameContext {
  scope: Scope;
  /** Whether this is the formula of a derived column. */
  derived: boolean;
  /** What a measure or derived column is that the formula uses. */
  use: Use;
  /** The name of the measure that the formula is of, or null. */
  self: string | null;
}

/** Finds what the names of a formula mean, and keeps what they are. */
export class NameResolver {
  readonly columns = new Map<string, { table: string; column: string }>();
  readonly measures = new Set<string>();
  readonly inputs = new Set<string>();
  readonly names: BoundName[] = [];
  private readonly scope: Scope;
  private readonly derived: boolean;
  private readonly use: Use;
  private readonly self: string | null;

  constructor(
    private readonly check: Checking,
    { scope, derived, use, self }: NameContext,
  ) {
    this.scope = scope;
    this.derived = derived;
    this.use = use;
    this.self = self;
  }

  input(node: Node & { kind: "input" }): Expr {
    if (this.derived)
      return this.check.fail(
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
    return this.check.fail("name", node, `There is no input called “${node.name}”. ${advice}`, mends);
  }

  /**
   * A bare name is a column of the formula's own table, else one reached through links, else a measure. At
   * group level, where a column has many values, it is a measure first, other than the formula's own.
   */
  name(node: Node & { kind: "name" }, level: Level): Expr {
    if (node.parts.length > 2)
      return this.check.fail("name", node, "A name has at most two parts: table.column.");
    if (node.parts.length === 2) return this.qualified(node, level);
    const name = node.parts[0];
    const measure = measureNamed(this.scope, name);
    if (measure && level === "group" && !(this.self !== null && sameName(this.self, name)))
      return this.measure(node, measure, level);
    const columnOf = (table: ScopeTable | undefined) => findNamed(table?.columns ?? [], name);
    const own = this.check.table && columnOf(this.check.table);
    if (own && this.check.table) return this.column(node, this.check.table, own, level);
    const reached = this.check.table
      ? reachedFrom(this.scope.links ?? [], this.check.table.name).map((r) => tableNamed(this.scope, r))
      : [];
    const having = reached.filter((t): t is ScopeTable => columnOf(t) !== undefined);
    if (having.length > 1) {
      const written = having.map((t) => `${quoteName(t.name)}.${quoteName(name)}`);
      const mends = written.map((text) => ({ start: node.start, end: node.end, label: `Use ${text}`, text }));
      return this.check.fail(
        "name",
        node,
        `“${name}” could be ${listed(written, 4, "or")}. Write the table before it.`,
        mends,
      );
    }
    if (having.length === 1) return this.column(node, having[0], columnOf(having[0]) as ScopeColumn, level);
    if (measure) return this.measure(node, measure, level);
    const known = [
      ...(this.check.table?.columns.map((c) => c.name) ?? []),
      ...this.scope.measures.map((m) => m.name),
      ...reached.flatMap((t) => t?.columns.map((c) => c.name) ?? []),
    ];
    const what = this.check.table ? `column of ${this.check.table.name} and no measure` : "column or measure";
    return this.unknown(node, name, what, known);
  }

  /** The measure that a bare name means to rows: none where they have, or reach, a column of that name. */
  measureOnly(node: Node & { kind: "name" }): string | null {
    const [name] = node.parts;
    const measure = node.parts.length === 1 ? measureNamed(this.scope, name) : undefined;
    const tables = this.check.table
      ? [this.check.table.name, ...reachedFrom(this.scope.links ?? [], this.check.table.name)]
      : [];
    const isColumn = tables.some((t) => findNamed(tableNamed(this.scope, t)?.columns ?? [], name));
    return measure && !isColumn ? measure.name : null;
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
    if (this.check.written(span) === `"${name}"`) {
      // Double quotes hold a name; a text stands in single ones.
      const text = `'${name.replaceAll("'", "''")}'`;
      const message = `There is no ${what} called “${name}”. A text stands in single quotes: ${text}.`;
      return this.check.fail("name", span, message, [
        { start, end, label: `Use the text ${text}`, text },
        ...mends,
      ]);
    }
    const advice = near
      ? ` Did you mean ${near}?`
      : known.length
        ? ` There are ${known.slice(0, 6).join(", ")}${known.length > 6 ? " and more" : ""}.`
        : "";
    return this.check.fail("name", span, `There is no ${what} called “${name}”.${advice}`, mends);
  }

  /** Reports unless links lead to the table in exactly one way. */
  private reaches(node: Span, table: ScopeTable, column: string): boolean {
    if (table === this.check.table || !this.check.table) return true;
    const links = this.scope.links ?? [];
    const circle = circleOf(links);
    const paths = pathsBetween(links, this.check.table.name, table.name);
    if (circle)
      this.check.fail(
        "circle",
        node,
        `These tables are linked in a circle: ${circle.join(" → ")}. Remove one of the links on the Data step.`,
      );
    else if (paths.length === 0)
      this.check.fail(
        "name",
        node,
        `No link leads from ${this.check.table.name} to ${table.name}, so ${table.name}.${column} has no value for its rows. Link the two tables on the Data step.`,
      );
    else if (paths.length > 1)
      this.check.fail(
        "name",
        node,
        `There is more than one way from ${this.check.table.name} to ${table.name}: ${paths.map(pathText).join("; or ")}. Remove one of the links on the Data step.`,
      );
    return !circle && paths.length === 1;
  }

  private column(node: Span, table: ScopeTable, column: ScopeColumn, level: Level): Expr {
    if (!this.check.table)
      return this.check.fail(
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
      const written = this.check.written(node);
      const mends = (type === "number" ? ["sum", "avg"] : [aggregate]).map((a) =>
        this.check.wrapMend(node, `${a}(`, ")", `Wrap it: ${a}(${written})`),
      );
      return this.check.fail(
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
      return this.check.fail(
        "level",
        node,
        this.derived
          ? `${measure.name} is a measure, which has one value for each group of rows; a derived column is computed for each row alone.`
          : `${measure.name} is a measure, which has one value for each group; inside an aggregate or a filter each row is looked at alone. Put measures together outside of aggregates.`,
      );
    const used = this.use({ level: "group", ...measure });
    const checked = this.sound(node, used, `The measure ${measure.name}`);
    return checked?.node ?? { op: "constant", type: "null", value: null };
  }

  /**
   * What a used definition was checked to be, where it is sound; else null, and what is wrong with
   * it is reported.
   */
  private sound(node: Span, used: Used | { circle: string[] } | null, what: string): Used | null {
    // Not known yet: this check is only for finding what it uses, and is done again.
    if (used === null) return null;
    if ("circle" in used) {
      this.check.fail("circle", node, circleText(used.circle));
      return null;
    }
    if (!used.checked.expr) {
      const circle = used.checked.problems.find((p) => p.code === "circle");
      if (circle) this.check.fail("circle", node, circle.message);
      else this.check.fail("name", node, `${what} has a problem of its own. Mend it first.`);
      return null;
    }
    return used;
  }
}
