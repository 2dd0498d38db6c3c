import { availableParallelism } from "node:os";
import { MessageChannel, type MessagePort, receiveMessageOnPort } from "node:worker_threads";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { startThread } from "../threads/thread";
import { type BuilderData, type BuilderOrder, type BuilderSays, WORDS } from "./builder-protocol";
import { BatchMaker, eachRow, type RowBatch } from "./row-batches";
import { type ReadColumns, TableBuilder } from "./table-builder";

/** Batches of rows that wait to be built here; with more of them a thread of their own pays. */
const FEW = 4;
/** Batches that may wait for that thread, so that memory stays small where the disk is slow. */
const MOST_WAITING = 16;
/** How long the thread is waited for without a sign of it, in milliseconds. */
const PATIENCE = 600_000;

/** The other end of a thread that builds a table. Waits for it without giving way to other work. */
class BuilderThread {
  private readonly words = new Int32Array(new SharedArrayBuffer(8));
  private readonly port: MessagePort;
  private ordered = 0;

  constructor(id: string, columns: number) {
    const { port1, port2 } = new MessageChannel();
    const data: BuilderData = { id, columns, words: this.words.buffer as SharedArrayBuffer };
    startThread("table-builder", { ...data, port: port2 }, [port2]).unref();
    this.port = port1;
    this.port.unref();
  }

  /** Has rows taken once those before them are. Throws where earlier ones could not be. */
  add(batch: RowBatch): void {
    this.order(batch, MOST_WAITING);
  }

  finish(names: string[], separator?: string): ReadColumns {
    this.order({ finish: { names, separator } }, 0);
    const said = this.said();
    this.port.close();
    if (!said || !("finished" in said)) throw new Error("the thread that built a table has not said how");
    return said.finished;
  }

  /** Ends the thread, which then leaves nothing behind; one that failed has left nothing. */
  abandon(): void {
    if (!Atomics.load(this.words, WORDS.failed)) this.order({ abandon: true }, 0);
    this.port.close();
  }

  /** Waits until no more than `waiting` orders are left. */
  private order(order: BuilderOrder, waiting: number): void {
    this.port.postMessage(order, "lengths" in order ? [order.lengths.buffer] : []);
    this.ordered++;
    for (;;) {
      const done = Atomics.load(this.words, WORDS.done);
      if (Atomics.load(this.words, WORDS.failed)) throw this.fault();
      if (this.ordered - done <= waiting) return;
      if (Atomics.wait(this.words, WORDS.done, done, PATIENCE) === "timed-out")
        throw new Error("the thread that builds a table does not answer");
    }
  }

  private said(): BuilderSays | undefined {
    return receiveMessageOnPort(this.port)?.message;
  }

  private fault(): Error {
    const said = this.said();
    if (!said || !("fault" in said)) return new Error("an earlier row could not be stored");
    return Object.assign(new Error(said.fault.message), { code: said.fault.code });
  }
}

/**
 * Builds a table as `TableBuilder` does: a small one in this thread, a long one in a thread beside it, so that
 * reading a file and storing it share two cores.
 */
export class ThreadedBuilder {
  private readonly batches: BatchMaker;
  private few: RowBatch[] = [];
  /** What builds the table once rows are not few: a thread, or this one where there is one core alone. */
  private builder: BuilderThread | TableBuilder | null = null;
  rows = 0;

  constructor(
    readonly id: string,
    private readonly columns: number,
  ) {
    this.batches = new BatchMaker(columns);
  }

  /**
   * Takes a row; `kinds` says what each cell is where the file's values have types of their own. Throws where
   * an earlier row could not be stored.
   */
  add(cells: Cell[], kinds?: (CellKind | undefined)[]): void {
    this.rows++;
    const batch = this.batches.add(cells, kinds);
    if (!batch) return;
    if (this.builder) this.give(this.builder, batch);
    else if (this.few.push(batch) > FEW)
      this.begin(
        availableParallelism() === 1
          ? new TableBuilder(this.id, this.columns)
          : new BuilderThread(this.id, this.columns),
      );
  }

  /** Ends the table and gives how its columns are read, as `TableBuilder` does. */
  finish(names: string[], separator?: string): ReadColumns {
    const builder = this.builder ?? this.begin(new TableBuilder(this.id, this.columns));
    this.give(builder, this.batches.rest());
    return builder.finish(names, separator);
  }

  /** Leaves nothing behind, also where something could not be stored. */
  abandon(): void {
    this.few = [];
    this.builder?.abandon();
  }

  private begin(builder: BuilderThread | TableBuilder): BuilderThread | TableBuilder {
    this.builder = builder;
    for (const batch of this.few.splice(0)) this.give(builder, batch);
    return builder;
  }

  private give(builder: BuilderThread | TableBuilder, batch: RowBatch): void {
    if (builder instanceof BuilderThread) builder.add(batch);
    else eachRow(batch, this.columns, (row, kinds) => builder.add(row, kinds));
  }
}
