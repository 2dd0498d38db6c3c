import type { ValueType } from "../base/value";
import type { Checked, Expr, Level, MeasureNode } from "./expr";

/** A formula with the table whose columns it sees. */
export interface FormulaText {
  level: Level | "derived";
  table: string | null;
  formula: string;
}

/** A measure, or a derived column of a table. */
export interface Definition extends FormulaText {
  level: "group" | "derived";
  name: string;
}

/** A definition that was checked, with the node that stands for a measure wherever it is used. */
export interface Used {
  checked: Checked;
  type: ValueType;
  node: MeasureNode | null;
}

/**
 * Gives what is known of a definition: what it was checked to be, the circle it is in, or null while it is
 * not known yet.
 */
export type Use = (definition: Definition) => Used | { circle: string[] } | null;

interface Open {
  definition: Definition;
  key: string;
}

const keyOf = ({ level, name, table }: Definition) =>
  (level === "group" ? `m\n${name}` : `c\n${table}\n${name}`).toLowerCase();
const labelOf = ({ level, name, table }: Definition) => (level === "group" ? name : `${table}.${name}`);

/**
 * The measures and derived columns of a scope as a graph: each is checked once, after all that it uses,
 * however often it is used. Depth first without recursion, so that a chain of any length is walked in time
 * that grows with its length; what is met again while it is open lies in a circle (R. E. Tarjan, Depth-First
 * Search and Linear Graph Algorithms, 1972).
 */
export class Definitions {
  private readonly done = new Map<string, Used>();

  constructor(private readonly checkOne: (text: FormulaText, use: Use) => Checked) {}

  /** Checks a text that is no definition of its own, and all that it uses. */
  checkText(text: FormulaText): Checked {
    for (;;) {
      const missing: Definition[] = [];
      const checked = this.checkOne(text, (d) => this.done.get(keyOf(d)) ?? notYet(missing, d));
      if (missing.length === 0) return checked;
      for (const definition of missing) this.settle(definition, this.done);
    }
  }

  /**
   * Checks a definition, and all that it uses. One that is not what the scope says (`isDeclared` false) is
   * checked in its place, with all that stands on it.
   */
  check(definition: Definition, isDeclared: boolean): Checked {
    const done = isDeclared ? this.done : new Map<string, Used>();
    this.settle(definition, done, isDeclared ? undefined : definition);
    return (done.get(keyOf(definition)) as Used).checked;
  }

  private settle(root: Definition, done: Map<string, Used>, instead?: Definition): void {
    const waiting: Definition[] = [root];
    const open: Open[] = [];
    const placeOf = new Map<string, number>();
    while (waiting.length > 0) {
      const next = waiting[waiting.length - 1];
      const key = keyOf(next);
      if (done.has(key)) {
        waiting.pop();
        continue;
      }
      if (open.at(-1)?.key !== key) placeOf.set(key, open.push({ definition: next, key }) - 1);
      const missing: Definition[] = [];
      const checked = this.checkOne(next, (used) => {
        const definition = instead && keyOf(used) === keyOf(instead) ? instead : used;
        const usedKey = keyOf(definition);
        const known = done.get(usedKey);
        if (known) return known;
        const from = placeOf.get(usedKey);
        return from === undefined
          ? notYet(missing, definition)
          : { circle: [...open.slice(from).map((o) => labelOf(o.definition)), labelOf(definition)] };
      });
      if (missing.length > 0) {
        waiting.push(...missing);
        continue;
      }
      done.set(key, {
        checked,
        type: checked.type,
        node: next.level === "group" && checked.expr ? nodeOf(next.name, checked.expr) : null,
      });
      open.pop();
      placeOf.delete(key);
      waiting.pop();
    }
  }
}

function notYet(missing: Definition[], definition: Definition): null {
  missing.push(definition);
  return null;
}

const nodeOf = (name: string, expr: Expr): MeasureNode => ({ op: "measure", type: expr.type, name, expr });
