import { handle } from "@/server/http/handle";
import { verifyFolder } from "@/server/keep/verify";

/** Answers with lines of JSON, one for each step: how far it has come, and what it found there. */
export const POST = handle((request) => {
  const encoder = new TextEncoder();
  const steps = verifyFolder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      // Between steps others are answered.
      await new Promise(setImmediate);
      const { value, done } = steps.next();
      if (done || request.signal.aborted) controller.close();
      else controller.enqueue(encoder.encode(`${JSON.stringify(value)}\n`));
    },
    cancel: () => void steps.return(undefined),
  });
  return new Response(body, {
    headers: { "content-type": "application/x-ndjson; charset=utf-8", "cache-control": "no-store" },
  });
});
