import { listen } from "@/server/events";

export const dynamic = "force-dynamic";

/** A line that says nothing keeps the connection known to be alive. */
const BEAT = 15_000;

/** One stream a window (server-sent events): what happens to projects, as it happens. */
export function GET(request: Request): Response {
  const encoder = new TextEncoder();
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const unlisten = listen((event) => say(`data: ${JSON.stringify(event)}\n\n`));
      const beat = setInterval(() => say(": still here\n\n"), BEAT);
      stop = () => {
        unlisten();
        clearInterval(beat);
      };
      request.signal.addEventListener("abort", () => {
        stop();
        try {
          controller.close();
        } catch {
          // It was closed from the other side.
        }
      });
      say("retry: 2000\n\n: here\n\n");
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: {
      "content-type": "text/event-stream; charset=utf-8",
      "cache-control": "no-store, no-transform",
    },
  });
}
