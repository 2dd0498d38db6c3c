import { parentPort } from "node:worker_threads";
import { LimitError } from "@/core/base/limit-error";
import { QueryError } from "@/core/plan/query-error";
import type { FromThread, ToThread } from "./pool";

/** The status that a problem of a query has, where it is not 400: what is asked wrongly. */
const STATUS = new Map([
  ["too_long", 503],
  ["cancelled", 499],
  ["damaged", 409],
]);

/**
 * What a problem is told as: what the person can mend as an error, what the machine did not do as a fault.
 */
function told(
  error: unknown,
):
  | { error: { status: number; code: string; message: string } }
  | { fault: { code: string; message: string } } {
  if (error instanceof QueryError)
    return { error: { status: STATUS.get(error.code) ?? 400, code: error.code, message: error.message } };
  if (error instanceof LimitError) return { error: { status: 400, code: "limit", message: error.message } };
  if (error instanceof RangeError && /call stack/.test(error.message))
    return {
      error: {
        status: 400,
        code: "limit",
        message: "A formula is too deep to compute. Move a part of it into a measure of its own.",
      },
    };
  return {
    fault: {
      code: String((error as { code?: unknown } | null)?.code ?? ""),
      message: error instanceof Error ? (error.stack ?? error.message) : String(error),
    },
  };
}

/**
 * Answers the questions of a pool in a worker thread. `news` gives what the thread has to tell besides, once
 * for each answer; `handOver` the memory of an answer that is handed over instead of copied.
 */
export function answerInThread<Q, A, M, N>(
  answer: (question: Q, more: M) => A | Promise<A>,
  news?: () => N,
  handOver: (answer: A) => ArrayBuffer[] = () => [],
): void {
  parentPort?.on("message", async (message: ToThread<Q, M>) => {
    if (typeof message.id !== "number") return;
    const { id, question, more } = message;
    let outcome: FromThread<A, N>;
    let memory: ArrayBuffer[] = [];
    try {
      const given = await answer(question, more);
      memory = handOver(given);
      outcome = { id, answer: given };
    } catch (error) {
      outcome = { id, ...told(error) };
    }
    parentPort?.postMessage({ ...outcome, news: news?.() }, memory);
  });
}
