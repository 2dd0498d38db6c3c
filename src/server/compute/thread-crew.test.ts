import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { availableParallelism, tmpdir } from "node:os";
import { join } from "node:path";
import { MessageChannel, receiveMessageOnPort } from "node:worker_threads";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ScanTask } from "@/core/engine/crew";
import { runQueries } from "@/core/engine/run";
import { querySchema } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import { emptyProject, tableSchema } from "@/core/project/schema";
import { settings } from "../settings";
import { TableWriter } from "../store/table-files";
import { compute, computeState } from "./client";
import { buffersIn, HELPER, type HelpAsked, WORK } from "./scan-share";
import { TableCache } from "./table-cache";
import { ThreadCrew } from "./thread-crew";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-crew-"));
  mkdirSync(join(settings.data, "tables"));
});
afterAll(() => rmSync(settings.data, { recursive: true }));

const TASK: ScanTask = { filters: [], selections: [], today: null };
const SCOPE = { tables: [], measures: [], inputs: [] };

/** A crew of one helper that this test plays itself. */
function played(life = Int32Array.from([1, 0])) {
  const crew = new ThreadCrew(new SharedArrayBuffer(4));
  const { port1, port2 } = new MessageChannel();
  const shared = new SharedArrayBuffer(8);
  new Int32Array(shared).set(life);
  crew.add(port2, shared);
  const table = { name: "rows", version: "1", rows: 300_000, columns: [] };
  const found = crew.for(SCOPE, null, () => ({ info: { id: "rows" } as never, table, columns: [] }));
  const work = found?.begin("rows", TASK, 3, 100_000);
  const asked = () => receiveMessageOnPort(port1)?.message as HelpAsked;
  return { found, work, asked, port: port1, life: new Int32Array(shared), close: () => port1.close() };
}

it("memory is handed over, not copied, wherever it stands in a share", () => {
  const [marks, sums, rows] = [new Int32Array(4), new Float64Array(2), new Int32Array(3)];
  const share = {
    keys: [["a", "b"]],
    counts: rows,
    accumulators: [["count(distinct x)", { marks, pairs: null }]],
    ordered: [{ chunk: 1, states: [["sum(y)", { sums, counts: rows }]] }],
  };
  expect(new Set(buffersIn([share]))).toEqual(new Set([marks.buffer, sums.buffer, rows.buffer]));
  expect(buffersIn({ shared: new Int32Array(new SharedArrayBuffer(8)) })).toEqual([]);
});

describe("the crew of a compute thread", () => {
  it("waits for what a helper has begun and takes its share", () => {
    const { work, asked, port, close } = played();
    const { id, work: memory, at } = asked();
    const words = new Int32Array(memory);
    expect([work?.next(), work?.next(), work?.next(), work?.next()]).toEqual([0, 1, 2, -1]);
    const share: never[] = [];
    port.postMessage({ id: id - 1, shares: [], forgot: true });
    port.postMessage({ id, shares: [share], forgot: false });
    Atomics.store(words, WORK.helpers + at, HELPER.done);
    expect(work?.finish()).toEqual([share]);
    close();
  });

  it("does not wait for a helper that has not begun, and leaves it nothing", () => {
    const { work, asked, close } = played();
    const words = new Int32Array(asked().work);
    expect(work?.finish()).toEqual([]);
    expect(Atomics.load(words, WORK.helpers)).toBe(HELPER.closed);
    expect(work?.next()).toBe(-1);
    close();
  });

  it("goes on alone where a helper fails or dies at work, and asks no dead one", () => {
    const failing = played();
    const asked = failing.asked();
    failing.port.postMessage({ id: asked.id, shares: null, forgot: false });
    Atomics.store(new Int32Array(asked.work), WORK.helpers, HELPER.done);
    expect(failing.work?.finish()).toBeNull();
    failing.close();
    const dying = played();
    Atomics.store(new Int32Array(dying.asked().work), WORK.helpers, HELPER.working);
    Atomics.store(dying.life, 0, 0);
    expect(dying.work?.finish()).toBeNull();
    dying.close();
    const dead = played(Int32Array.from([0, 0]));
    expect(dead.found).toBeUndefined();
    dead.close();
  });

  it("gives what one thread gives, to the last bit, for derived columns and sums of any numbers", async () => {
    const writer = new TableWriter("wide", 3);
    for (let i = 0; i < 200_000; i++)
      writer.add([
        `Route ${(i * 7919) % 31}`,
        i % 11 === 0 ? null : String(((i * 104_729) % 1000) / 100),
        String(Math.sin(i) * 10 ** (i % 9)),
      ]);
    writer.finish();
    const info = tableSchema.parse({
      id: "wide",
      name: "wide",
      rows: 200_000,
      columns: [
        { name: "route", reading: { type: "text" } },
        { name: "fare", reading: { type: "number" } },
        { name: "drift", reading: { type: "number" } },
      ],
      derived: [{ name: "both", formula: "fare * drift" }],
      source: { file: "" },
    });
    const scope = scopeOf({ ...emptyProject("p"), tables: [info] });
    const queriesFrom = (from: number) =>
      ["sum(drift)", "avg(both)", "sum(fare)", "median(drift)", "stddev_pop(both)"].map((formula) =>
        querySchema.parse({
          table: "wide",
          measures: [{ formula, as: "m" }],
          splits: [{ column: "route" }],
          filters: [{ column: "fare", from, to: 8.5 }],
        }),
      );
    const plain = (results: unknown[]) => results.map((r) => ({ ...(r as object), ms: 0 }));
    const isHelped = () => computeState().helpers.chunks > 0;
    const tables = [new TableCache(1e9).table(info)];
    // On a busy machine one thread may be through before its helpers begin: then it is asked something else.
    for (let i = 0; i < 40 && (i === 0 || (availableParallelism() > 1 && !isHelped())); i++) {
      const queries = queriesFrom(1.05 + i / 100);
      const answer = await compute({ type: "results", tables: [info], scope, inputs: {}, queries });
      const alone = runQueries(queries, { tables, scope, inputs: {} });
      expect(plain("results" in answer ? answer.results : [])).toEqual(plain(alone));
    }
    expect(isHelped()).toBe(availableParallelism() > 1);
  }, 60_000);
});
