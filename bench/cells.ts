// Cells beside scans of the same rows in one run: a board of twelve visuals and three controls, filtered in
// turn. node bench/run.mjs cells [rows]
import { availableParallelism } from "node:os";
import { MessageChannel, Worker } from "node:worker_threads";
import { bytesIn } from "@/core/data/bytes-in";
import { ColumnBuilder, type ColumnType, type Table } from "@/core/data/column";
import { buildCells } from "@/core/engine/cells/build-cells";
import { answerFromCells } from "@/core/engine/cells/cell-answer";
import { runQueries } from "@/core/engine/run";
import { type Filter, querySchema } from "@/core/plan/query";
import { seeded } from "@/demo/random";
import { columnKey } from "@/server/compute/table-cache";
import { ThreadCrew } from "@/server/compute/thread-crew";
import { columnOf, shareColumn } from "@/server/store/shared-column";
import { compileLoops } from "@/server/threads/compile-loops";
import { boardQueries, touched } from "./made-board";
import { ms, timed } from "./median";

compileLoops();
const ROWS = Number(process.argv[3] ?? 1_000_000);
const random = seeded(1);
const some = (of: string, many: number) => () => `${of} ${Math.floor(random() * many)}`;
const MADE: Record<string, [ColumnType, () => string | number]> = {
  route: ["text", some("Route", 24)],
  vessel: ["text", some("Vessel", 417)],
  channel: ["text", some("Channel", 6)],
  fare_class: ["text", some("Class", 4)],
  day: ["date", () => 19_723 + Math.floor(random() * 900)],
  passengers: ["number", () => Math.floor(random() * 120)],
  delay: ["number", () => Math.floor(random() * 40) - 5],
  revenue: ["number", () => Math.round(random() * 90_000) / 100],
};
const shared = Object.entries(MADE).map(([name, [type, make]]) => {
  const builder = new ColumnBuilder(type, ROWS);
  for (let i = 0; i < ROWS; i++) builder.add(make());
  return { name, type, column: shareColumn(builder.finish()) };
});
const columns = shared.map(({ name, column }) => ({ name, data: columnOf(column) }));
const table: Table = { name: "rows", version: "1", rows: ROWS, columns };
const scope = {
  tables: [{ name: "rows", columns: shared.map(({ name, type }) => ({ name, type })) }],
  measures: [],
  inputs: [],
};
const catalog = { tables: [table], inputs: {}, scope };

const crews = new ThreadCrew(new SharedArrayBuffer(4));
for (let i = 1; i < availableParallelism(); i++) {
  const life = new SharedArrayBuffer(8);
  const worker = new Worker("./dist/scan-helper.mjs", { workerData: { memory: 1e9, life } });
  const { port1, port2 } = new MessageChannel();
  new Int32Array(life)[0] = 1;
  worker.postMessage({ port: port1 }, [port1]);
  crews.add(port2, life);
}
const info = {
  id: "rows",
  name: "rows",
  rows: ROWS,
  columns: shared.map(({ name, type }) => ({ name, reading: { type } })),
  derived: [],
} as never;
const given = shared.map(({ type, column }, at) => ({ table: "rows", key: columnKey(at, { type }), column }));
const crew = crews.for(scope, null, () => ({ info, table, columns: given }));

const queries = (filters: Filter[]) => boardQueries(filters).map((q) => querySchema.parse(q));

const began = performance.now();
const index = buildCells({ queries: queries([]), touched, now: [] }, catalog);
console.log(
  `${ROWS.toLocaleString("en")} rows; twelve visuals, three controls: built in ${ms(performance.now() - began)}, ${index.cells.length} groupings, ${index.cells.reduce((sum, c) => sum + c.rowsUpTo.length - 1, 0).toLocaleString("en")} cells, ${(bytesIn(index.cells) / 1e6).toFixed(0)} MB`,
);
let step = 0;
const CLICKS: { label: string; filters: () => Filter[] }[] = [
  { label: "a value of one control", filters: () => [{ column: "channel", in: [`Channel ${step++ % 6}`] }] },
  {
    label: "a range of days",
    filters: () => [{ column: "day", from: `2024-0${(step++ % 8) + 1}-15`, to: "2025-09-30" }],
  },
  {
    label: "all three controls",
    filters: () => [
      { column: "channel", in: ["Channel 1", "Channel 2"] },
      { column: "fare_class", in: [`Class ${step++ % 4}`] },
      { column: "day", from: `2024-0${(step % 8) + 1}-15`, to: "2025-09-30" },
    ],
  },
];
const times = ROWS > 2_000_000 ? 7 : 15;
for (const { label, filters } of CLICKS) {
  let answered = 0;
  const fromCells = timed(
    () => {
      answered = answerFromCells(queries(filters()), index, catalog).filter((a) => a !== null).length;
    },
    times,
    3,
  );
  const scanned = timed(() => void runQueries(queries(filters()), { ...catalog, crew }), times, 2);
  console.log(
    `${label.padEnd(24)} ${answered} of 12 from cells in ${ms(fromCells).padStart(8)}, all scanned in ${ms(scanned).padStart(8)}, ratio ${(fromCells / scanned).toFixed(3)}`,
  );
}
process.exit(0);
