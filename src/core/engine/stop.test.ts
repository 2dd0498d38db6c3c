import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { bytesIn } from "../data/bytes-in";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { scanWith, takeLoops } from "./loops/current-loops";
import type { Loops } from "./loops/loops";
import { runQueries, ScanCache } from "./run";
import type { StopReason } from "./stop";

const ROWS = 100_000;
const table = madeTable("t", {
  k: ["text", Array.from({ length: ROWS }, (_, i) => `k${i % 50}`)],
  n: ["number", Array.from({ length: ROWS }, (_, i) => i)],
});
const catalog = {
  scope: { tables: [{ name: "t", columns: scopeColumns(table) }], measures: [], inputs: [] },
  inputs: {},
  tables: [table],
};
const query = (formula: string, split = true) =>
  querySchema.parse({ table: "t", measures: [{ formula, as: "m" }], splits: split ? [{ column: "k" }] : [] });

describe("the stop flag", () => {
  it("is asked between blocks, and ends a scan with its reason", () => {
    for (const reason of ["too_long", "cancelled"] as StopReason[]) {
      let asked = 0;
      const [result] = runQueries([query("sum(n)")], {
        ...catalog,
        stop: () => (++asked > 10 ? reason : null),
      });
      expect(result).toBeInstanceOf(QueryError);
      expect((result as QueryError).code).toBe(reason);
      expect(asked).toBeLessThan(14);
    }
  });

  it("and a query that cannot be answered leave the loops of their scans to others", () => {
    const loops = takeLoops();
    loops.end();
    let open = 0;
    const counted: Loops = Object.create(loops, { end: { value: () => open-- } });
    const before = scanWith(() => {
      open++;
      return counted;
    });
    try {
      let asked = 0;
      const stop = (): StopReason | null => (++asked > 10 ? "cancelled" : null);
      const [stopped] = runQueries([query("sum(n + 1)")], { ...catalog, stop });
      expect(stopped).toMatchObject({ code: "cancelled" });
      const wrong = { ...query("sum(n)"), filters: [{ column: "n", from: "many" }] };
      expect(runQueries([wrong], catalog)[0]).toMatchObject({ code: "bad_filter" });
      expect(runQueries([query("sum(n)")], catalog)[0]).toMatchObject({ rows: 50 });
      expect(open).toBe(0);
    } finally {
      scanWith(before);
    }
  });

  it("spoils only what it stops: what was gathered before is answered", () => {
    const cache = new ScanCache();
    const first = query("sum(n)");
    runQueries([first], catalog, cache);
    let asked = 0;
    const [again, stopped] = runQueries(
      [first, query("max(n)", false)],
      { ...catalog, stop: () => (++asked > 8 ? "too_long" : null) },
      cache,
    );
    expect(again).toMatchObject({ rows: 50 });
    expect(stopped).toMatchObject({ code: "too_long" });
  });
});

describe("what scans gathered", () => {
  it("is kept within a bound of bytes, the least recently used going first", () => {
    const cache = new ScanCache(60_000);
    for (let i = 0; i < 40; i++) runQueries([query(`sum(n + ${i})`)], catalog, cache);
    expect(cache.bytes).toBeLessThanOrEqual(60_000);
    expect(cache.bytes).toBeGreaterThan(5_000);
    // What is larger than the bound alone is not kept at all.
    const small = new ScanCache(100);
    runQueries([query("sum(n)")], catalog, small);
    expect(small.bytes).toBe(0);
  });

  it("is measured by what it holds, whatever it is made of", () => {
    expect(bytesIn(new Float64Array(1000))).toBeGreaterThanOrEqual(8000);
    expect(bytesIn("x".repeat(1000))).toBeGreaterThanOrEqual(2000);
    expect(bytesIn(new Map([["a", new Int32Array(500)]]))).toBeGreaterThanOrEqual(2000);
    const shared = new Float64Array(1000);
    expect(bytesIn([shared, shared, shared])).toBeLessThan(10_000);
    const round: { self?: unknown } = {};
    round.self = round;
    expect(bytesIn(round)).toBeLessThan(200);
  });
});
