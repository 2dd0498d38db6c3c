import { ColumnBuilder, type ColumnType, type Table } from "@/core/data/column";
import { runQueries, ScanCache } from "@/core/engine/run";
import { querySchema } from "@/core/plan/query";
import { seeded } from "@/demo/random";

const ROWS = 1_000_000;
const COLUMNS: [string, ColumnType][] = [
  ["route", "text"],
  ["vessel", "text"],
  ["passengers", "number"],
  ["delay", "number"],
  ["revenue", "number"],
];
const random = seeded(1);
const b = COLUMNS.map(([, t]) => new ColumnBuilder(t, ROWS));
for (let i = 0; i < ROWS; i++) {
  const r = [
    `Route ${Math.floor(random() * 24)}`,
    `Vessel ${Math.floor(random() * 417)}`,
    Math.floor(random() * 120),
    Math.floor(random() * 40) - 5,
    Math.round(random() * 90000) / 100,
  ];
  r.forEach((v, k) => b[k].add(v));
}
const table: Table = {
  name: "rows",
  version: "1",
  rows: ROWS,
  columns: COLUMNS.map(([name], k) => ({ name, data: b[k].finish() })),
};
const catalog = {
  tables: [table],
  inputs: {},
  scope: {
    tables: [{ name: "rows", columns: COLUMNS.map(([name, type]) => ({ name, type })) }],
    measures: [],
    inputs: [],
  },
};
const q = querySchema.parse({
  table: "rows",
  measures: [
    { formula: "sum(passengers)", as: "a" },
    { formula: "avg(delay)", as: "b" },
    { formula: "count(*) filter (where delay <= 3)", as: "c" },
  ],
  splits: [{ column: "route" }],
  filters: [{ column: "delay", from: 0, to: 30 }],
});
const t = [];
for (let i = 0; i < 40; i++) {
  const s = performance.now();
  runQueries([q], catalog, new ScanCache());
  t.push(performance.now() - s);
}
t.sort((a, b) => a - b);
console.log("median", t[20].toFixed(1), "min", t[0].toFixed(1));
