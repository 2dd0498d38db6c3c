// The engine beside SQLite (through better-sqlite3) over the same million rows, in one run: three measures with a range filter, split by a text column.
import Database from "better-sqlite3";
import { ColumnBuilder, type ColumnType, type Table } from "@/core/data/column";
import { querySchema } from "@/core/engine/query";
import { runQueries, ScanCache } from "@/core/engine/run";
import { seeded } from "@/demo/random";
import { ms, timed } from "./median";

const ROWS = Number(process.argv[3] ?? 1_000_000);
const random = seeded(1);
const builders: [string, ColumnType, ColumnBuilder][] = (
  [
    ["route", "text"],
    ["passengers", "number"],
    ["delay", "number"],
    ["revenue", "number"],
  ] as [string, ColumnType][]
).map(([n, t]) => [n, t, new ColumnBuilder(t, ROWS)]);
const db = new Database(":memory:");
db.exec("create table rows (route text, passengers real, delay real, revenue real)");
const insert = db.prepare("insert into rows values (?, ?, ?, ?)");
db.transaction(() => {
  for (let i = 0; i < ROWS; i++) {
    const row = [`Route ${Math.floor(random() * 24)}`, Math.floor(random() * 120), Math.floor(random() * 40) - 5, Math.round(random() * 90_000) / 100];
    for (const [k, [, , builder]] of builders.entries()) builder.add(row[k]);
    insert.run(row);
  }
})();
const table: Table = { name: "rows", version: "1", rows: ROWS, columns: builders.map(([name, , b]) => ({ name, data: b.finish() })) };
const catalog = { tables: [table], inputs: {}, scope: { tables: [{ name: "rows", columns: builders.map(([name, type]) => ({ name, type })) }], measures: [], inputs: [] } };
const cases = [
  {
    label: "three measures by route under a range filter",
    query: {
      measures: [
        { formula: "sum(passengers)", as: "a" },
        { formula: "avg(delay)", as: "b" },
        { formula: "count(*) filter (where delay <= 3)", as: "c" },
      ],
      splits: [{ column: "route" }],
      filters: [{ column: "delay", from: 0, to: 30 }],
    },
    sql: "select route, sum(passengers), avg(delay), count(*) filter (where delay <= 3) from rows where delay between 0 and 30 group by route",
  },
  { label: "count distinct of a number", query: { measures: [{ formula: "count(distinct passengers)", as: "a" }] }, sql: "select count(distinct passengers) from rows" },
];
console.log(`${ROWS.toLocaleString("en")} rows, medians of 15`);
for (const { label, query, sql } of cases) {
  const q = querySchema.parse({ table: "rows", ...query });
  const ours = timed(() => runQueries([q], catalog, new ScanCache()), 15, 5);
  const statement = db.prepare(sql);
  const theirs = timed(() => statement.all(), 15, 2);
  console.log(`${label.padEnd(46)} engine ${ms(ours)}, SQLite ${ms(theirs)}: ${(theirs / ours).toFixed(1)} times as fast`);
}
