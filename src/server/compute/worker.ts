import { parentPort } from "node:worker_threads";
import { readCell } from "@/core/data/reading";
import { QueryError } from "@/core/engine/query";
import { runQueries, ScanCache, sourcesOf } from "@/core/engine/run";
import { settings } from "../settings";
import { linkAnswer } from "./link-answer";
import type { ComputeAnswer, ComputeRequest } from "./protocol";
import { pageOfRows, profileTable, unreadCells, valuesOf } from "./rows";
import { TableCache } from "./table-cache";

const tables = new TableCache(settings.memoryLimit);
const scans = new ScanCache();

function answer(request: ComputeRequest): ComputeAnswer {
  if (request.type === "unread") return unreadCells(request.table, request.column, (cell) => readCell(cell, request.reading));
  const catalog = { scope: request.scope, inputs: {}, tables: request.tables.map((t) => tables.table(t)), today: new Date().toLocaleDateString("sv-SE") };
  if (request.type === "results") {
    const results = runQueries(request.queries, { ...catalog, inputs: request.inputs }, scans, () => performance.now());
    return { results: results.map((r) => (r instanceof QueryError ? { error: { code: r.code, message: r.message, at: r.at } } : r)) };
  }
  if (request.type === "links") return { links: linkAnswer(request.links, sourcesOf(catalog)) };
  const info = request.tables.find((t) => t.name === request.table);
  if (!info) throw new QueryError("unknown_table", `There is no table called “${request.table}”.`);
  const source = sourcesOf(catalog).of(info.name);
  if (request.type === "profile") return { profile: profileTable(source, info) };
  if (request.type === "values") return { values: valuesOf(source, info, request.offset, request.limit) };
  return { page: pageOfRows(source, info, request) };
}

parentPort?.on("message", ({ id, request }: { id: number; request: ComputeRequest }) => {
  try {
    parentPort?.postMessage({ id, answer: answer(request) });
  } catch (error) {
    const known = error instanceof QueryError;
    parentPort?.postMessage({ id, error: { known, code: known ? error.code : "internal", message: error instanceof Error ? error.message : String(error) } });
  }
  tables.trim();
});
