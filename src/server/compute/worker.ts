import { parentPort } from "node:worker_threads";
import { QueryError } from "@/core/engine/query";
import { runQueries, ScanCache } from "@/core/engine/run";
import { settings } from "../settings";
import type { ComputeAnswer, ComputeRequest } from "./protocol";
import { pageOfRows, profileTable } from "./rows";
import { TableCache } from "./table-cache";

const tables = new TableCache(settings.memoryLimit);
const scans = new ScanCache();

function answer(request: ComputeRequest): ComputeAnswer {
  if (request.type === "results") {
    const catalog = { scope: request.scope, inputs: request.inputs, tables: request.tables.map((t) => tables.table(t)), today: new Date().toLocaleDateString("sv-SE") };
    const results = runQueries(request.queries, catalog, scans, () => performance.now());
    return { results: results.map((r) => (r instanceof QueryError ? { error: { code: r.code, message: r.message, at: r.at } } : r)) };
  }
  const table = tables.table(request.table);
  if (request.type === "profile") return { profile: profileTable(table, request.table) };
  return { page: pageOfRows(table, request.table, request.offset, request.limit, request.sort, request.find) };
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
