import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { fillTemplate, renameInTemplate } from "../base/template";
import { runQueries } from "../engine/run";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { scopeOf } from "../project/names";
import {
  emptyProject,
  inputSchema,
  measureSchema,
  type Project,
  projectSchema,
  tableSchema,
  visualSchema,
} from "../project/schema";
import { subjectOf } from "../rows/row-key";
import { pictureOf } from "./picture";
import { toQuery } from "./query";
import { toVisualData } from "./visual-data";

const ODD = ["constructor", "__proto__", "toString", "hasOwnProperty", "valueOf", "null", "true"];
const quoted = (name: string) => `"${name}"`;

describe.each(ODD)("the name %s", (name) => {
  const table = madeTable(name, {
    [name === "__proto__" ? "p" : name]: ["text", [name, "other", name, null]],
    n: ["number", [1, 2, 4, 8]],
  });
  if (name === "__proto__") table.columns[0].name = name;
  const project: Project = projectSchema.parse(
    JSON.parse(
      JSON.stringify({
        ...emptyProject("p"),
        tables: [
          tableSchema.parse({
            id: "t",
            name,
            rows: 4,
            columns: scopeColumns(table).map((c) => ({ name: c.name, reading: { type: c.type } })),
            source: { file: "" },
          }),
        ],
        measures: [
          measureSchema.parse({
            id: "m",
            name,
            label: name,
            table: name,
            formula: `sum(n) + :${name}`,
            format: {},
          }),
        ],
        inputs: [inputSchema.parse({ id: "i", name, label: name, type: "number", value: 0, format: {} })],
        visuals: [
          {
            ...visualSchema.parse({
              id: "v",
              name,
              kind: "donut",
              value: "m",
              split: { column: name },
              title: `{${name}}`,
            }),
            categoryColours: Object.fromEntries([[name, "#ff0000"]]),
          },
        ],
      }),
    ),
  );
  const [visual] = project.visuals;
  const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));

  it("is a table's, a column's, a measure's, an input's and a category's like any other", () => {
    const query = querySchema.parse(
      JSON.parse(JSON.stringify(toQuery(visual, project, [], Object.fromEntries([[name, 10]])))),
    );
    const [result] = runQueries([query], { scope: scopeOf(project), inputs, tables: [table] });
    if (result instanceof QueryError) throw result;
    expect(result.columns[0]).toEqual({ name, type: "text", values: [null, name, "other"] });
    expect(result.columns[1].values).toEqual([18, 15, 12]);
    const data = toVisualData(
      visual,
      project,
      JSON.parse(JSON.stringify(result)),
      Object.fromEntries([[name, 10]]),
    );
    expect(data.problem).toBeNull();
    expect(data.total).toBe(25);
    expect(data.rows.map((r) => [r.label, subjectOf(r.key), r.value])).toEqual([
      ["(none)", { type: "category", value: null }, 18],
      [name, { type: "category", value: name }, 15],
      ["other", { type: "category", value: "other" }, 12],
    ]);
    // An empty category is not the text "null".
    expect(new Set(data.rows.map((r) => r.key)).size).toBe(3);
    expect(fillTemplate(visual.title, data.names)).toBe("25");
    expect(renameInTemplate(visual.title, name, "x")).toBe("{x}");
  });

  it("gives a category its own colour, and none to a category without one", () => {
    const result = runQueries([querySchema.parse(toQuery(visual, project))], {
      scope: scopeOf(project),
      inputs,
      tables: [table],
    })[0];
    if (result instanceof QueryError) throw result;
    const marked = pictureOf(visual, project, result, {}).marks.filter(
      (m) => m.type === "sector" && m.fill === "#ff0000",
    );
    expect(marked).toHaveLength(1);
    const plain = { ...visual, categoryColours: {} };
    expect(() => pictureOf(plain, project, result, {})).not.toThrow();
  });

  it("is filtered by, and means nothing where nobody has it", () => {
    const at = (query: object) =>
      runQueries([querySchema.parse(query)], { scope: scopeOf(project), inputs, tables: [table] })[0];
    expect(at({ measures: [{ id: name, as: "v" }], filters: [{ column: name, in: [name] }] })).toMatchObject({
      totals: { v: 5 },
    });
    expect(at({ measures: [{ id: name, as: "v" }], filters: [{ column: name, in: [null] }] })).toMatchObject({
      totals: { v: 8 },
    });
    expect(
      at({ table: name, measures: [{ formula: `count(distinct ${quoted(name)})`, as: "v" }] }),
    ).toMatchObject({ totals: { v: 2 } });
    expect(
      at({ table: name, measures: [{ formula: "sum(n)", as: "v" }], splits: [{ column: "nobody" }] }),
    ).toBeInstanceOf(QueryError);
  });
});

it("templates are filled in time that grows with their length", () => {
  // In time that grows with its square this would take minutes, past what a test may.
  const long = `${"{ ".repeat(500_000)}${"{value".repeat(200_000)}${" ".repeat(1_000_000)}`;
  fillTemplate(long, { value: "x" });
  renameInTemplate(long, "value", "y");
  expect(fillTemplate("{ value } {value : number.1}{none}", { VALUE: "x" })).toBe("x x—");
});
