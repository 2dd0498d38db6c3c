import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import type { ColumnPlace } from "../formula/meeting";
import { scopeOf } from "../project/names";
import { measuresOf, numberSources } from "../project/roles";
import type { Board, Project, TableInfo, Visual } from "../project/schema";
import { templatesName, textsName } from "../project/templates";
import type { ColumnSet } from "./used-columns";

/** Whether a column of a project is hidden. */
export function isHidden(project: Pick<Project, "tables">, { table, column }: ColumnPlace): boolean {
  const info = project.tables.find((t) => sameName(t.name, table));
  const columns = [...(info?.columns ?? []), ...(info?.derived ?? [])];
  return columns.some((c) => sameName(c.name, column) && c.hidden);
}

/** The ids of the measures that visuals and texts say, with those that stand behind them. */
function measuresNeeded(project: Project, board: Board | null, visuals: Visual[]): Set<string> {
  const scope = scopeOf(project);
  const waiting = project.measures
    .filter(
      (m) =>
        visuals.some((v) => measuresOf(v).includes(m.id) || templatesName(v, "measure", m.name)) ||
        (board !== null && textsName(board, "measure", m.name)),
    )
    .map((m) => m.id);
  const needed = new Set<string>();
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    const measure = project.measures.find((m) => m.id === id);
    if (!measure || needed.has(id)) continue;
    needed.add(id);
    const { uses } = checkFormula(measure.formula, scope, measure.table, "group", measure.name);
    waiting.push(
      ...project.measures.filter((m) => uses.measures.some((n) => sameName(n, m.name))).map((m) => m.id),
      ...measure.proofs.flatMap((p) => (p.type === "same total" && p.measure !== null ? p.measure : [])),
    );
  }
  return needed;
}

/** The inputs that measures, visuals, texts and controls name. */
function inputsNeeded(
  project: Project,
  board: Board | null,
  visuals: Visual[],
  measures: Set<string>,
): Project["inputs"] {
  const scope = scopeOf(project);
  const derived = project.tables.flatMap((t) =>
    t.derived.map((d) => checkFormula(d.formula, scope, t.name, "derived", `${t.name}.${d.name}`)),
  );
  const formulas = [
    ...derived,
    ...project.measures
      .filter((m) => measures.has(m.id))
      .map((m) => checkFormula(m.formula, scope, m.table, "group", m.name)),
  ];
  return project.inputs.filter(
    ({ id, name }) =>
      formulas.some((f) => f.uses.inputs.some((n) => sameName(n, name))) ||
      visuals.some(
        (v) =>
          numberSources(v).some((s) => "input" in s && s.input === id) || templatesName(v, "input", name),
      ) ||
      (board !== null &&
        (textsName(board, "input", name) ||
          board.controls.some((c) => c.type === "input" && c.input === id))),
  );
}

/** A table as it travels: with the columns that are used, and nothing of the file that it came from. */
function tableOf(table: TableInfo, used: ColumnSet): TableInfo {
  const isUsed = ({ name: column }: { name: string }) => used.has({ table: table.name, column });
  return {
    ...table,
    columns: table.columns.filter(isUsed),
    derived: table.derived.filter(isUsed),
    source: {
      file: "",
      format: "csv",
      separator: ",",
      encoding: "utf-8",
      header: true,
      above: 0,
      sheet: "",
      sheets: [],
    },
  };
}

/**
 * The document with what a board or some visuals need and nothing else: of tables the columns that are
 * `used`, by name.
 */
export function travellingDocument(
  project: Project,
  { board, visuals }: { board: Board | null; visuals: Visual[] },
  used: ColumnSet,
): Project {
  const measures = measuresNeeded(project, board, visuals);
  const tables = project.tables
    .map((t) => tableOf(t, used))
    .filter((t) => t.columns.length + t.derived.length > 0);
  const isThere = (name: string) => tables.some((t) => sameName(t.name, name));
  const shown = new Set([
    ...visuals.flatMap((v) => Object.values(v.pictures)),
    ...(board?.tiles.flatMap((t) => (t.type === "picture" && t.picture ? [t.picture] : [])) ?? []),
  ]);
  return {
    ...project,
    tables,
    links: project.links.filter(
      (l) =>
        used.has({ table: l.table, column: l.column }) &&
        used.has({ table: l.to, column: l.key }) &&
        isThere(l.table) &&
        isThere(l.to),
    ),
    measures: project.measures.filter((m) => measures.has(m.id)),
    inputs: inputsNeeded(project, board, visuals, measures),
    pictures: project.pictures.filter((p) => shown.has(p.id)),
    categories: project.categories.filter((c) => used.has(c) && !isHidden(project, c)),
    visuals,
    boards: board ? [board] : [],
  };
}
