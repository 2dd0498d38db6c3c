import { promisify } from "node:util";
import { deflateRaw } from "node:zlib";
import { todayIn } from "@/core/base/today";
import type { Value } from "@/core/base/value";
import { attempt } from "@/core/engine/attempt";
import type { ColumnPlace } from "@/core/formula/meeting";
import { type Query, type QueryInput, querySchema } from "@/core/plan/query";
import { QueryError } from "@/core/plan/query-error";
import { withHomeTables } from "@/core/project/home-table";
import { scopeOf } from "@/core/project/names";
import type { Project, Visual } from "@/core/project/schema";
import { type Asked, askableOf, type Taken, takenFrom } from "@/core/snapshot/askable";
import type { Limit } from "@/core/snapshot/limits";
import { settledFormulas } from "@/core/snapshot/settled-formulas";
import { type PackedBytes, SNAPSHOT_FORMAT, SNAPSHOT_VERSION, type Snapshot } from "@/core/snapshot/snapshot";
import { isHidden, travellingDocument } from "@/core/snapshot/travelling-document";
import { ColumnSet, columnsListed, columnsOfQuery } from "@/core/snapshot/used-columns";
import { filtersOf, UNTOUCHED } from "@/core/view/board-state";
import { binsQuery, extentIn, extentQuery } from "@/core/view/column-extent";
import { toQuery } from "@/core/view/query";
import { compute } from "../compute/client";
import { HttpError } from "../http/errors";
import { answerQueries } from "../results";
import { settings } from "../settings";

/** Whether rows travel, or only what answers. */
export type Travel = "answers" | "rows";

/** What a snapshot holds, for who decides whether it may go. */
export interface SnapshotAbout {
  /** Answers that are given as they are. */
  answers: number;
  /** The sums of an index, how many of them stand for a single row, and what tells them apart. */
  index: { cells: number; ofOneRow: number; keys: { name: string; values: number }[] } | null;
  /** A filter that a page could ask for, by the name that it gives it. */
  example: Record<string, Value[]>;
  /** The rows of tables, with the columns that travel. */
  rows: { table: string; rows: number; columns: string[] }[];
  /** What is not answered anew, and the hidden columns that stayed behind. */
  limits: Limit[];
  left: string[];
}

/** The most cells of a grouping that travels: an index is to stay small. */
const MOST_CELLS = 300_000;
/** The most cells of rows that travel: a page has to hold them. */
const MOST_TRAVELLING = 30_000_000;

const deflate = promisify(deflateRaw);

async function packed(bytes: Uint8Array): Promise<PackedBytes> {
  const deflated = await deflate(bytes, { level: 9 });
  return { size: bytes.length, deflated: deflated.toString("base64") };
}

const nameOf = ({ table, column }: ColumnPlace) => `${table}.${column}`;

/** A query that is checked, with the columns that it reads; those of which nothing may travel apart. */
interface Read extends Asked {
  checked: Query;
  columns: ColumnPlace[];
  hidden: ColumnPlace[];
}

function readOf(
  asked: Asked[],
  project: Project,
  inputs: Record<string, string | number | boolean | null>,
): Read[] {
  const scope = scopeOf(project);
  return asked.flatMap((one): Read[] => {
    const checked = querySchema.parse(one.query);
    const columns = attempt(() => columnsOfQuery(checked, scope, inputs));
    // What cannot be planned has its error as an answer, and asks nothing further.
    if (columns instanceof QueryError) return [];
    return [{ ...one, checked, columns, hidden: columns.filter((c) => isHidden(project, c)) }];
  });
}

/** What answers all that is asked as a board begins, the small histograms of its stretches too. */
async function answersTo(projectId: string, project: Project, begin: QueryInput[], signal?: AbortSignal) {
  const ask = async (queries: QueryInput[]): Promise<Snapshot["answers"]> => {
    const once = [...new Map(queries.map((q) => [JSON.stringify(q), q])).values()];
    const found = await answerQueries(projectId, project, once, signal);
    return once.map((q, i) => {
      const answer = found[i];
      return [q, "error" in answer ? { error: answer.error.message } : answer];
    });
  };
  const first = await ask(begin);
  const bins = project.boards.flatMap(({ controls }) =>
    controls.flatMap((c) => {
      if (c.type !== "filter" || c.as !== "stretch") return [];
      const asked = JSON.stringify(extentQuery(c));
      const known = first.find(([q]) => JSON.stringify(q) === asked);
      const extent = known && extentIn(known[1]);
      return extent ? [binsQuery(c, extent)] : [];
    }),
  );
  return [...first, ...(bins.length > 0 ? await ask(bins) : [])];
}

/**
 * A board or visuals of a saved project with what answers them, and what of it travels. Hidden columns never
 * do: what needs them stays as it begins, and is listed. Throws an HttpError where something is not there, or
 * where too many rows would travel.
 */
export async function makeSnapshot(
  projectId: string,
  saved: Project,
  { taken, travel }: { taken: Taken; travel: Travel },
  signal?: AbortSignal,
): Promise<{ snapshot: Snapshot; about: SnapshotAbout }> {
  const project = withHomeTables(saved);
  const found = takenFrom(project, taken);
  if (!found)
    throw new HttpError(404, "not_there", "There is no such board or visual. It may have been removed.");
  const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));
  const { begin, free, touched } = askableOf(project, taken);
  const scope = scopeOf(project);
  const [reads, begun] = [readOf(free, project, inputs), readOf(begin, project, inputs)];
  const open = touched.filter((t) => {
    const place = placeOf(t.column, project);
    return place !== null && !isHidden(project, place);
  });
  const able = reads.filter((r) => r.hidden.length === 0);
  const used = new ColumnSet();
  for (const { columns } of [...reads, ...begun]) for (const c of columns) used.add(c);
  for (const t of touched) {
    const place = placeOf(t.column, project);
    if (place) used.add(place);
  }
  const document = travellingDocument(project, found, used);
  const all = await answersTo(
    projectId,
    { ...project, boards: found.board ? [found.board] : [] },
    begin.map((b) => b.query),
    signal,
  );
  // What lists the values of a hidden column says nothing, not even as it begins.
  const listing = new Set(
    begun.filter((r) => listsHidden(r.checked, project, inputs)).map((r) => JSON.stringify(r.query)),
  );
  const answers = all.map(([query, answer]): Snapshot["answers"][number] => [
    query,
    listing.has(JSON.stringify(query)) ? { error: LISTS_HIDDEN } : answer,
  ]);
  const kept = ({ of }: { of: string }): Limit => ({ of, by: null });
  const stuck = reads.filter((r) => r.hidden.length > 0).map(kept);
  const left = [...new Set([...reads, ...begun].flatMap((r) => r.hidden).map(nameOf))];
  const snapshot: Snapshot = {
    format: SNAPSHOT_FORMAT,
    version: SNAPSHOT_VERSION,
    made: new Date().toISOString(),
    today: todayIn(project.conventions.timeZone),
    project: document,
    board: found.board?.id ?? null,
    formulas: settledFormulas(document),
    answers,
    index: null,
    rows: null,
    needs: found.visuals.map((v): [string, ColumnPlace[]] => [
      v.id,
      columnsOf(v, project, inputs).filter((c) => isStored(project, c)),
    ]),
    left,
  };
  const about: SnapshotAbout = {
    answers: answers.length,
    index: null,
    example: {},
    rows: [],
    limits: stuck,
    left,
  };
  if (travel === "rows") {
    const columns = new ColumnSet();
    for (const c of [...able, ...begun.filter((r) => r.hidden.length === 0)].flatMap((r) => r.columns))
      columns.add(c);
    for (const t of open) {
      const place = placeOf(t.column, project);
      if (place) columns.add(place);
    }
    const stored = columns.all.filter((c) => isStored(project, c) && !isHidden(project, c));
    const question = { type: "columns" as const, tables: project.tables, scope, columns: stored };
    const cells = project.tables.reduce(
      (sum, t) => sum + t.rows * stored.filter((c) => c.table === t.name).length,
      0,
    );
    if (cells > MOST_TRAVELLING)
      throw new HttpError(
        413,
        "too_many_rows",
        `Its ${cells.toLocaleString("en")} cells are too many for a page. Let answers only travel.`,
      );
    const answer = await compute(question, projectId, signal);
    if (!("columns" in answer)) throw new Error("the compute thread answered something else");
    about.rows = document.tables.flatMap((t) => {
      const names = stored.filter((c) => c.table === t.name).map((c) => c.column);
      return names.length > 0 ? [{ table: t.name, rows: t.rows, columns: names }] : [];
    });
    return { snapshot: { ...snapshot, rows: await packed(answer.columns) }, about };
  }
  if (able.length > 0) {
    const now = found.board ? filtersOf(found.board.controls, UNTOUCHED) : [];
    const asked = able.map((r) => ({ of: r.of, query: r.checked }));
    const limits = { cells: MOST_CELLS, bytes: settings.memoryLimit / 8 };
    const answer = await compute(
      { type: "index", tables: project.tables, scope, inputs, asked, touched: open, now, limits },
      projectId,
      signal,
    );
    if (!("index" in answer)) throw new Error("the compute thread answered something else");
    about.index = { ...answer.count, keys: answer.keys };
    about.example = answer.example;
    about.limits = [...stuck, ...answer.limits];
    return { snapshot: { ...snapshot, index: await packed(answer.index) }, about };
  }
  return { snapshot, about };
}

const LISTS_HIDDEN = "It is split by a hidden column, which stayed behind.";

function listsHidden(query: Query, project: Project, inputs: Record<string, Value>): boolean {
  const listed = attempt(() => columnsListed(query, scopeOf(project), inputs));
  return !(listed instanceof QueryError) && listed.some((place) => isHidden(project, place));
}

/** The columns that a visual reads; none while its sentence lacks its value or cannot be planned. */
function columnsOf(visual: Visual, project: Project, inputs: Record<string, Value>): ColumnPlace[] {
  const query = toQuery(visual, project);
  const columns = query && attempt(() => columnsOfQuery(querySchema.parse(query), scopeOf(project), inputs));
  return !columns || columns instanceof QueryError ? [] : columns;
}

const isStored = (project: Project, { table, column }: ColumnPlace): boolean =>
  project.tables.some((t) => t.name === table && t.columns.some((c) => c.name === column));

/** The column that `table.column` names; null where there is none. */
function placeOf(name: string, project: Project): ColumnPlace | null {
  for (const t of scopeOf(project).tables)
    for (const c of t.columns)
      if (`${t.name}.${c.name}`.toLowerCase() === name.toLowerCase())
        return { table: t.name, column: c.name };
  return null;
}
