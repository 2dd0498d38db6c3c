// The thread that builds the table of a long import, while another reads the file.
import { type MessagePort, workerData } from "node:worker_threads";
import { type BuilderData, type BuilderOrder, type BuilderSays, WORDS } from "./builder-protocol";
import { eachRow } from "./row-batches";
import { TableBuilder } from "./table-builder";

const { id, columns, port, words: shared } = workerData as BuilderData & { port: MessagePort };
const words = new Int32Array(shared);
const say = (said: BuilderSays) => port.postMessage(said);
let builder: TableBuilder | null = null;

function obey(order: BuilderOrder): void {
  builder ??= new TableBuilder(id, columns);
  if ("finish" in order) say({ finished: builder.finish(order.finish.names, order.finish.separator) });
  else if ("abandon" in order) builder.abandon();
  else eachRow(order, columns, (row, kinds) => builder?.add(row, kinds));
}

port.on("message", (order: BuilderOrder) => {
  let ends = "finish" in order || "abandon" in order;
  try {
    obey(order);
  } catch (error) {
    const { code, message, stack } = error as Error & { code?: unknown };
    if (!("abandon" in order)) builder?.abandon();
    say({ fault: { code: String(code ?? ""), message: stack ?? message } });
    Atomics.store(words, WORDS.failed, 1);
    ends = true;
  }
  Atomics.add(words, WORDS.done, 1);
  Atomics.notify(words, WORDS.done);
  if (ends) port.close();
});
