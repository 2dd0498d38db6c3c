import { type MessagePort, parentPort, workerData } from "node:worker_threads";
import { helpScan } from "@/core/engine/scan";
import { TableSources } from "@/core/engine/table-source";
import { compileLoops } from "../threads/compile-loops";
import { stopFlag } from "../threads/stop-flag";
import { buffersIn, HELPER, type HelpAsked, type HelpGiven, LIFE, nextChunk, WORK } from "./scan-share";
import { TableCache } from "./table-cache";

const { memory, life } = workerData as { memory: number; life: SharedArrayBuffer };
const lived = new Int32Array(life);
const tables = new TableCache(memory);
compileLoops();

/** Takes a share of a scan; gives it, or null where that fails: whoever began it goes on alone. */
function help(asked: HelpAsked): HelpGiven["shares"] {
  const table = tables.table(asked.info);
  const { scope, today, chunk, task } = asked;
  const sources = new TableSources([table], scope, today, stopFlag(asked.stop), undefined, chunk);
  const source = sources.of(table.name);
  table.computed ??= new Map();
  for (const [name, computed] of asked.computed)
    table.computed.set(name, { version: source.version, ...computed });
  const work = new Int32Array(asked.work);
  if (Atomics.compareExchange(work, WORK.helpers + asked.at, HELPER.asked, HELPER.working) !== HELPER.asked)
    return null;
  try {
    const share = helpScan(source, task, () => {
      const taken = nextChunk(work);
      if (taken >= 0) Atomics.add(lived, LIFE.chunks, 1);
      return taken;
    });
    return share ? [share] : [];
  } catch {
    return null;
  }
}

function answer(port: MessagePort, asked: HelpAsked): void {
  tables.give(asked.given);
  const shares = help(asked);
  const work = new Int32Array(asked.work);
  const word = WORK.helpers + asked.at;
  const forgot = tables.trim() > 0;
  if (Atomics.load(work, word) === HELPER.working) {
    const given: HelpGiven = { id: asked.id, shares, forgot };
    port.postMessage(given, buffersIn(shares));
    Atomics.store(work, word, HELPER.done);
    Atomics.notify(work, word);
  } else if (forgot) port.postMessage({ id: 0, shares: null, forgot } satisfies HelpGiven);
}

// Each compute thread has a port of its own.
parentPort?.on("message", ({ port }: { port: MessagePort }) => {
  port.on("message", (message: HelpAsked | { forget: string[] }) => {
    if ("forget" in message) tables.forget(message.forget);
    else answer(port, message);
  });
});
