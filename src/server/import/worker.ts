import { existsSync, readFileSync } from "node:fs";
import { parentPort } from "node:worker_threads";
import { nanoid } from "nanoid";
import { sumsOf } from "../store/checksums";
import { type Cell, openRows, TableWriter, tableFiles } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { ImportJob, ImportMessage, StoredTable } from "./job";
import type { Progress } from "./progress";
import { readTable } from "./read-table";
import { ThreadedBuilder } from "./threaded-builder";

/** Stores made or carried rows as a new table and guesses how its columns are read. */
function storeRows(name: string, columns: string[], rows: Iterable<Cell[]>, every?: () => void): StoredTable {
  const builder = new ThreadedBuilder(nanoid(16), columns.length);
  try {
    for (const row of rows) {
      builder.add(row);
      if (builder.rows % 5000 === 0) every?.();
    }
    const read = builder.finish(columns);
    return {
      id: builder.id,
      name,
      rows: builder.rows,
      columns: read.columns,
      sums: { rows: sumsOf(tableFiles(builder.id).rows), source: null },
    };
  } catch (error) {
    builder.abandon();
    throw error;
  }
}

/**
 * Writes the rows of one stored table and then of another, whose columns `map` puts in the order of the
 * first, as table `id`. Gives their number.
 */
function copyRows(id: string, from: string, added: string, map: number[], progress: Progress): number {
  const writer = new TableWriter(id, map.length);
  try {
    for (const [source, order] of [
      [from, map.map((_, i) => i)],
      [added, map],
    ] as const) {
      const db = openRows(source);
      try {
        for (const row of db
          .prepare(`select ${order.map((i) => `c${i}`).join(", ")} from rows order by rowid`)
          .raw()
          .iterate()) {
          writer.add(row as Cell[]);
          if (writer.rows % 50_000 === 0) progress(source === from ? 0.4 : 0.8);
        }
      } finally {
        db.close();
      }
    }
    writer.finish();
  } catch (error) {
    writer.abandon();
    throw error;
  }
  return writer.rows;
}

const say = (message: ImportMessage) => parentPort?.postMessage(message);
let last = 0;
const progress: Progress = (share, rows) => {
  if (share - last < 0.01) return;
  last = share;
  say({ progress: share, rows });
};

async function run(job: ImportJob): Promise<unknown> {
  if (job.type === "table") {
    const read = await readTable(job.id, job.path, job.file, job.options, progress);
    return { ...read, sums: { rows: sumsOf(tableFiles(job.id).rows), source: sumsOf(job.path) } };
  }
  if (job.type === "append") {
    const rows = copyRows(job.id, job.from, job.added, job.map, progress);
    return { rows, sums: { rows: sumsOf(tableFiles(job.id).rows), source: null } };
  }
  if (job.type === "sums")
    return {
      rows: sumsOf(tableFiles(job.id).rows),
      source: existsSync(tableFiles(job.id).source) ? sumsOf(tableFiles(job.id).source) : null,
    };
  if (job.type === "project") {
    const { readProjectFile } = await import("./project-file");
    return readProjectFile(readFileSync(job.path), storeRows, progress);
  }
  const { QUILLHAVEN } = await import("@/demo/quillhaven");
  let done = 0;
  return QUILLHAVEN.map((t) =>
    storeRows(t.name, t.columns, t.rows(), () => progress(Math.min(0.99, ++done / 25))),
  );
}

// A worker waits for its one job, so that it can be started before there is one.
parentPort?.once("message", (job: ImportJob) => {
  run(job)
    .then((done) => say({ done }))
    .catch((error) => {
      if (error instanceof ImportProblem) say({ problem: error.message });
      else
        say({
          fault: {
            code: String((error as { code?: unknown })?.code ?? ""),
            message: error instanceof Error ? (error.stack ?? error.message) : String(error),
          },
        });
    });
});
