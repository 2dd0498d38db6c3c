import { ColumnBuilder, type ColumnType, type Table } from "@/core/data/column";
import { type Catalog, runQueries } from "@/core/engine/run";
import { type QueryInput, querySchema } from "@/core/plan/query";

/** Rows enough for several blocks, so that loops over blocks are compiled too. */
const ROWS = 5000;
/** So often does code run before it is compiled for speed. */
const TURNS = 14;

type Cell = string | number | boolean | null;
/** Columns of every width in which cells are stored, with nulls and without. */
const COLUMNS: Record<string, { type: ColumnType; cell: (row: number) => Cell }> = {
  few: { type: "text", cell: (i) => `f${(i * 7) % 23}` },
  many: { type: "text", cell: (i) => (i % 50 === 0 ? null : `m${(i * 31) % 400}`) },
  day: { type: "date", cell: (i) => 19_000 + ((i * 13) % 900) },
  byte: { type: "number", cell: (i) => (i * 11) % 100 },
  short: { type: "number", cell: (i) => (i % 40 === 0 ? null : ((i * 37) % 9000) / 10) },
  long: { type: "number", cell: (i) => (i * 7919) % 90_000 },
  real: { type: "number", cell: (i) => Math.sqrt(i) },
  flag: { type: "boolean", cell: (i) => i % 3 === 0 },
};

const FORMULAS = [
  "sum(byte)",
  "avg(short)",
  "max(long)",
  "min(real)",
  "count(*) filter (where byte <= 30)",
  "sum(real * 2) / nullif(count(short), 0)",
  "count(distinct long)",
  "median(long)",
];
const FILTERS = [
  [{ column: "byte", from: 10, to: 80 }],
  [{ column: "day", from: "2022-03-01", to: "2024-01-31" }],
  [{ column: "few", in: ["f1", "f2", "f5"] }],
  [{ column: "flag", in: [true] }],
];
const SPLITS: QueryInput["splits"][] = [
  [],
  [{ column: "few" }],
  [{ column: "many" }],
  [{ column: "day", by: "month" }],
  [{ column: "few" }, { column: "day", by: "year" }],
];

function madeColumn(name: string): Table["columns"][number] {
  const builder = new ColumnBuilder(COLUMNS[name].type, ROWS);
  for (let i = 0; i < ROWS; i++) builder.add(COLUMNS[name].cell(i));
  return { name, data: builder.finish() };
}

/**
 * Steps of some milliseconds that run the engine over made-up rows, so that its code is compiled before
 * somebody waits for it: the first queries of a thread took up to four times as long as later ones.
 */
export function* warmUp(): Generator<void> {
  const names = Object.keys(COLUMNS);
  const table: Table = { name: "rows", version: "1", rows: ROWS, columns: [] };
  for (const name of names) {
    table.columns.push(madeColumn(name));
    yield;
  }
  const columns = names.map((name) => ({ name, type: COLUMNS[name].type }));
  const scope = { tables: [{ name: "rows", columns }], measures: [], inputs: [] };
  const catalog: Catalog = { tables: [table], inputs: {}, scope };
  for (let turn = 0; turn < TURNS; turn++)
    for (const [i, splits] of SPLITS.entries())
      for (const formulas of [FORMULAS.slice(0, 3), FORMULAS.slice(3, 6), FORMULAS.slice(6)]) {
        const query: QueryInput = {
          table: "rows",
          measures: formulas.map((formula, k) => ({ formula, as: `m${k}` })),
          splits,
          filters: FILTERS[(i + turn) % FILTERS.length],
        };
        for (const result of runQueries([querySchema.parse(query)], catalog))
          if (!("rows" in result)) throw result;
        yield;
      }
}

/** A thread that has just been started has other things to do. */
const AFTER_MS = 500;

/** Takes these steps once the thread stands, between the questions that it is asked. */
export function warmUpWhenIdle(): void {
  const steps = warmUp();
  const next = () => void (steps.next().done || setImmediate(next));
  setTimeout(next, AFTER_MS).unref();
}
