import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { breaksOf } from "./breaks";
import { usesOfColumn } from "./column-uses";
import { edited } from "./edits";
import { scopeOf } from "./names";
import { offeredColumns } from "./offered";
import { misfitsOf, withReadingsOf } from "./replacement";
import {
  boardSchema,
  emptyProject,
  inputSchema,
  measureSchema,
  type Project,
  type TableInfo,
  tableSchema,
  visualSchema,
} from "./schema";

function table(
  name: string,
  columns: Record<string, TableInfo["columns"][number]["reading"]["type"]>,
  derived: TableInfo["derived"] = [],
): TableInfo {
  return tableSchema.parse({
    id: name,
    name,
    rows: 3,
    source: { file: `${name}.csv` },
    columns: Object.entries(columns).map(([c, type]) => ({ name: c, reading: { type } })),
    derived,
  });
}

const project: Project = {
  ...emptyProject("P"),
  tables: [
    table("sailings", { route: "text", seats: "number", day: "date" }, [
      { name: "far", formula: "distance > 5 and seats > 1", hidden: false },
    ]),
    table("routes", { route: "text", distance: "number", harbour: "text" }),
  ],
  links: [{ id: "l", table: "sailings", column: "route", to: "routes", key: "route" }],
  measures: [
    measureSchema.parse({
      id: "m",
      name: "km",
      label: "Kilometres",
      table: "sailings",
      formula: "sum(seats * distance) / sum(routes.distance) filter (where far)",
      format: {},
      proofs: [{ id: "p", type: "between", from: 0, to: null, split: { column: "routes.harbour" } }],
    }),
  ],
  inputs: [
    inputSchema.parse({
      id: "i",
      name: "harbour",
      label: "Harbour",
      type: "text",
      value: "",
      format: {},
      choicesFrom: { table: "routes", column: "harbour" },
    }),
  ],
  visuals: [
    visualSchema.parse({
      id: "v",
      name: "V",
      kind: "donut",
      value: "m",
      split: { column: "harbour" },
      filters: [
        { column: "routes.distance", from: 1 },
        { column: "far", in: [true] },
      ],
    }),
  ],
  boards: [
    boardSchema.parse({
      id: "b",
      name: "B",
      controls: [{ id: "c", type: "filter", label: "H", table: "routes", column: "harbour" }],
    }),
  ],
};

describe("renaming", () => {
  it("a linked column rewrites formulas, derived columns, splits, filters, proofs, inputs and controls", () => {
    const named = edited(
      edited(project, {
        type: "change column",
        table: "routes",
        column: "harbour",
        change: { name: "port" },
      }),
      { type: "change column", table: "routes", column: "distance", change: { name: "length km" } },
    );
    expect(named.measures[0].formula).toBe(
      'sum(seats * routes."length km") / sum(routes."length km") filter (where far)',
    );
    expect(named.tables[0].derived[0].formula).toBe('routes."length km" > 5 and seats > 1');
    expect(named.visuals[0].split).toEqual({ column: "routes.port" });
    expect(named.visuals[0].filters[0]).toEqual({ column: "routes.length km", from: 1 });
    expect(named.measures[0].proofs[0]).toMatchObject({ split: { column: "routes.port" } });
    expect(named.inputs[0].choicesFrom).toEqual({ table: "routes", column: "port" });
    expect(named.boards[0].controls[0]).toMatchObject({ column: "port" });
    expect(scopeOf(named).tables[0].columns.find((c) => c.name === "far")?.type).toBe("boolean");
  });

  it("the two ends of a link, and a derived column, keep what uses them", () => {
    const named = edited(
      edited(project, { type: "change column", table: "routes", column: "route", change: { name: "id" } }),
      { type: "change column", table: "sailings", column: "route", change: { name: "line" } },
    );
    expect(named.links[0]).toMatchObject({ column: "line", key: "id" });
    const derived = edited(project, {
      type: "change derived",
      table: "sailings",
      column: "far",
      change: { name: "long" },
    });
    expect(derived.measures[0].formula).toContain("where long");
    expect(derived.visuals[0].filters[1]).toEqual({ column: "long", in: [true] });
  });

  it("a table changes its name in front of every column", () => {
    const named = edited(project, { type: "rename table", id: "routes", name: "lines" });
    expect(named.measures[0].formula).toContain("sum(lines.distance)");
    expect(named.visuals[0].filters[0].column).toBe("lines.distance");
    expect(named.links[0].to).toBe("lines");
    expect(named.measures[0].proofs[0]).toMatchObject({ split: { column: "lines.harbour" } });
    expect(named.boards[0].controls[0]).toMatchObject({ table: "lines" });
  });

  it("there and back gives a project whose formulas mean the same, whatever the new name", () => {
    const name = fc
      .stringMatching(/^[\p{L}_][\p{L}\p{N}_ .%"]{0,12}$/u)
      .filter(
        (n) =>
          n.trim() === n &&
          !["route", "seats", "day", "far", "distance", "harbour"].includes(n.toLowerCase()),
      );
    fc.assert(
      fc.property(name, (to) => {
        const there = edited(project, {
          type: "change column",
          table: "sailings",
          column: "seats",
          change: { name: to },
        });
        const scope = scopeOf(there);
        expect(
          scope.tables[0].columns.find((c) => c.name === "far")?.type,
          there.tables[0].derived[0].formula,
        ).toBe("boolean");
        expect(
          edited(there, { type: "change column", table: "sailings", column: to, change: { name: "seats" } }),
        ).toEqual(project);
      }),
      { numRuns: 200, seed: 3 },
    );
  });
});

describe("tables", () => {
  it("go with their links, and come back with undo since edits leave the first project alone", () => {
    expect(edited(project, { type: "remove table", id: "routes" }).links).toEqual([]);
    expect(project.links).toHaveLength(1);
    expect(edited(project, { type: "remove link", id: "l" }).links).toEqual([]);
    expect(
      edited(project, { type: "add link", link: { id: "n", table: "a", column: "b", to: "c", key: "d" } })
        .links,
    ).toHaveLength(2);
  });

  it("keep their derived and hidden columns when newer rows take their place", () => {
    const hidden = edited(project, {
      type: "change column",
      table: "sailings",
      column: "seats",
      change: { hidden: true },
    });
    const fresh = {
      ...table("sailings", { seats: "number", route: "text", extra: "text" }),
      id: "new",
      rows: 9,
    };
    const replaced = edited(hidden, { type: "replace rows", id: "sailings", fresh }).tables[0];
    expect(replaced).toMatchObject({ id: "new", rows: 9, name: "sailings" });
    expect(replaced.derived).toHaveLength(1);
    expect(replaced.columns.map((c) => [c.name, c.hidden])).toEqual([
      ["seats", true],
      ["route", false],
      ["extra", false],
    ]);
  });

  it("list what no longer fits before they are replaced, and keep the readings that were chosen", () => {
    const fresh = table("sailings", { route: "text", seats: "text" });
    expect(misfitsOf(project, project.tables[0], fresh)).toEqual([
      {
        column: "seats",
        what: "was read as number; the new file looks like text",
        uses: ["Kilometres", "sailings.far"],
      },
    ]);
    expect(
      misfitsOf(project, project.tables[0], table("sailings", { seats: "number" })).map((m) => [
        m.column,
        m.what,
      ]),
    ).toEqual([["route", "is not in the new file"]]);
    expect(withReadingsOf(project.tables[0], fresh).columns.map((c) => c.reading.type)).toEqual([
      "text",
      "number",
    ]);
  });

  it("add and remove derived columns, and know what uses a column", () => {
    const more = edited(project, {
      type: "add derived",
      table: "sailings",
      derived: { name: "big", formula: "seats > 90 and far", hidden: false },
    });
    expect(usesOfColumn(more, "sailings", "far")).toEqual(["Kilometres", "sailings.big", "V"]);
    expect(usesOfColumn(more, "routes", "harbour")).toEqual(["V", "B", "Harbour"]);
    expect(usesOfColumn(more, "routes", "route")).toEqual(["the link from sailings to routes"]);
    expect(edited(more, { type: "remove derived", table: "sailings", column: "big" })).toEqual(project);
  });
});

it("an edit says what it breaks", () => {
  expect(breaksOf(project, edited(project, { type: "remove link", id: "l" }))).toEqual([
    "Kilometres",
    "sailings.far",
    "V",
  ]);
  expect(
    breaksOf(
      project,
      edited(project, {
        type: "change column",
        table: "sailings",
        column: "seats",
        change: { reading: { type: "text" } },
      }),
    ),
  ).toEqual(["Kilometres", "sailings.far"]);
  expect(
    breaksOf(
      project,
      edited(project, {
        type: "change column",
        table: "sailings",
        column: "seats",
        change: { name: "chairs" },
      }),
    ),
  ).toEqual([]);
});

describe("offered columns", () => {
  it("are a table's own, its derived ones and those through links, without hidden ones, link keys and ones with a problem", () => {
    const odd = edited(
      edited(project, { type: "change column", table: "sailings", column: "day", change: { hidden: true } }),
      {
        type: "add derived",
        table: "sailings",
        derived: { name: "broken", formula: "nope + 1", hidden: false },
      },
    );
    expect(offeredColumns(odd, "sailings").map((c) => [c.name, c.type])).toEqual([
      ["route", "text"],
      ["seats", "number"],
      ["far", "boolean"],
      ["routes.distance", "number"],
      ["routes.harbour", "text"],
    ]);
    expect(offeredColumns(project, null)).toEqual([]);
  });
});
