import { brotliCompressSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import { ColumnBuilder, type Table } from "@/core/data/column";
import { fromBytes, toBytes } from "@/core/data/plain-bytes";
import { readCell } from "@/core/data/reading";
import { ReadingGuess } from "@/core/data/reading-guess";
import { buildCells } from "@/core/engine/cells/build-cells";
import { answerFromCells } from "@/core/engine/cells/cell-answer";
import { indexOf, type PlainIndex, plainIndex } from "@/core/engine/cells/plain-index";
import { runQueries } from "@/core/engine/run";
import { type Filter, querySchema } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import { touchedBy } from "@/core/view/board-state";
import { toQuery } from "@/core/view/query";
import { demoProject } from "./project";
import { QUILLHAVEN } from "./quillhaven";

const infos = QUILLHAVEN.map((t) => {
  const guesses = t.columns.map(() => new ReadingGuess());
  let rows = 0;
  for (const row of t.rows()) {
    rows++;
    for (const [i, cell] of row.entries()) guesses[i].add(cell);
  }
  const columns = t.columns.map((name, i) => ({ name, reading: guesses[i].settle().reading }));
  return { id: t.name, name: t.name, rows, columns, source: { file: "" } };
});
const project = demoProject(infos as never);
const tables = project.tables.map((info): Table => {
  const made = info.columns.map((c) => new ColumnBuilder(c.reading.type, info.rows));
  const rows = QUILLHAVEN.find((t) => t.name === info.name)?.rows() ?? [];
  for (const row of rows)
    for (const [i, cell] of row.entries()) made[i].add(readCell(cell, info.columns[i].reading));
  const columns = info.columns.map(({ name }, i) => ({ name, data: made[i].finish() }));
  return { name: info.name, version: "1", rows: info.rows, columns };
});
const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));
const catalog = { tables, inputs, scope: scopeOf(project), today: "2026-07-01" };

describe("the cells of the demo's boards", () => {
  it("travel in 300 kB and answer every visual as the rows would, whatever is filtered", () => {
    for (const board of project.boards) {
      const visuals = board.tiles.flatMap((t) =>
        t.type === "visual" ? project.visuals.filter((v) => v.id === t.visual) : [],
      );
      const queriesWith = (filters: Filter[]) =>
        visuals.map((v) => querySchema.parse(toQuery(v, project, filters, {})));
      const touched = touchedBy(board, project);
      const index = buildCells({ queries: queriesWith([]), touched, now: [] }, catalog);
      const bytes = toBytes(plainIndex(index));
      expect(brotliCompressSync(bytes).length).toBeLessThan(300_000);
      const taken = indexOf(fromBytes(bytes) as PlainIndex);
      const year: Filter = { column: "sailings.date", by: "year", in: [2025] };
      const routes: Filter = { column: "sailings.route", in: ["Ferrow Isle", "Skerry Light"] };
      const both = touched.some((t) => t.column === routes.column) ? [year, routes] : [year];
      for (const filters of [[], [year], both]) {
        const queries = queriesWith(filters);
        const plain = (results: unknown[]) => results.map((r) => ({ ...(r as object), ms: 0 }));
        expect(plain(answerFromCells(queries, taken, catalog))).toEqual(plain(runQueries(queries, catalog)));
      }
    }
  });
});
