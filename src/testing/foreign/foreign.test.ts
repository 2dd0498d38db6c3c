import { afterAll, describe, expect, it } from "vitest";
import type { Value } from "../../core/base/value";
import type { ColumnType } from "../../core/data/column";
import { readCell } from "../../core/data/reading";
import type { TableInfo } from "../../core/project/schema";
import { ImportProblem } from "../../server/import/import-problem";
import { madeTable } from "../made-table";
import { readingFolder } from "../reading-folder";
import { wrongWithFirstVisuals } from "./first-visuals";
import { foreignTable } from "./foreign-table";
import { Random } from "./random";

// Tables that nobody made for this application: `npm run foreign` makes others each run and goes on for minutes,
// FOREIGN_SEED=… makes the table of a seed again, and a check takes the same few each time.

const { read } = readingFolder();

const ALL = process.env.FOREIGN === "all";
const SEED = process.env.FOREIGN_SEED;
/** How long tables are made, in milliseconds. */
const TIME = 9 * 60_000;
/** A check takes so many tables, and this share of their measures. */
const CHECKED = { tables: 80, share: 0.3 };
const SHARE = ALL || SEED ? 1 : CHECKED.share;

const first = SEED ? Number(SEED) : ALL ? Math.floor(Math.random() * 2 ** 31) : 1;
let tables = 0;
let visuals = 0;
/** Files that are refused in a sentence. */
let refused = 0;
afterAll(() =>
  console.log(`${tables} tables from the seed ${first} on, ${refused} refused, ${visuals} first visuals`),
);

/** What is wrong with the first visuals of the table that a seed makes. */
async function wrongAt(seed: number): Promise<string[]> {
  const { file, content } = foreignTable(seed);
  const known = await read(content, file).catch((error: unknown) => {
    if (error instanceof ImportProblem) return null;
    throw error;
  });
  if (!known) {
    refused++;
    return [];
  }
  const { columns, cells, source } = known;
  const values = columns.map(({ reading }, at): Value[] => cells.map((row) => readCell(row[at], reading)));
  const name = file.replace(/\.csv$/, "");
  const made = columns.map((c, i): [string, [ColumnType, Value[]]] => [c.name, [c.reading.type, values[i]]]);
  const table = madeTable(name, Object.fromEntries(made));
  const info = {
    id: name,
    name,
    rows: cells.length,
    columns: columns.map((c) => ({ ...c, hidden: false })),
    derived: [],
    source: { file, ...source },
  } as unknown as TableInfo;
  const random = new Random(seed);
  const { drawn, wrong } = wrongWithFirstVisuals(table, info, () => random.chance(SHARE));
  visuals += drawn;
  return wrong;
}

describe("the first visuals of tables that nobody made for Cavlo", () => {
  it(
    "are drawn without an error, tell apart what differs, and accuse nobody falsely",
    async () => {
      const ends = Date.now() + TIME;
      const goesOn = () => (ALL ? Date.now() < ends : tables < (SEED ? 1 : CHECKED.tables));
      const wrong: string[] = [];
      for (let seed = first; goesOn(); seed++) {
        tables++;
        const found = await wrongAt(seed);
        if (found.length > 0)
          wrong.push(`FOREIGN_SEED=${seed}: ${found.slice(0, SEED ? 200 : 3).join("\n  ")}`);
      }
      expect(wrong.slice(0, SEED ? 200 : 12)).toEqual([]);
      expect(visuals).toBeGreaterThan(10);
      expect(refused).toBeLessThanOrEqual(Math.max(2, tables / 5));
    },
    TIME + 120_000,
  );
});
