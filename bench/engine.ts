// The engine beside SQLite (better-sqlite3) and DuckDB (its Node.js package, all threads) over the same rows
// in one run. node bench/run.mjs engine [rows]; the peers are installed with: npm --prefix bench install
import { createRequire } from "node:module";
import { availableParallelism } from "node:os";
import { MessageChannel, Worker } from "node:worker_threads";
import Database from "better-sqlite3";
import { isoDate } from "@/core/base/calendar";
import { ColumnBuilder, type ColumnType, type Table, tableBytes } from "@/core/data/column";
import { runQueries, ScanCache } from "@/core/engine/run";
import { type QueryInput, querySchema } from "@/core/plan/query";
import { seeded } from "@/demo/random";
import { columnKey } from "@/server/compute/table-cache";
import { ThreadCrew } from "@/server/compute/thread-crew";
import { columnOf, shareColumn } from "@/server/store/shared-column";
import { compileLoops } from "@/server/threads/compile-loops";
import { ms, timed, timedInTurn } from "./median";

/**
 * What is used of the peer; it is installed with the benchmarks alone, so that its own types are not there
 * for the application.
 */
interface Peer {
  DuckDBInstance: { create(path: string): Promise<{ connect(): Promise<Connection> }> };
}
interface Connection {
  run(sql: string): Promise<unknown>;
  prepare(sql: string): Promise<{ run(): Promise<{ getRows(): Promise<unknown[]> }> }>;
  createAppender(table: string): Promise<{
    appendVarchar(value: string): void;
    appendDate(value: { days: number }): void;
    appendDouble(value: number): void;
    endRow(): void;
    flushSync(): void;
  }>;
}

compileLoops();
const { DuckDBInstance } = createRequire(new URL("../bench/package.json", import.meta.url))(
  "@duckdb/node-api",
) as Peer;
const ROWS = Number(process.argv[3] ?? 1_000_000);
const COLUMNS: [string, ColumnType, string][] = [
  ["route", "text", "varchar"],
  ["vessel", "text", "varchar"],
  ["day", "date", "date"],
  ["passengers", "number", "double"],
  ["delay", "number", "double"],
  ["revenue", "number", "double"],
  ["ticket", "text", "varchar"],
  ["code", "number", "double"],
];
const random = seeded(1);
const builders = COLUMNS.map(([, type]) => new ColumnBuilder(type, ROWS));
const sqlite = ROWS <= 1_000_000 ? new Database(":memory:") : null;
sqlite?.exec(
  `create table rows (${COLUMNS.map(([name, type]) => `${name} ${type === "text" || type === "date" ? "text" : "real"}`).join(", ")})`,
);
const insert = sqlite?.prepare(`insert into rows values (${COLUMNS.map(() => "?").join(", ")})`);
const duck = await (await DuckDBInstance.create(":memory:")).connect();
await duck.run(`create table rows (${COLUMNS.map(([name, , type]) => `${name} ${type}`).join(", ")})`);
const appender = await duck.createAppender("rows");
sqlite?.exec("begin");
for (let i = 0; i < ROWS; i++) {
  const route = `Route ${Math.floor(random() * 24)}`;
  const vessel = `Vessel ${Math.floor(random() * 417)}`;
  const day = 19_723 + Math.floor(random() * 900);
  const passengers = Math.floor(random() * 120);
  const delay = Math.floor(random() * 40) - 5;
  const revenue = Math.round(random() * 90_000) / 100;
  const ticket = `T${Math.floor(random() * 50_000)}`;
  const code = Math.floor(random() * 200_000);
  for (const [k, value] of [route, vessel, day, passengers, delay, revenue, ticket, code].entries())
    builders[k].add(value);
  appender.appendVarchar(route);
  appender.appendVarchar(vessel);
  appender.appendDate({ days: day });
  appender.appendDouble(passengers);
  appender.appendDouble(delay);
  appender.appendDouble(revenue);
  appender.appendVarchar(ticket);
  appender.appendDouble(code);
  appender.endRow();
  insert?.run(route, vessel, isoDate(day), passengers, delay, revenue, ticket, code);
}
appender.flushSync();
sqlite?.exec("commit");

const finished = builders.map((b) => b.finish());
const shared = finished.map(shareColumn);
const table: Table = {
  name: "rows",
  version: "1",
  rows: ROWS,
  columns: COLUMNS.map(([name], k) => ({ name, data: columnOf(shared[k]) })),
};
const scope = {
  tables: [{ name: "rows", columns: COLUMNS.map(([name, type]) => ({ name, type })) }],
  measures: [
    { name: "carried", formula: "sum(passengers)", table: "rows" },
    { name: "to_goal", formula: "carried / :goal", table: "rows" },
  ],
  inputs: [{ name: "goal", type: "number" as const }],
};
const catalog = { tables: [table], inputs: { goal: 5 }, scope };

// The helpers that the server gives a compute thread: one less than there are cores.
const info = {
  id: "rows",
  name: "rows",
  rows: ROWS,
  columns: COLUMNS.map(([name, type]) => ({ name, reading: { type } })),
  derived: [],
} as never;
const given = shared.map((column, at) => ({
  table: "rows",
  key: columnKey(at, { type: COLUMNS[at][1] }),
  column,
}));
const crews = new ThreadCrew(new SharedArrayBuffer(4));
for (let i = 1; i < availableParallelism(); i++) {
  const life = new SharedArrayBuffer(8);
  const worker = new Worker("./dist/scan-helper.mjs", { workerData: { memory: 1e9, life } });
  const { port1, port2 } = new MessageChannel();
  new Int32Array(life)[0] = 1;
  worker.postMessage({ port: port1 }, [port1]);
  crews.add(port2, life);
}
const alone = process.argv.includes("alone");
const crew = alone ? undefined : crews.for(scope, null, () => ({ info, table, columns: given }));
const ask = (query: QueryInput) => querySchema.parse({ table: "rows", ...query });
const run = (queries: ReturnType<typeof ask>[], cache = new ScanCache()) => {
  for (const result of runQueries(queries, { ...catalog, crew }, cache))
    if (!("rows" in result)) throw result;
};

const three: QueryInput = {
  measures: [
    { formula: "sum(passengers)", as: "a" },
    { formula: "avg(delay)", as: "b" },
    { formula: "count(*) filter (where delay <= 3)", as: "c" },
  ],
  splits: [{ column: "route" }],
  filters: [{ column: "delay", from: 0, to: 30 }],
};
const cases: { label: string; query: QueryInput; sql: string; sqlite?: string | null }[] = [
  {
    label: "three measures by a text, range filter",
    query: three,
    sql: "select route, sum(passengers), avg(delay), count(*) filter (where delay <= 3) from rows where delay between 0 and 30 group by route",
  },
  {
    label: "count(distinct) of a text",
    query: { measures: [{ formula: "count(distinct ticket)", as: "a" }] },
    sql: "select count(distinct ticket) from rows",
  },
  {
    label: "count(distinct) of a number",
    query: { measures: [{ formula: "count(distinct code)", as: "a" }] },
    sql: "select count(distinct code) from rows",
  },
  {
    label: "count(distinct) of a number by a text",
    query: { measures: [{ formula: "count(distinct code)", as: "a" }], splits: [{ column: "vessel" }] },
    sql: "select vessel, count(distinct code) from rows group by vessel",
  },
  {
    label: "median",
    query: { measures: [{ formula: "median(revenue)", as: "a" }], splits: [{ column: "route" }] },
    sql: "select route, median(revenue) from rows group by route",
    sqlite: null,
  },
  {
    label: "two splits, 10,008 groups",
    query: {
      measures: [{ formula: "sum(revenue)", as: "a" }],
      splits: [{ column: "route" }, { column: "vessel" }],
    },
    sql: "select route, vessel, sum(revenue) from rows group by route, vessel",
  },
  {
    label: "filtered ratio by a text",
    query: {
      measures: [
        {
          formula: "count(*) filter (where delay <= 3) / nullif(count(*) filter (where passengers > 10), 0)",
          as: "a",
        },
      ],
      splits: [{ column: "vessel" }],
    },
    sql: "select vessel, count(*) filter (where delay <= 3) / nullif(count(*) filter (where passengers > 10), 0) from rows group by vessel",
  },
  {
    label: "sum by month",
    query: { measures: [{ formula: "sum(revenue)", as: "a" }], splits: [{ column: "day", by: "month" }] },
    sql: "select date_trunc('month', day), sum(revenue) from rows group by 1",
    sqlite: "select substr(day, 1, 7), sum(revenue) from rows group by 1",
  },
];

const times = ROWS > 2_000_000 ? 5 : 15;
console.log(
  `${ROWS.toLocaleString("en")} rows, medians of ${times} in turn, ${alone ? "one thread" : `${availableParallelism()} threads`}`,
);
console.log(
  `columns in memory: ${(tableBytes(table) / 1e6).toFixed(0)} MB, ${(tableBytes(table) / (8 * ROWS * COLUMNS.length)).toFixed(2)} times eight bytes a value`,
);
const only = process.argv.slice(4).find((word) => word !== "alone");
for (const { label, query, sql, sqlite: sqliteSql } of cases) {
  if (only && !label.includes(only)) continue;
  const q = ask(query);
  const prepared = await duck.prepare(sql);
  const theirRows = async () => (await prepared.run()).getRows();
  const [ours, theirs] = await timedInTurn([() => run([q]), theirRows], times, 3);
  const statement = sqliteSql === null ? null : sqlite?.prepare(sqliteSql ?? sql);
  const lite = statement ? timed(() => statement.all(), 3, 1) : null;
  const besideLite =
    lite === null ? "" : `; SQLite ${ms(lite)}, engine ${(lite / ours).toFixed(1)} times as fast`;
  console.log(
    `${label.padEnd(40)} engine ${ms(ours).padStart(9)}, DuckDB ${ms(theirs).padStart(9)}, ratio ${(ours / theirs).toFixed(2)}${besideLite}`,
  );
}
if (!only) {
  const visuals = ["route", "vessel", "day"].flatMap((column) =>
    ["sum(passengers)", "avg(delay)", "max(revenue)", "count(*)"].map((formula) =>
      ask({
        ...three,
        measures: [{ formula, as: "v" }],
        splits: [{ column, ...(column === "day" ? { by: "month" as const } : {}) }],
      }),
    ),
  );
  const [one, all] = await timedInTurn([() => run([visuals[0]]), () => run(visuals)], times, 3);
  console.log(
    `twelve visuals over one table and filter    ${ms(all)}, one of them ${ms(one)}: ${(all / one).toFixed(2)} times`,
  );
  // As on a board: every visual has the range that somebody moves, and some have filters of their own.
  const own: QueryInput["filters"][] = [
    [],
    [{ column: "route", in: ["Route 1", "Route 2", "Route 3"] }],
    [{ column: "passengers", from: 10 }],
    [],
  ];
  const mixed = (low: number) =>
    ["route", "vessel", "day"].flatMap((column, i) =>
      ["sum(passengers)", "avg(delay)", "max(revenue)", "count(*) filter (where delay <= 3)"].map(
        (formula, k) =>
          ask({
            measures: [{ formula, as: "v" }],
            splits: [{ column, ...(column === "day" ? { by: "month" as const } : {}) }],
            filters: [{ column: "delay", from: low, to: 30 }, ...(own[(i + k) % 4] ?? [])],
          }),
      ),
    );
  let low = 0;
  console.log(
    `twelve mixed visuals, a new range           ${ms(timed(() => run(mixed((low += 0.001))), times, 2))}`,
  );
  const cache = new ScanCache();
  const goal = (value: number) =>
    querySchema.parse({
      measures: [{ id: "to_goal" }],
      splits: [{ column: "route" }],
      inputs: { goal: value },
    });
  run([goal(1)], cache);
  let step = 1;
  console.log(
    `an input at group level                     ${ms(timed(() => run([goal(++step)], cache), 50, 5))}`,
  );
}
process.exit(0);
