import { type MessagePort, receiveMessageOnPort } from "node:worker_threads";
import type { Value } from "@/core/base/value";
import type { Table } from "@/core/data/column";
import type { Crew, ScanTask, Share, SharedWork } from "@/core/engine/crew";
import type { Scope } from "@/core/formula/expr";
import type { TableInfo } from "@/core/project/schema";
import type { GivenColumns } from "./protocol";
import { type Computed, HELPER, type HelpAsked, type HelpGiven, LIFE, nextChunk, WORK } from "./scan-share";

/** A helper as a compute thread knows it. */
interface Helper {
  port: MessagePort;
  /** The words of `LIFE`. */
  life: Int32Array;
  /** What it was given, by name. */
  knows: Set<string>;
  /** The computed columns that it has, by name, as they were. */
  computed: Map<string, unknown>;
}

/** What a scan's table is, and what of it is in shared memory. */
interface Known {
  info: TableInfo;
  table: Table;
  columns: GivenColumns;
}

/** Between two looks whether a helper still lives, in milliseconds. */
const LOOK = 100;

/**
 * The helpers of a compute thread. Work is handed out chunk by chunk from shared memory, so that a helper
 * that is busy elsewhere is not waited for: only a chunk that was begun is.
 */
export class ThreadCrew {
  private helpers: Helper[] = [];
  private next = 1;

  constructor(private readonly stop: SharedArrayBuffer) {}

  add(port: MessagePort, life: SharedArrayBuffer): void {
    port.unref();
    this.helpers.push({ port, life: new Int32Array(life), knows: new Set(), computed: new Map() });
  }

  /** Lets the helpers let go of tables too. */
  forget(tables: string[]): void {
    for (const helper of this.helpers) {
      helper.port.postMessage({ forget: tables });
      for (const name of helper.knows)
        if (tables.some((table) => name.startsWith(`${table}/`))) helper.knows.delete(name);
      helper.computed.clear();
    }
  }

  /** The crew for the scans of one question; undefined where nobody is there to help. */
  for(scope: Scope, today: Value, find: (table: string) => Known | undefined): Crew | undefined {
    this.helpers = this.helpers.filter((h) => Atomics.load(h.life, LIFE.alive) === 1);
    if (this.helpers.length === 0) return undefined;
    return {
      begin: (table, task, chunks, chunk) => {
        const known = find(table);
        return known
          ? this.begin({ task, chunks, chunk, scope, today }, known)
          : { next: alone(chunks), finish: () => [] };
      },
    };
  }

  private begin(
    ask: { task: ScanTask; chunks: number; chunk: number; scope: Scope; today: Value },
    { info, table, columns }: Known,
  ): SharedWork {
    const { task, chunks, chunk, scope, today } = ask;
    const id = this.next++;
    const memory = new SharedArrayBuffer(4 * (WORK.helpers + this.helpers.length));
    const work = new Int32Array(memory);
    Atomics.store(work, WORK.chunks, chunks);
    const { helpers } = this;
    for (const [at, helper] of helpers.entries()) {
      const given = columns.filter(({ table: of, key }) => !helper.knows.has(`${of}/${key}`));
      for (const { table: of, key } of given) helper.knows.add(`${of}/${key}`);
      const computed: Computed[] = [];
      for (const [name, { data, rows }] of table.computed ?? []) {
        const key = `${info.id}/${name}`;
        if (helper.computed.get(key) === (data ?? rows)) continue;
        helper.computed.set(key, data ?? rows);
        computed.push([name, { data, rows }]);
      }
      const asked: HelpAsked = {
        id,
        info,
        scope,
        today,
        chunk,
        task,
        given,
        computed,
        stop: this.stop,
        work: memory,
        at,
      };
      helper.port.postMessage(asked);
    }
    return {
      next: () => nextChunk(work),
      finish: () => {
        Atomics.store(work, WORK.next, chunks);
        const shares: (Share[] | null)[] = helpers.map((helper, at) => shareOf(helper, work, at, id));
        return shares.some((s) => s === null) ? null : (shares as Share[][]).flat();
      },
    };
  }
}

/** Chunks one after the other. */
function alone(chunks: number): () => number {
  let at = 0;
  return () => (at < chunks ? at++ : -1);
}

/** The share of a helper: none where it has not begun, null where it failed or is gone. */
function shareOf(helper: Helper, work: Int32Array, at: number, id: number): Share[] | null {
  const word = WORK.helpers + at;
  const was = Atomics.compareExchange(work, word, HELPER.asked, HELPER.closed);
  if (was === HELPER.asked) return [];
  while (Atomics.load(work, word) === HELPER.working) {
    Atomics.wait(work, word, HELPER.working, LOOK);
    if (Atomics.load(helper.life, LIFE.alive) !== 1) return null;
  }
  for (let got = receiveMessageOnPort(helper.port); got; got = receiveMessageOnPort(helper.port)) {
    const { shares, forgot, id: of } = got.message as HelpGiven;
    if (forgot) helper.computed.clear();
    if (of === id) return shares;
  }
  return null;
}
