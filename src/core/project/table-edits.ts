import { sameName } from "../base/names";
import type { Scope } from "../formula/expr";
import { type ColumnPlace, nameFor, placesOf } from "../formula/meeting";
import { type Edit, edit } from "./edit";
import { freeName, renameColumnIn, renameTableIn, scopeOf } from "./names";
import type { Measure, Project, TableInfo, TableLink, Visual } from "./schema";

const findTable = (p: Project, id: string) => p.tables.find((t) => t.id === id);

/** Adds a table under a name that is free. */
export const addTable = (table: TableInfo): Edit =>
  edit((p) => {
    const name = freeName(
      table.name,
      p.tables.map((t) => t.name),
    );
    p.tables.push({ ...table, name });
  });

/** Removes a table with the links that lead to it or from it. */
export const removeTable = (id: string): Edit =>
  edit((p) => {
    const table = findTable(p, id);
    if (!table) return;
    p.tables = p.tables.filter((t) => t !== table);
    p.links = p.links.filter((l) => !sameName(l.table, table.name) && !sameName(l.to, table.name));
  });

/**
 * Puts newly read rows in the place of a table's own. Its name and its derived columns stay, and columns that
 * are still there stay hidden.
 */
export const replaceRows = (id: string, fresh: TableInfo): Edit =>
  edit((p) => {
    const table = findTable(p, id);
    if (!table) return;
    const hidden = new Set(table.columns.filter((c) => c.hidden).map((c) => c.name.toLowerCase()));
    const columns = fresh.columns.map((c) => ({ ...c, hidden: hidden.has(c.name.toLowerCase()) }));
    Object.assign(table, { id: fresh.id, rows: fresh.rows, source: fresh.source, columns });
  });

/** The table that a visual's split and filters are written for: that of its value. */
const tableOfVisual = (p: Project, v: Visual) => p.measures.find((m) => m.id === v.value)?.table ?? null;

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

/**
 * Rewrites every place that names a column: formulas, splits, filters, controls and links. `scope` is that of
 * before.
 */
function renameColumnEverywhere(p: Project, scope: Scope, table: string, from: string, to: string): void {
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
    for (const named of namedInProofs(m)) named.column = inName(named.column, m.table);
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
    const own = tableOfVisual(p, v);
    for (const split of [v.split, v.series]) if (split) split.column = inName(split.column, own);
    for (const f of v.filters) f.column = inName(f.column, own);
  }
  for (const b of p.boards)
    for (const c of b.controls)
      if (c.type === "filter" && sameName(c.table, table) && sameName(c.column, from)) c.column = to;
  for (const i of p.inputs) if (i.choicesFrom && isIt(i.choicesFrom)) i.choicesFrom.column = to;
  for (const l of p.links) {
    if (sameName(l.table, table) && sameName(l.column, from)) l.column = to;
    if (sameName(l.to, table) && sameName(l.key, from)) l.key = to;
  }
}

/**
 * Changes a column of the file: its name, how it is read, or whether it is hidden. A new name rewrites every
 * use.
 */
export const changeColumn = (
  tableId: string,
  column: string,
  change: Partial<TableInfo["columns"][number]>,
): Edit => {
  return (project) => {
    const scope = scopeOf(project);
    return edit((p) => {
      const table = findTable(p, tableId);
      const found = table?.columns.find((c) => c.name === column);
      if (!table || !found) return;
      Object.assign(found, change);
      if (change.name && change.name !== column)
        renameColumnEverywhere(p, scope, table.name, column, change.name);
    })(project);
  };
};

export const addDerived = (tableId: string, derived: TableInfo["derived"][number]): Edit =>
  edit((p) => void findTable(p, tableId)?.derived.push(derived));

/** Changes a derived column; a new name rewrites every use. */
export const changeDerived = (
  tableId: string,
  column: string,
  change: Partial<TableInfo["derived"][number]>,
): Edit => {
  return (project) => {
    const scope = scopeOf(project);
    return edit((p) => {
      const table = findTable(p, tableId);
      const found = table?.derived.find((c) => c.name === column);
      if (!table || !found) return;
      Object.assign(found, change);
      if (change.name && change.name !== column)
        renameColumnEverywhere(p, scope, table.name, column, change.name);
    })(project);
  };
};

export const removeDerived = (tableId: string, column: string): Edit =>
  edit((p) => {
    const table = findTable(p, tableId);
    if (table) table.derived = table.derived.filter((c) => c.name !== column);
  });

/** Gives a table another name and rewrites every use. */
export const renameTable = (id: string, to: string): Edit => {
  return (project) => edit((p) => renameTableEverywhere(p, scopeOf(project), id, to))(project);
};

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
    for (const split of [v.split, v.series]) if (split) split.column = inName(split.column);
    for (const f of v.filters) f.column = inName(f.column);
  }
  for (const b of p.boards)
    for (const c of b.controls) if (c.type === "filter" && sameName(c.table, from)) c.table = to;
  for (const i of p.inputs)
    if (i.choicesFrom && sameName(i.choicesFrom.table, from)) i.choicesFrom.table = to;
  for (const l of p.links) {
    if (sameName(l.table, from)) l.table = to;
    if (sameName(l.to, from)) l.to = to;
  }
}

export const addLink = (link: TableLink): Edit => edit((p) => void p.links.push(link));
export const removeLink = (id: string): Edit =>
  edit((p) => void (p.links = p.links.filter((l) => l.id !== id)));
