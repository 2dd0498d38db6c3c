import { namesInTemplate } from "../base/template";
import { checkFormula } from "../formula/check";
import { unansweredIn } from "../project/answerable";
import { LISTS } from "../project/item-edits";
import { tooMany } from "../project/limits";
import { scopeOf } from "../project/names";
import type { Project } from "../project/schema";
import { templatesOf } from "../project/templates";
import { toQuery } from "../view/query";

/** What things of a document can be named by: their ids, and the names of measures and inputs in braces. */
export interface Named {
  ids: ReadonlySet<string>;
  names: ReadonlySet<string>;
}

/** What things of a document can be named by. */
export function namedIn(project: Project): Named {
  const own = LISTS.flatMap((list) => project[list].map(({ id }) => id));
  const onBoards = project.boards.flatMap(({ tiles, controls }) =>
    [...tiles, ...controls].map(({ id }) => id),
  );
  const inTexts = [...project.measures, ...project.inputs].map(({ name }) => name.toLowerCase());
  return { ids: new Set([...own, ...onBoards]), names: new Set(inTexts) };
}

/** What things could be named by in any of the documents. */
export function namedInAny(projects: readonly Project[]): Named {
  const all = projects.map(namedIn);
  return {
    ids: new Set(all.flatMap(({ ids }) => [...ids])),
    names: new Set(all.flatMap(({ names }) => [...names])),
  };
}

/** The texts anywhere in a value of a document. */
function textsIn(value: unknown): string[] {
  if (typeof value === "string") return [value];
  return typeof value === "object" && value !== null ? Object.values(value).flatMap(textsIn) : [];
}

/** What is called alike where names tell things apart. */
function namedTwice(sort: string, names: readonly string[]): string[] {
  const known = names.map((name) => name.toLowerCase());
  return known.filter((name, i) => known.indexOf(name) !== i).map((name) => `${sort} ${name} twice`);
}

/** The names in braces that nothing has, and that something has in another document. */
function namesGone(project: Project, here: Named, anywhere: Named): string[] {
  const gone = (owner: string, text: string) =>
    namesInTemplate(text)
      .map((name) => name.replace(/^(measure|input)\./i, "").toLowerCase())
      .filter((name) => anywhere.names.has(name) && !here.names.has(name))
      .map((name) => `${owner} writes ${name}`);
  return [
    ...project.visuals.flatMap((v) => templatesOf(v).flatMap((text) => gone(v.id, text))),
    ...project.boards.flatMap((b) => b.tiles.flatMap((t) => (t.type === "text" ? gone(b.id, t.text) : []))),
  ];
}

function formulasIn(project: Project): string[] {
  const scope = scopeOf(project);
  const isSound = (...[formula, table, level, path]: [string, string | null, "group" | "derived", string]) =>
    checkFormula(formula, scope, table, level, path).expr !== null;
  return [
    ...project.measures.filter((m) => !isSound(m.formula, m.table, "group", m.name)).map((m) => m.id),
    ...project.tables.flatMap((t) =>
      t.derived
        .filter((d) => !isSound(d.formula, t.name, "derived", `${t.name}.${d.name}`))
        .map((d) => `${t.id} ${d.name}`),
    ),
  ].map((place) => `formula of ${place}`);
}

/** The places that name a column of a table, and what they name. */
function columnsNamed(project: Project): { owner: string; table: string; column: string }[] {
  return [
    ...project.links.flatMap((l) => [
      { owner: l.id, table: l.table, column: l.column },
      { owner: l.id, table: l.to, column: l.key },
    ]),
    ...project.categories.map(({ id, table, column }) => ({ owner: id, table, column })),
    ...project.inputs.flatMap((i) => (i.choicesFrom ? { owner: i.id, ...i.choicesFrom } : [])),
    ...project.boards.flatMap((b) =>
      b.controls.flatMap((c) =>
        c.type === "filter" ? { owner: b.id, table: c.table, column: c.column } : [],
      ),
    ),
  ];
}

function columnsGone(project: Project): string[] {
  const known = new Set(
    project.tables.flatMap((t) =>
      [...t.columns, ...t.derived].map((c) => `${t.name}.${c.name}`.toLowerCase()),
    ),
  );
  return columnsNamed(project)
    .filter(({ table, column }) => !known.has(`${table}.${column}`.toLowerCase()))
    .map(({ owner, table, column }) => `${owner} names ${table}.${column}`);
}

function unanswered(project: Project): string[] {
  return project.visuals.flatMap((visual) => {
    const query = toQuery(visual, project);
    return query ? unansweredIn(query, project).why.map((why) => `${visual.id}: ${why}`) : [];
  });
}

/**
 * What in a document names something that is not there, is called like something else, or holds too much,
 * each as a text that is the same for the same fault in another document. `anywhere` is what the documents that
 * are compared have: what has none of it names something else.
 */
export function brokenIn(project: Project, anywhere: Named): Set<string> {
  const here = namedIn(project);
  const nothing = { ...project, ...Object.fromEntries(LISTS.map((list) => [list, []])) };
  const beyond = tooMany(nothing, project);
  const named = LISTS.flatMap((list) =>
    project[list].flatMap((item) =>
      textsIn(item)
        .filter((text) => anywhere.ids.has(text) && !here.ids.has(text))
        .map((id) => `${item.id} names ${id}`),
    ),
  );
  return new Set([
    ...(beyond === null ? [] : [beyond]),
    ...named,
    ...namedTwice(
      "measure or input",
      [...project.measures, ...project.inputs].map(({ name }) => name),
    ),
    ...namedTwice(
      "table",
      project.tables.map(({ name }) => name),
    ),
    ...project.tables.flatMap((t) =>
      namedTwice(
        `column of ${t.id}`,
        [...t.columns, ...t.derived].map(({ name }) => name),
      ),
    ),
    ...namesGone(project, here, anywhere),
    ...formulasIn(project),
    ...columnsGone(project),
    ...unanswered(project),
  ]);
}

/** Whether something names what is not there once a document has become `next`, and did not before. */
export function breaks(document: Project, next: Project): boolean {
  const anywhere = namedInAny([document, next]);
  const known = brokenIn(document, anywhere);
  return [...brokenIn(next, anywhere)].some((fault) => !known.has(fault));
}
