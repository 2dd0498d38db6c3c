import { availableParallelism } from "node:os";
import { settings } from "../settings";
import { type SharedColumn, sharedBytes } from "../store/shared-column";
import { ThreadPool } from "../threads/pool";
import { startThread } from "../threads/thread";
import { MEMORY_PARTS } from "./memory-parts";
import type { ComputeAnswer, ComputeRequest, GivenColumns, LoadedColumns } from "./protocol";
import { Helpers } from "./scan-helpers";

/**
 * One more than there are cores, so that light work goes on beside heavy; more would only take
 * each other's turns.
 */
const MOST_THREADS = Math.min(5, Math.max(2, availableParallelism() + 1));
/** Reading more cells than this is heavy work, which leaves a thread to others. */
const HEAVY_CELLS = 3_000_000;

/**
 * Columns in shared memory, by `table id/column key`. They outlive the threads that loaded them; the least
 * recently used tables go first.
 */
class SharedColumns {
  private readonly tables = new Map<string, Map<string, SharedColumn>>();
  private total = 0;

  get bytes(): number {
    return this.total;
  }

  /** The columns of some tables that a thread has not been given yet; from then on it has. */
  giveTo(tableIds: string[], knows: Set<string>): GivenColumns {
    const given: GivenColumns = [];
    for (const id of tableIds) {
      const columns = this.tables.get(id);
      if (!columns) continue;
      this.tables.delete(id);
      this.tables.set(id, columns);
      for (const [key, column] of columns) {
        const name = `${id}/${key}`;
        if (knows.has(name)) continue;
        knows.add(name);
        given.push({ table: id, key, column });
      }
    }
    return given;
  }

  /** Takes what a thread loaded, unless another was first; gives the tables that had to go for it. */
  take(loaded: LoadedColumns, knows: Set<string>): string[] {
    for (const { table, key, column } of loaded) {
      const columns = this.tables.get(table) ?? new Map<string, SharedColumn>();
      this.tables.delete(table);
      this.tables.set(table, columns);
      knows.add(`${table}/${key}`);
      if (columns.has(key)) continue;
      columns.set(key, column);
      this.total += sharedBytes(column);
    }
    const gone: string[] = [];
    for (const [table, columns] of this.tables) {
      if (this.total <= settings.memoryLimit * MEMORY_PARTS.columns || this.tables.size === 1) break;
      for (const column of columns.values()) this.total -= sharedBytes(column);
      this.tables.delete(table);
      gone.push(table);
    }
    return gone;
  }
}

const tablesOf = (request: ComputeRequest): string[] =>
  request.type === "unread" ? [request.table.id] : request.tables.map((t) => t.id);

function isHeavy(request: ComputeRequest): boolean {
  if (request.type === "results")
    return Math.max(0, ...request.tables.map((t) => t.rows)) * request.queries.length > HEAVY_CELLS;
  return request.type !== "rows" || request.sort !== null || request.find !== "";
}

/** Does what somebody waits for; who gathers cells rests until it is done. */
export async function whileUnderWay<T>(work: () => Promise<T>): Promise<T> {
  const word = new Int32Array(running().underWay);
  Atomics.add(word, 0, 1);
  try {
    return await work();
  } finally {
    Atomics.sub(word, 0, 1);
    Atomics.notify(word, 0);
  }
}

/** How long cells may be gathered, rests included, in milliseconds. */
const CALM_TIME = 300_000;

class Compute {
  /**
   * How many questions are under way: those who gather cells rest meanwhile. It belongs to the threads, since
   * the entry of the server and its pages have each a copy of this module.
   */
  readonly underWay = new SharedArrayBuffer(4);
  readonly columns = new SharedColumns();
  readonly helpers = new Helpers(settings.memoryLimit * MEMORY_PARTS.helpers);
  readonly pool: ThreadPool<ComputeRequest, ComputeAnswer, GivenColumns, LoadedColumns> = new ThreadPool({
    start: (stop) => {
      const memory = (settings.memoryLimit * MEMORY_PARTS.threads) / MOST_THREADS;
      const thread = startThread("compute-worker", { stop, memory });
      this.helpers.connect(thread);
      return thread;
    },
    most: MOST_THREADS,
    limit: () => settings.queryTime,
    tooLong:
      "This took too long and was stopped, so that other answers do not wait for it. Filter the rows, split by a column with fewer values, or make the formula simpler.",
    isHeavy,
    ...this.sharing(),
  });
  /** One thread that gathers cells while nothing else is asked. */
  readonly calm: ThreadPool<ComputeRequest, ComputeAnswer, GivenColumns, LoadedColumns> = new ThreadPool({
    start: (stop) => {
      const memory = (settings.memoryLimit * MEMORY_PARTS.threads) / MOST_THREADS;
      return startThread("compute-worker", { stop, memory, underWay: this.underWay });
    },
    most: 1,
    limit: () => CALM_TIME,
    tooLong: "Gathering took too long and was stopped.",
    isHeavy: () => false,
    ...this.sharing(),
  });

  /** How columns come to threads and from them. */
  private sharing() {
    return {
      moreFor: (request: ComputeRequest, knows: Set<string>) => this.columns.giveTo(tablesOf(request), knows),
      onNews: (loaded: LoadedColumns, knows: Set<string>) => {
        const gone = this.columns.take(loaded, knows);
        // Threads let go of them too, and are given them again when they are read again.
        if (gone.length === 0) return;
        const forget = (known: Set<string>) => {
          for (const name of known)
            if (gone.some((table) => name.startsWith(`${table}/`))) known.delete(name);
        };
        for (const pool of [this.pool, this.calm]) pool.tell({ forget: gone }, forget);
      },
    };
  }
}

const shared = globalThis as { cavloCompute?: Compute };
function running(): Compute {
  shared.cavloCompute ??= new Compute();
  return shared.cavloCompute;
}

/** Asks the process's compute threads. `owner` is the project; when `signal` aborts, the work is stopped. */
export function compute(request: ComputeRequest, owner = "", signal?: AbortSignal): Promise<ComputeAnswer> {
  return whileUnderWay(() => running().pool.ask(request, owner, signal));
}

/** Asks for what nobody waits for: it is worked on only while no other question is under way. */
export function computeInCalm(
  request: ComputeRequest,
  owner: string,
  signal: AbortSignal,
): Promise<ComputeAnswer> {
  return running().calm.ask(request, owner, signal);
}

/** Starts a thread for the first question, and those who help it, before anybody asks. */
export async function startComputing(): Promise<void> {
  const scope = { tables: [], measures: [], inputs: [] };
  await running().pool.ask({ type: "results", tables: [], scope, inputs: {}, queries: [] });
}

/** How the compute threads are doing. */
export function computeState() {
  const { pool, columns, helpers } = running();
  return { ...pool.state(), columnBytes: columns.bytes, helpers: helpers.state() };
}
