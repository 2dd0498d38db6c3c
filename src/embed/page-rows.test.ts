import { describe, expect, it } from "vitest";
import { cellsOf } from "@/core/data/column";
import { emptyProject, projectSchema, tableSchema } from "@/core/project/schema";
import { EmbedError } from "./embed-error";
import { readColumn } from "./given-columns";
import { givenTables, MOST_ROWS } from "./page-rows";

const table = (name: string, columns: string[]) =>
  tableSchema.parse({
    id: name,
    name,
    rows: 0,
    columns: columns.map((column) => ({ name: column, reading: { type: "text" } })),
    source: { file: "" },
  });
const project = projectSchema.parse({
  ...emptyProject("p"),
  tables: [table("trips", ["route", "__proto__"]), table("routes", ["route"])],
});
const routes = [{ route: "A" }];

const wrong = (given: unknown): { code: string; message: string } => {
  try {
    givenTables(given, project);
  } catch (error) {
    if (error instanceof EmbedError) return { code: error.code, message: error.message };
    throw error;
  }
  throw new Error("it was taken");
};
const own = (pairs: [string, unknown][]) => Object.fromEntries(pairs);

describe("rows that a page gives", () => {
  it("are taken as objects, as columns, and whatever the case of their names", () => {
    const objects = [
      own([
        ["ROUTE", "A"],
        ["__proto__", "x"],
      ]),
      own([["ROUTE", "B"]]),
    ];
    const [trips] = givenTables({ Trips: objects, routes }, project);
    expect(trips).toEqual({
      name: "trips",
      rows: 2,
      columns: [
        { name: "route", cells: ["A", "B"] },
        { name: "__proto__", cells: ["x", null] },
      ],
    });
    const columns = own([
      ["route", ["A"]],
      ["__proto__", ["x"]],
    ]);
    expect(givenTables({ trips: columns, routes }, project)[0].rows).toBe(1);
    expect(givenTables({ trips: [], routes: [] }, project).map((t) => t.rows)).toEqual([0, 0]);
  });

  it.each([
    [null, "rows"],
    [[1], "rows"],
    [{}, "missing-table"],
    [{ trips: [], elsewhere: [] }, "missing-table"],
    [{ ships: [] }, "missing-table"],
    [{ trips: 3, routes }, "rows"],
    [{ trips: [1], routes }, "rows"],
    [{ trips: [{ route: "A" }], routes }, "missing-column"],
    [
      {
        trips: own([
          ["route", ["A"]],
          ["__proto__", "text"],
        ]),
        routes,
      },
      "rows",
    ],
    [
      {
        trips: own([
          ["route", ["A", "B"]],
          ["__proto__", ["x"]],
        ]),
        routes,
      },
      "rows",
    ],
    [
      {
        trips: own([
          ["route", new Float64Array(MOST_ROWS + 1)],
          ["__proto__", new Float64Array(MOST_ROWS + 1)],
        ]),
        routes,
      },
      "too-many-rows",
    ],
  ])("are refused in words where something is missing: %#", (given, code) => {
    const found = wrong(given);
    expect(found.code).toBe(code);
    expect(found.message).toMatch(/rows/);
  });
});

describe("the cells of a column that a page gives", () => {
  const read = (type: "number" | "text" | "boolean" | "date" | "timestamp", cells: unknown[]) => {
    const { data, unread, filled } = readColumn(cells, { type });
    const values =
      data.type === "text"
        ? Array.from(data.codes, (c) => (c < 0 ? null : data.dictionary[c]))
        : Array.from(cellsOf(data), (v) => (v === data.none || Number.isNaN(v) ? null : v / data.scale));
    return { values, unread, filled };
  };
  it("are read in the type of the column, and what is of another stands as empty", () => {
    expect(
      read("number", [1.5, "2", null, undefined, Number.NaN, 3n, "x", {}, Number.POSITIVE_INFINITY]),
    ).toEqual({
      values: [1.5, 2, null, null, null, 3, null, null, null],
      unread: 3,
      filled: 3,
    });
    expect(read("text", ["a", "", 1, true, null])).toMatchObject({
      values: ["a", "", "1", "true", null],
      unread: 0,
    });
    expect(read("boolean", [true, 0, "yes", "maybe", 2])).toEqual({
      values: [1, 0, 1, null, null],
      unread: 2,
      filled: 3,
    });
    const day = Date.UTC(2025, 2, 1) / 86_400_000;
    expect(
      read("date", ["2025-03-01", new Date("2025-03-01T23:00:00Z"), Date.UTC(2025, 2, 1, 5), "soon", true]),
    ).toEqual({
      values: [day, day, day, null, null],
      unread: 2,
      filled: 3,
    });
    const moment = Date.UTC(2025, 2, 1, 12, 30);
    expect(read("timestamp", ["2025-03-01T12:30:00", "2025-03-01T13:30:00+01:00", moment, 9e15])).toEqual({
      values: [moment, moment, moment, null],
      unread: 1,
      filled: 3,
    });
  });
  it("are taken whole where they are numbers already", () => {
    const { data } = readColumn(Float64Array.of(1.25, Number.NaN, -3), { type: "number" });
    const cells = cellsOf(data);
    expect(data.type !== "text" && [data.scale, cells[0] / data.scale, cells[2] / data.scale]).toEqual([
      100, 1.25, -3,
    ]);
  });
});
