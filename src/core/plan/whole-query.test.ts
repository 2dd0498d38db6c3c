import fc from "fast-check";
import { expect, it } from "vitest";
import { type QueryInput, querySchema } from "./query";
import { wholeQuery } from "./whole-query";

const order = fc.constantFrom<"asc" | "desc">("asc", "desc");
const column = fc.constantFrom("route", "sailings.date", "constructor");
const value = fc.oneof(fc.integer(), fc.string(), fc.boolean(), fc.constant(null));
const filter: fc.Arbitrary<NonNullable<QueryInput["filters"]>[number]> = fc.oneof(
  fc.record({ column, in: fc.array(value, { maxLength: 3 }) }),
  fc.record({ column, contains: fc.string({ minLength: 1, maxLength: 9 }) }),
  fc.record({
    column,
    relative: fc.record({
      unit: fc.constant("month" as const),
      from: fc.integer({ min: -9, max: 9 }),
      to: fc.constant(0),
    }),
  }),
  fc.record({ column, from: value }),
);
const sort = fc.record({ by: column, order }, { requiredKeys: ["by"] });
const keep = fc.record(
  { first: fc.integer({ min: 1, max: 9 }), others: fc.boolean() },
  { requiredKeys: ["first"] },
);
const query: fc.Arbitrary<QueryInput> = fc.record(
  {
    measures: fc.constant([{ id: "riders" }]),
    table: fc.constant("sailings"),
    totals: fc.constant([{ id: "seats" }]),
    splits: fc.constant([{ column: "route" }]),
    filters: fc.array(filter, { maxLength: 3 }),
    inputs: fc.constant({ goal: 3 }),
    sort,
    keep,
    series: fc.record({ sort, keep }, { requiredKeys: [] }),
  },
  { requiredKeys: ["measures"] },
);

it("fills in what the schema fills in", () => {
  fc.assert(
    fc.property(query, (asked) => {
      expect(wholeQuery(asked)).toEqual(querySchema.parse(asked));
    }),
  );
});
