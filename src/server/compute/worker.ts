import { type MessagePort, parentPort, workerData } from "node:worker_threads";
import { parseIsoDate } from "@/core/base/calendar";
import { todayIn } from "@/core/base/today";
import type { Value } from "@/core/base/value";
import { bytesIn } from "@/core/data/bytes-in";
import { readCell } from "@/core/data/reading";
import { buildCells } from "@/core/engine/cells/build-cells";
import { plainIndex } from "@/core/engine/cells/plain-index";
import { rowsBehind } from "@/core/engine/rows-behind";
import { runQueries, ScanCache, sourcesOf } from "@/core/engine/run";
import { QueryError } from "@/core/plan/query-error";
import { answerInThread } from "../threads/answer-in-thread";
import { compileLoops } from "../threads/compile-loops";
import { patientFlag, stopFlag } from "../threads/stop-flag";
import { linkAnswer } from "./link-answer";
import type { ComputeAnswer, ComputeRequest, GivenColumns } from "./protocol";
import { pageOfRows, profileTable, unreadCells, valuesOf } from "./rows";
import { buffersIn } from "./scan-share";
import { TableCache } from "./table-cache";
import { ThreadCrew } from "./thread-crew";
import { travellingBytes } from "./travelling-bytes";
import { travellingIndex } from "./travelling-index";

const {
  stop: word,
  memory,
  underWay,
} = workerData as { stop: SharedArrayBuffer; memory: number; underWay?: SharedArrayBuffer };
const stop = underWay ? patientFlag(stopFlag(word), underWay) : stopFlag(word);
const crew = new ThreadCrew(word);
compileLoops();

// What was computed of tables and what scans gathered share the thread's part of the memory.
const tables = new TableCache(memory / 2);
const scans = new ScanCache(memory / 2);

/** What the main thread says besides questions. */
type FromMain =
  | { forget: string[] }
  | { helper: { port: MessagePort; life: SharedArrayBuffer } }
  | { id: number };

/** Reads each distinct text once, as long as these are not too many to remember. */
function remembering(read: (cell: string) => Value): (cell: string) => Value {
  const known = new Map<string, Value>();
  return (cell) => {
    let value = known.get(cell);
    if (value === undefined) {
      value = read(cell);
      if (known.size < 50_000) known.set(cell, value);
    }
    return value;
  };
}

function answer(request: ComputeRequest, given: GivenColumns): ComputeAnswer {
  tables.give(given);
  if (request.type === "unread")
    return unreadCells(
      request.table,
      request.column,
      remembering((cell) => readCell(cell, request.reading)),
      stop,
    );
  const { scope } = request;
  const today = todayIn(scope.timeZone);
  const catalog = {
    scope,
    inputs: {},
    tables: request.tables.map((t) => tables.table(t)),
    today,
    stop,
    crew: crew.for(scope, parseIsoDate(today), (name) => {
      const info = request.tables.find((t) => t.name === name);
      return info && { info, table: tables.table(info), columns: tables.columnsOf(info.id) };
    }),
  };
  if (request.type === "results") {
    const results = runQueries(request.queries, { ...catalog, inputs: request.inputs }, scans, () =>
      performance.now(),
    );
    return {
      results: results.map((r) =>
        r instanceof QueryError ? { error: { code: r.code, message: r.message, at: r.at } } : r,
      ),
    };
  }
  if (request.type === "cells") {
    const { inputs, asked, limits } = request;
    const cells = plainIndex(buildCells(asked, { ...catalog, inputs, crew: undefined }, limits));
    return { cells, bytes: bytesIn(cells) };
  }
  if (request.type === "behind")
    return { behind: rowsBehind(request.query, { ...catalog, inputs: request.inputs }) };
  if (request.type === "index")
    return travellingIndex(request, { ...catalog, inputs: request.inputs, crew: undefined });
  if (request.type === "columns") return { columns: travellingBytes(request, sourcesOf(catalog)) };
  if (request.type === "links") return { links: linkAnswer(request.links, sourcesOf(catalog)) };
  const info = request.tables.find((t) => t.name === request.table);
  if (!info) throw new QueryError("unknown_table", `There is no table called “${request.table}”.`);
  const source = sourcesOf(catalog).of(info.name);
  if (request.type === "profile") return { profile: profileTable(source, info) };
  const ground = { scope, today: parseIsoDate(today) };
  if (request.type === "values") return { values: valuesOf(source, info, request, ground) };
  return { page: pageOfRows(source, info, request, ground) };
}

answerInThread(
  (request: ComputeRequest, given: GivenColumns) => {
    try {
      return answer(request, given);
    } finally {
      tables.trim();
    }
  },
  () => tables.takeLoaded(),
  (given) => ("cells" in given ? buffersIn(given.cells) : []),
);

parentPort?.on("message", (message: FromMain) => {
  if ("helper" in message) crew.add(message.helper.port, message.helper.life);
  else if ("forget" in message) {
    tables.forget(message.forget);
    crew.forget(message.forget);
  }
});
