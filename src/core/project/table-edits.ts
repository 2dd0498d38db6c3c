import { sameName } from "../base/names";
import type { Scope } from "../formula/expr";
import { type ColumnPlace, nameFor, placesOf } from "../formula/meeting";
import { homeTableOf, homeTableOfVisual } from "./home-table";
import { freeName, renameColumnIn, renameTableIn, scopeOf } from "./names";
import { ordersOf, splitsOf } from "./roles";
import type { Measure, Project, TableInfo, TableLink, Visual } from "./schema";
import { columnInTemplates, renameInTemplatesOf } from "./templates";

type Column = TableInfo["columns"][number];
type Derived = TableInfo["derived"][number];

const findTable = (p: Project, id: string) => p.tables.find((t) => t.id === id);

/** What a column's name means before an edit, or null where it is not one thing. */
function meantBy(scope: Scope, table: string | null, name: string): ColumnPlace | null {
  const places = table === null ? [] : placesOf(scope, table, name);
  return places.length === 1 ? places[0] : null;
}

/** The splits and filters of a measure's proofs, which name columns. */
function namedInProofs(measure: Measure): { column: string }[] {
  return measure.proofs.flatMap((p) =>
    p.type === "between" ? (p.split ?? []) : p.type === "equals" ? p.filters : [],
  );
}

/** The columns that a visual is put in order by. */
const orderColumns = (v: Visual) =>
  ordersOf(v).flatMap(({ by }) => (typeof by === "object" && "column" in by ? by : []));

/**
 * Rewrites every place that names a column: formulas, splits, filters, controls and links. `before` is the
 * project in which it still has its name.
 */
function renameColumnEverywhere(p: Project, before: Project, table: string, from: string, to: string): void {
  const scope = scopeOf(before);
  const isIt = (place: ColumnPlace | null) =>
    place !== null && sameName(place.table, table) && sameName(place.column, from);
  const inName = (name: string, own: string | null) =>
    isIt(meantBy(scope, own, name)) && own !== null ? nameFor(own, { table, column: to }) : name;
  for (const m of p.measures) {
    m.formula = renameColumnIn(
      { formula: m.formula, table: m.table, derived: false },
      scope,
      { table, column: from },
      to,
    );
    const own = homeTableOf(
      before.measures.find(({ id }) => id === m.id),
      before,
    );
    for (const named of namedInProofs(m)) named.column = inName(named.column, own);
  }
  for (const t of p.tables)
    for (const d of t.derived)
      d.formula = renameColumnIn(
        { formula: d.formula, table: t.name, derived: true },
        scope,
        { table, column: from },
        to,
      );
  for (const v of p.visuals) {
    const own = homeTableOfVisual(v, before);
    for (const split of [...splitsOf(v), ...orderColumns(v)]) {
      const was = split.column;
      split.column = inName(was, own);
      if (split.column !== was)
        renameInTemplatesOf(v, columnInTemplates(p, was), columnInTemplates(p, split.column));
    }
    for (const f of v.filters) f.column = inName(f.column, own);
  }
  for (const b of p.boards)
    for (const c of b.controls)
      if (c.type === "filter" && sameName(c.table, table) && sameName(c.column, from)) c.column = to;
  for (const c of p.categories) if (isIt(c)) c.column = to;
  for (const i of p.inputs) if (i.choicesFrom && isIt(i.choicesFrom)) i.choicesFrom.column = to;
  for (const l of p.links) {
    if (sameName(l.table, table) && sameName(l.column, from)) l.column = to;
    if (sameName(l.to, table) && sameName(l.key, from)) l.key = to;
  }
}

function renameTableEverywhere(p: Project, scope: Scope, id: string, to: string): void {
  const table = findTable(p, id);
  if (!table) return;
  const from = table.name;
  table.name = to;
  const inName = (name: string) =>
    sameName(name.slice(0, from.length + 1), `${from}.`) ? `${to}${name.slice(from.length)}` : name;
  for (const m of p.measures) {
    m.formula = renameTableIn({ formula: m.formula, table: m.table, derived: false }, scope, from, to);
    if (m.table && sameName(m.table, from)) m.table = to;
    for (const named of namedInProofs(m)) named.column = inName(named.column);
  }
  for (const t of p.tables)
    for (const d of t.derived)
      d.formula = renameTableIn(
        { formula: d.formula, table: t === table ? from : t.name, derived: true },
        scope,
        from,
        to,
      );
  for (const v of p.visuals) {
    for (const split of [...splitsOf(v), ...orderColumns(v)]) {
      const was = split.column;
      split.column = inName(was);
      if (split.column !== was)
        renameInTemplatesOf(v, columnInTemplates(p, was), columnInTemplates(p, split.column));
    }
    for (const f of v.filters) f.column = inName(f.column);
  }
  for (const b of p.boards)
    for (const c of b.controls) if (c.type === "filter" && sameName(c.table, from)) c.table = to;
  for (const c of p.categories) if (sameName(c.table, from)) c.table = to;
  for (const i of p.inputs)
    if (i.choicesFrom && sameName(i.choicesFrom.table, from)) i.choicesFrom.table = to;
  for (const l of p.links) {
    if (sameName(l.table, from)) l.table = to;
    if (sameName(l.to, from)) l.to = to;
  }
}

/** Edits of tables, their columns and the links between them. */
export const TABLE_EDITS = {
  /** Adds a table under a name that is free. */
  "add table": (p: Project, { table }: { table: TableInfo }) => {
    const taken = p.tables.map((t) => t.name);
    p.tables.push({ ...table, name: freeName(table.name, taken) });
  },

  /** A new name rewrites every use. */
  "rename table": (p: Project, { id, name }: { id: string; name: string }, before: Project) =>
    renameTableEverywhere(p, scopeOf(before), id, name),

  /** Removes a table with the links that lead to it or from it. */
  "remove table": (p: Project, { id }: { id: string }) => {
    const table = findTable(p, id);
    if (!table) return;
    p.tables = p.tables.filter((t) => t !== table);
    p.links = p.links.filter((l) => !sameName(l.table, table.name) && !sameName(l.to, table.name));
  },

  /**
   * Puts newly read rows in the place of a table's own. Its name and its derived columns stay, and columns
   * that are still there stay hidden.
   */
  "replace rows": (p: Project, { id, fresh }: { id: string; fresh: TableInfo }) => {
    const table = findTable(p, id);
    if (!table) return;
    const hidden = new Set(table.columns.filter((c) => c.hidden).map((c) => c.name.toLowerCase()));
    const columns = fresh.columns.map((c) => ({ ...c, hidden: hidden.has(c.name.toLowerCase()) }));
    Object.assign(table, { id: fresh.id, rows: fresh.rows, source: fresh.source, columns });
  },

  /**
   * Changes a column of the file: its name, how it is read, or whether it is hidden. A new name rewrites
   * every use.
   */
  "change column": (
    p: Project,
    { table: id, column, change }: { table: string; column: string; change: Partial<Column> },
    before: Project,
  ) => {
    const table = findTable(p, id);
    const found = table?.columns.find((c) => c.name === column);
    if (!table || !found) return;
    Object.assign(found, change);
    if (change.name && change.name !== column)
      renameColumnEverywhere(p, before, table.name, column, change.name);
  },

  "add derived": (p: Project, { table, derived }: { table: string; derived: Derived }) =>
    void findTable(p, table)?.derived.push(derived),

  /** A new name rewrites every use. */
  "change derived": (
    p: Project,
    { table: id, column, change }: { table: string; column: string; change: Partial<Derived> },
    before: Project,
  ) => {
    const table = findTable(p, id);
    const found = table?.derived.find((c) => c.name === column);
    if (!table || !found) return;
    Object.assign(found, change);
    if (change.name && change.name !== column)
      renameColumnEverywhere(p, before, table.name, column, change.name);
  },

  "remove derived": (p: Project, { table: id, column }: { table: string; column: string }) => {
    const table = findTable(p, id);
    if (table) table.derived = table.derived.filter((c) => c.name !== column);
  },

  "add link": (p: Project, { link }: { link: TableLink }) => void p.links.push(link),
  "remove link": (p: Project, { id }: { id: string }) => void (p.links = p.links.filter((l) => l.id !== id)),
};
