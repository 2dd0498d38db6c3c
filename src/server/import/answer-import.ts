import { QueryError } from "@/core/plan/query-error";
import { HttpError, internalMessage } from "../http/errors";
import { faultAnswer, faultOf } from "../store/disk-fault";
import type { ImportedTable } from "./import-table";
import type { Follower } from "./progress";

/**
 * Answers with lines of JSON: progress as it goes, then the table or the error. A closed connection cancels
 * the work.
 */
export function answerImport(
  request: Request,
  work: (follower: Follower) => Promise<ImportedTable>,
): Response {
  const cancel = new AbortController();
  request.signal.addEventListener("abort", () => cancel.abort(), { once: true });
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      const line = (value: unknown) => {
        if (!cancel.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(value)}\n`));
      };
      try {
        line(
          await work({ progress: (share, rows) => line({ progress: share, rows }), signal: cancel.signal }),
        );
      } catch (error) {
        const fault = faultOf(error);
        const known = fault
          ? faultAnswer(fault)
          : error instanceof HttpError || error instanceof QueryError
            ? error
            : null;
        if (!known && !cancel.signal.aborted) console.error(error);
        line({
          error: known
            ? { code: known.code, message: known.message }
            : { code: "internal", message: internalMessage(error) },
        });
      }
      if (!cancel.signal.aborted) controller.close();
    },
    cancel: () => cancel.abort(),
  });
  return new Response(body, {
    headers: { "content-type": "application/x-ndjson; charset=utf-8", "cache-control": "no-store" },
  });
}
