import { expect, it } from "vitest";
import { z } from "zod";
import { documentProblem, emptyProject, projectSchema } from "../project/schema";
import { firstIssue } from "./first-issue";
import { querySchema } from "./query";

const count = { formula: "count(*)", as: "n" };
const of = (query: object) => {
  const { error } = querySchema.safeParse({ table: "rows", measures: [count], ...query });
  const { path, message } = firstIssue(error as z.ZodError);
  return `${path.join(".")}: ${message}`;
};

it("of a query, the form that it comes nearest to tells what is wrong", () => {
  const filter = (given: object) => of({ filters: [{ column: "route", ...given }] });
  expect(filter({ contains: 5 })).toBe("filters.0.contains: Invalid input: expected string, received number");
  expect(filter({ inn: ["a"] })).toBe('filters.0: Unrecognized key: "inn"');
  expect(filter({ in: [{}] })).toBe(
    "filters.0.in.0: Invalid input: expected number, string, boolean or null",
  );
  expect(filter({ relative: { unit: "hour", from: 0, to: 0 } })).toMatch(
    /^filters\.0\.relative\.unit: .*"year"/,
  );
  expect(of({ measures: [{ id: 5 }] })).toBe(
    "measures.0.id: Invalid input: expected string, received number",
  );
  expect(of({ measures: [{ formula: "1" }] })).toBe(
    "measures.0.as: Invalid input: expected string, received undefined",
  );
  expect(of({ measures: [{}] })).toBe("measures.0.id: Invalid input: expected string, received undefined");
  expect(of({ splits: [{ column: "a" }], sort: { by: 5 } })).toBe(
    "sort.by: Invalid input: expected string or object",
  );
});

it("of a document, the place of what is wrong within its form is told", () => {
  const visual = { id: "v", name: "V", kind: "donut" };
  const of = (part: object) =>
    documentProblem(projectSchema.safeParse({ ...emptyProject("P"), ...part }).error as z.ZodError);
  expect(of({ visuals: [{ ...visual, target: { number: "7" } }] })).toBe(
    "visuals 1 target number: Invalid input: expected number, received string",
  );
  expect(of({ boards: [{ id: "b", name: "B", width: 1000 }] })).toBe(
    'boards 1 width: Invalid input: expected 1280, 1440, 1920 or "fluid"',
  );
  expect(of({ visuals: [{ ...visual, dials: { "ring.hole": {} } }] })).toBe(
    "visuals 1 dials ring.hole: Invalid input: expected number, string or boolean",
  );
  expect(of({ tables: "none" })).toBe("tables: Invalid input: expected array, received string");
});

it("of forms that are all as near, the fields that could stand are named, or the forms as they say themselves", () => {
  const forms = z.union([z.strictObject({ demo: z.literal(true) }), z.strictObject({ name: z.string() })]);
  const said = (given: unknown) => firstIssue(forms.safeParse(given).error as z.ZodError).message;
  expect(said({ from: "demo" })).toBe("Invalid input: expected one of the fields demo or name");
  expect(said([])).toBe("Invalid input: expected object");
  expect(said({ demo: false })).toBe("Invalid input: expected true");
  const own = z.union(
    [z.string().regex(/^a/, "It begins with a."), z.string().regex(/^b/, "With b.")],
    "A word.",
  );
  expect(firstIssue(own.safeParse("c").error as z.ZodError).message).toBe("A word.");
});
