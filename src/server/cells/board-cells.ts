import { createHash } from "node:crypto";
import { todayIn } from "@/core/base/today";
import type { Value } from "@/core/base/value";
import type { CellsAsked } from "@/core/engine/cells/plan-cells";
import type { Scope } from "@/core/formula/expr";
import type { Query, Result } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import { computeInCalm, whileUnderWay } from "../compute/client";
import { MEMORY_PARTS } from "../compute/memory-parts";
import { buffersIn } from "../compute/scan-share";
import { settings } from "../settings";
import { ThreadPool } from "../threads/pool";
import { startThread } from "../threads/thread";
import type { CellAnswer, CellRequest } from "./protocol";

/** What queries are over: the same for the same rows, read and linked in the same way, on the same day. */
export interface CellData {
  tables: TableInfo[];
  scope: Scope;
}

/** The most boards that have cells at once. */
const MOST_BOARDS = 12;
/** The most cells of one grouping. */
const MOST_CELLS = 1_000_000;
/** Cells that take more bytes than this do not go to pages. */
const MOST_IN_PAGE = 4_000_000;

/** What cells are gathered for. */
interface Wanted {
  projectId: string;
  board: string;
  data: CellData;
  inputs: Record<string, Value>;
  asked: CellsAsked;
}

/** A board's cells: being gathered, or held by the thread that answers from them. */
interface Entry {
  id: number;
  board: string;
  projectId: string;
  /** What they were gathered for, and of which data; how the board was filtered then, where that matters. */
  asked: string;
  data: string;
  now: string | null;
  bytes: number;
  /** How long it took to gather them, rests included, in milliseconds. */
  took: number;
  isReady: boolean;
  cancel: AbortController;
  /** Settles when they are there, or cannot be. */
  gathered: Promise<void>;
  /** For what they were asked for last: it may be filtered otherwise than they are gathered for. */
  latest: Wanted;
}

const shortOf = (value: unknown) => createHash("sha256").update(JSON.stringify(value)).digest("base64url");

/** Names what queries are over; measures and inputs are not among it, since plans have them bound. */
function nameOf({ tables, scope }: CellData): string {
  const { tables: columns, links, calendar } = scope;
  return shortOf([tables, columns, links, calendar, todayIn(scope.timeZone)]);
}

/** The cells of boards that are looked at: gathered while nothing else is asked, and answered from. */
class BoardCells {
  private entries: Entry[] = [];
  private nextId = 1;
  private answered = 0;
  private scanned = 0;
  private readonly pool = new ThreadPool<CellRequest, CellAnswer>({
    start: () => startThread("cell-worker"),
    most: 1,
    limit: () => settings.queryTime,
    tooLong: "This took too long and was stopped.",
    isHeavy: () => false,
    handOver: (question) => (question.type === "hold" ? buffersIn(question.index) : []),
  });

  /** How it is doing: for /api/health. */
  state() {
    const ready = this.entries.filter((e) => e.isReady);
    return {
      boards: ready.length,
      building: this.entries.length - ready.length,
      bytes: ready.reduce((sum, e) => sum + e.bytes, 0),
      slowest: Math.max(0, ...ready.map((e) => e.took)),
      answered: this.answered,
      scanned: this.scanned,
    };
  }

  /**
   * Gathers cells for a board unless it has them. What it had of other data or for other questions goes when
   * they are there; gathering for other questions is given up. Where a board is only filtered otherwise, what
   * is being gathered may do for that too: others are gathered after it, where it does not.
   */
  async prepare(wanted: Wanted): Promise<void> {
    await this.entryFor(wanted).gathered;
  }

  /**
   * The cells of a board as bytes for a page, without anything that is of single rows, once they are
   * gathered; null where they are too many for one.
   */
  async bytes(wanted: Wanted): Promise<Uint8Array | null> {
    const entry = this.entryFor(wanted);
    await entry.gathered;
    if (!entry.isReady) return null;
    const question: CellRequest = { type: "write", id: entry.id, most: MOST_IN_PAGE };
    const answer = await whileUnderWay(() => this.pool.ask(question, wanted.projectId));
    return "bytes" in answer ? answer.bytes : null;
  }

  /** The cells that a board has or will have. */
  private entryFor(wanted: Wanted): Entry {
    const { projectId, board, data, inputs, asked } = wanted;
    const { now, ...lasting } = asked;
    const [name, what] = [nameOf(data), shortOf([lasting, data.scope.measures, inputs])];
    const filtered = shortOf(now);
    const ofBoard = this.entries.filter((e) => e.projectId === projectId && e.board === board);
    // What was given up stays among them until its thread has heard of it.
    const before = ofBoard.filter((e) => !e.cancel.signal.aborted);
    const found = before.find(
      (e) => e.data === name && e.asked === what && (!e.isReady || (e.now ?? filtered) === filtered),
    );
    if (found) {
      found.latest = wanted;
      return found;
    }
    for (const entry of before) if (!entry.isReady) entry.cancel.abort();
    const entry: Entry = {
      id: this.nextId++,
      board,
      projectId,
      asked: what,
      data: name,
      now: filtered,
      bytes: 0,
      took: 0,
      isReady: false,
      cancel: new AbortController(),
      gathered: Promise.resolve(),
      latest: wanted,
    };
    this.entries.push(entry);
    entry.gathered = this.gather(entry, wanted, before);
    return entry;
  }

  private async gather(entry: Entry, wanted: Wanted, before: Entry[]): Promise<void> {
    const { projectId, data, inputs, asked } = wanted;
    const began = performance.now();
    try {
      const limits = { cells: MOST_CELLS, bytes: settings.memoryLimit * MEMORY_PARTS.cells };
      const { tables, scope } = data;
      const answer = await computeInCalm(
        { type: "cells", tables, scope, inputs, asked, limits },
        projectId,
        entry.cancel.signal,
      );
      if (!("cells" in answer)) return;
      const { isSettled } = answer.cells;
      await this.pool.ask({ type: "hold", id: entry.id, index: answer.cells });
      entry.bytes = answer.bytes;
      entry.took = Math.round(performance.now() - began);
      if (isSettled) entry.now = null;
      entry.isReady = true;
      this.drop(before);
      this.trim();
    } finally {
      if (!entry.isReady) this.entries = this.entries.filter((e) => e !== entry);
    }
    // Finds these where they tell all, and gathers others otherwise.
    if (entry.latest !== wanted) this.prepare(entry.latest).catch(() => {});
  }

  /** Lets go of the boards that were looked at longest ago while they are too many or too large. */
  private trim(): void {
    const most = settings.memoryLimit * MEMORY_PARTS.cells;
    const ready = this.entries.filter((e) => e.isReady);
    let bytes = ready.reduce((sum, e) => sum + e.bytes, 0);
    const gone: Entry[] = [];
    for (const entry of ready) {
      if (ready.length - gone.length <= MOST_BOARDS && bytes <= most) break;
      bytes -= entry.bytes;
      gone.push(entry);
    }
    this.drop(gone);
  }

  private drop(gone: Entry[]): void {
    if (gone.length === 0) return;
    this.entries = this.entries.filter((e) => !gone.includes(e));
    void this.pool.ask({ type: "drop", ids: gone.map((e) => e.id) }).catch(() => {
      // The thread that held them is gone with what it held.
    });
  }

  /** The answers that cells give; null for each query that they do not tell. */
  async answer(
    projectId: string,
    data: CellData,
    inputs: Record<string, Value>,
    queries: Query[],
    signal?: AbortSignal,
  ): Promise<(Result | null)[]> {
    const none = queries.map(() => null);
    const own = this.entries.filter((e) => e.isReady && e.projectId === projectId);
    if (own.length === 0 || queries.length === 0) return none;
    const name = nameOf(data);
    const able = own.filter((e) => e.data === name).reverse();
    if (able.length === 0) return none;
    const question: CellRequest = {
      type: "answer",
      ids: able.map((e) => e.id),
      queries,
      scope: data.scope,
      inputs,
    };
    const answer = await whileUnderWay(() => this.pool.ask(question, projectId, signal));
    if (!("results" in answer)) return none;
    const others = this.entries.filter((e) => !able.includes(e));
    this.entries = [...others, ...able.filter((e) => !answer.missing.includes(e.id)).reverse()];
    const found = answer.results.filter((r) => r !== null).length;
    this.answered += found;
    this.scanned += queries.length - found;
    return answer.results;
  }
}

const shared = globalThis as { cavloCells?: BoardCells };

/** The process's cells of boards. */
export function boardCells(): BoardCells {
  shared.cavloCells ??= new BoardCells();
  return shared.cavloCells;
}
