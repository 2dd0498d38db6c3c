import type { Worker } from "node:worker_threads";
import { HttpError } from "../http/errors";
import { startThread } from "../thread";
import type { ComputeAnswer, ComputeRequest } from "./protocol";

type Waiting = { resolve: (answer: ComputeAnswer) => void; reject: (error: unknown) => void };

/** The compute worker thread and the questions it has not answered yet. It starts with the first question, and again after a crash. */
class ComputeClient {
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private next = 1;

  private start(): Worker {
    const worker = startThread("compute-worker");
    worker.unref();
    worker.on("message", ({ id, answer, error }: { id: number; answer?: ComputeAnswer; error?: { known: boolean; code: string; message: string } }) => {
      const waiting = this.waiting.get(id);
      this.waiting.delete(id);
      if (this.waiting.size === 0) worker.unref();
      if (answer) waiting?.resolve(answer);
      else waiting?.reject(error?.known ? new HttpError(400, error.code, error.message) : new Error(error?.message));
    });
    worker.on("error", (error) => this.fail(error));
    worker.on("exit", () => this.fail(new Error("the compute worker ended")));
    return worker;
  }

  private fail(error: unknown): void {
    this.worker = null;
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }

  ask(request: ComputeRequest): Promise<ComputeAnswer> {
    this.worker ??= this.start();
    const worker = this.worker;
    const id = this.next++;
    worker.ref();
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      worker.postMessage({ id, request });
    });
  }

  async stop(): Promise<void> {
    await this.worker?.terminate();
  }
}

const shared = globalThis as { cavloCompute?: ComputeClient };

/** Asks the process's compute worker. */
export function compute(request: ComputeRequest): Promise<ComputeAnswer> {
  shared.cavloCompute ??= new ComputeClient();
  return shared.cavloCompute.ask(request);
}

export async function stopCompute(): Promise<void> {
  await shared.cavloCompute?.stop();
}
