import type { EngineAnswer, EngineRequest } from "./engine-protocol";
import { places } from "./places";

type Ask = (request: EngineRequest) => Promise<EngineAnswer>;

/** How long a worker has to answer for the first time before the page computes itself, in milliseconds. */
const PATIENCE = 4000;

const away = (why: unknown): EngineAnswer => ({
  error: {
    code: "engine",
    message: `cavlo-engine.js cannot be had (${why instanceof Error ? why.message : String(why)}). Put it beside the other modules.`,
  },
});

/** The engine in the page itself, where no worker is allowed. */
async function inPage(): Promise<Ask> {
  const { answerEngine } = (await import(/* @vite-ignore */ places.engine())) as { answerEngine: Ask };
  return answerEngine;
}

/** The engine in a worker. Rejects where the page allows none. */
function inWorker(): Promise<Ask> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(places.engine(), { type: "module", name: "cavlo-engine" });
    const waiting = new Map<number, (answer: EngineAnswer) => void>();
    let [next, isThere] = [1, false];
    const ask: Ask = (request) =>
      new Promise((answered) => {
        waiting.set(next, answered);
        worker.postMessage({ number: next++, request });
      });
    const fail = (why: unknown) => {
      worker.terminate();
      for (const answered of waiting.values()) answered(away(why));
      // What it held is gone with it: whoever asks next starts another.
      if (isThere) engine = null;
      else reject(why instanceof Error ? why : new Error(String(why)));
    };
    const late = setTimeout(() => fail("the worker does not answer"), PATIENCE);
    worker.addEventListener("error", (event) => {
      clearTimeout(late);
      event.preventDefault();
      fail(event.message || "no worker is allowed");
    });
    worker.addEventListener("message", ({ data }: MessageEvent<{ number: number; answer: EngineAnswer }>) => {
      waiting.get(data.number)?.(data.answer);
      waiting.delete(data.number);
    });
    void ask({ type: "drop", id: 0 }).then(() => {
      isThere = true;
      clearTimeout(late);
      resolve(ask);
    });
  });
}

let engine: Promise<Ask> | null = null;

/** Asks the engine of this page, which is started when it is first asked; it never rejects. */
export async function askEngine(request: EngineRequest): Promise<EngineAnswer> {
  try {
    engine ??= Promise.resolve().then(inWorker).catch(inPage);
    return await (await engine)(request);
  } catch (why) {
    engine = null;
    return away(why);
  }
}
