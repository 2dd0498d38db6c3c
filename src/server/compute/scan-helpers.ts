import { availableParallelism } from "node:os";
import { MessageChannel, type Worker } from "node:worker_threads";
import { startThread } from "../threads/thread";
import { LIFE } from "./scan-share";

/** One less than there are cores: the thread that began a scan works on it too. */
const HELPERS = Math.min(7, availableParallelism() - 1);

interface Helper {
  worker: Worker;
  /** The words of `LIFE`. */
  life: SharedArrayBuffer;
}

/** The threads that help compute threads with their scans, and the ports between them. */
export class Helpers {
  private helpers: Helper[] = [];
  private readonly threads = new Set<Worker>();
  private chunksOfLost = 0;

  /** `memory` is what each may keep, in bytes. */
  constructor(private readonly memory: number) {}

  /** Gives a compute thread a port to every helper, which are started with the first. */
  connect(thread: Worker): void {
    this.threads.add(thread);
    thread.on("exit", () => this.threads.delete(thread));
    while (this.helpers.length < HELPERS) this.start();
    for (const helper of this.helpers) join(helper, thread);
  }

  /** How many there are, and how many chunks of scans they took. */
  state(): { threads: number; chunks: number } {
    const chunks = this.helpers.reduce((sum, h) => sum + chunksOf(h), this.chunksOfLost);
    return { threads: this.helpers.length, chunks };
  }

  private start(): void {
    const life = new SharedArrayBuffer(8);
    const worker = startThread("scan-helper", { memory: this.memory, life });
    worker.unref();
    const helper: Helper = { worker, life };
    Atomics.store(new Int32Array(life), LIFE.alive, 1);
    this.helpers.push(helper);
    const lost = () => {
      if (!this.helpers.includes(helper)) return;
      Atomics.store(new Int32Array(life), LIFE.alive, 0);
      this.chunksOfLost += chunksOf(helper);
      this.helpers = this.helpers.filter((h) => h !== helper);
      // Another takes its place, for all who are still there.
      if (this.threads.size === 0) return;
      this.start();
      for (const thread of this.threads) join(this.helpers[this.helpers.length - 1], thread);
    };
    worker.on("error", lost);
    worker.on("exit", lost);
  }
}

const chunksOf = ({ life }: Helper) => Atomics.load(new Int32Array(life), LIFE.chunks);

function join({ worker, life }: Helper, thread: Worker): void {
  const { port1, port2 } = new MessageChannel();
  worker.postMessage({ port: port1 }, [port1]);
  thread.postMessage({ helper: { port: port2, life } }, [port2]);
}
