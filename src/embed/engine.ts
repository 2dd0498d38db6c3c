import { sameName } from "@/core/base/names";
import type { Table } from "@/core/data/column";
import { answerFromCells, type CellIndex } from "@/core/engine/cells/cell-answer";
import { indexOf } from "@/core/engine/cells/plain-index";
import { type Catalog, runQueries, ScanCache } from "@/core/engine/run";
import { QueryError } from "@/core/plan/query-error";
import { wholeQuery } from "@/core/plan/whole-query";
import { scopeOf } from "@/core/project/names";
import type { Project } from "@/core/project/schema";
import { needsPatterns } from "@/core/snapshot/needs-patterns";
import { indexIn, rowsIn, SnapshotError } from "@/core/snapshot/snapshot";
import type { Answer } from "@/present/answers";
import { EmbedError } from "./embed-error";
import type { EngineAnswer, EngineRequest, GivenTable, Held, RowsNote } from "./engine-protocol";
import { holds, readColumn } from "./given-columns";
import { loadPatterns } from "./patterns";

/** What is answered from, as it was unpacked. */
interface Ground {
  project: Project;
  index: CellIndex | null;
  catalog: Catalog | null;
  scans: ScanCache;
}

const NOT_HELD = "No answer to this travelled along.";

const grounds = new Map<number, Promise<Ground>>();
let versions = 0;

/** The rows of a page as a table of the engine, and what was noticed of them. */
function tableOf({ name, rows, columns }: GivenTable, project: Project, notes: RowsNote[]): Table {
  const info = project.tables.find((t) => sameName(t.name, name));
  return {
    name,
    version: `page ${++versions}`,
    rows,
    columns: columns.flatMap(({ name: column, cells }) => {
      const reading = info?.columns.find((c) => c.name === column)?.reading;
      if (!reading) return [];
      const { data, filled, unread, first } = readColumn(cells, reading);
      if (unread > 0) {
        const where = `rows.${name}.${column} is of ${holds(reading)}`;
        const example = `row ${first?.row} holds ${JSON.stringify(first?.value)}`;
        const at = { table: name, column };
        if (filled === 0) throw new EmbedError("wrong-type", `${where}, but ${example}.`, at);
        const message = `${where}; ${unread} of its cells are not and stand as empty: ${example}.`;
        notes.push({ code: "unread-cells", message, ...at });
      }
      return [{ name: column, data }];
    }),
  };
}

async function groundOf(
  { project, today, index, rows, given, patterns }: Held,
  notes: RowsNote[],
): Promise<Ground> {
  if (needsPatterns(project)) await loadPatterns(patterns);
  const tables: Table[] =
    given.length > 0
      ? given.map((t) => tableOf(t, project, notes))
      : rows
        ? (await rowsIn(rows)).map((t) => ({ ...t, version: `travelled ${++versions}` }))
        : [];
  const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));
  const isComputed = given.length > 0 || rows !== null;
  return {
    project,
    index: !isComputed && index ? indexOf(await indexIn(index)) : null,
    catalog: isComputed ? { scope: scopeOf(project), inputs, tables, today } : null,
    scans: new ScanCache(),
  };
}

async function answers(ground: Ground, asked: Extract<EngineRequest, { type: "answer" }>): Promise<Answer[]> {
  const queries = asked.queries.map(wholeQuery);
  const { project, index, catalog, scans } = ground;
  const clock = () => performance.now();
  if (catalog)
    return runQueries(queries, catalog, scans, clock).map((r) =>
      r instanceof QueryError ? { error: r.message } : r,
    );
  const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));
  const found = index ? answerFromCells(queries, index, { scope: scopeOf(project), inputs }, clock) : [];
  return queries.map((_, i) => found[i] ?? { error: NOT_HELD });
}

/** Answers a question; what goes wrong is an answer too. */
export async function answerEngine(request: EngineRequest): Promise<EngineAnswer> {
  try {
    if (request.type === "hold") {
      const notes: RowsNote[] = [];
      const ground = groundOf(request.held, notes);
      grounds.set(request.id, ground);
      await ground;
      return { notes };
    }
    if (request.type === "drop") {
      grounds.delete(request.id);
      return { notes: [] };
    }
    const ground = await grounds.get(request.id);
    if (!ground) return { error: { code: "engine", message: "Its rows were let go of." } };
    return { answers: await answers(ground, request) };
  } catch (error) {
    if (error instanceof EmbedError)
      return { error: { code: error.code, message: error.message, ...error.at } };
    const code = error instanceof SnapshotError ? "snapshot" : "engine";
    return { error: { code, message: error instanceof Error ? error.message : String(error) } };
  }
}

/** As a worker it answers messages. */
const isWorker = typeof document === "undefined" && typeof self !== "undefined" && "importScripts" in self;
if (isWorker)
  self.addEventListener("message", ({ data }: MessageEvent<{ number: number; request: EngineRequest }>) => {
    answerEngine(data.request).then((answer) => self.postMessage({ number: data.number, answer }));
  });
