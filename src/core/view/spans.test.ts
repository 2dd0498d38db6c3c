import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "@/testing/made-table";
import { isoDate, parseIsoDate } from "../base/calendar";
import { runQueries } from "../engine/run";
import { querySchema, type Relative } from "../plan/query";
import { emptyProject } from "../project/schema";
import { extentQuery } from "./column-extent";
import { newestIn, SPANS, spanDates, spansFrom, spanText } from "./spans";

const PROJECT = emptyProject("P");
const at = (unit: Relative["unit"], from: number, to: number, day = "2025-12-14") =>
  spanDates({ unit, from, to, anchor: "newest" }, day, PROJECT);

describe("which dates a stretch is", () => {
  it("is said by its own units, with the year once", () => {
    expect(at("month", -2, 0)).toBe("Oct – Dec 2025");
    expect(at("month", 0, 0)).toBe("Dec 2025");
    expect(at("month", -12, 0)).toBe("Dec 2024 – Dec 2025");
    expect(at("quarter", -1, -1)).toBe("Q3 2025");
    expect(at("quarter", -3, 0)).toBe("Q1 – Q4 2025");
    expect(at("year", 0, 0)).toBe("2025");
    expect(at("year", -1, 0)).toBe("2024 – 2025");
    expect(at("day", -6, 0)).toBe("2025-12-08 – 2025-12-14");
    expect(at("week", 0, 0)).toBe("Week 50, 2025");
    expect(at("day", 0, 0, "soon")).toBe("");
  });

  it("follows a year that begins in April", () => {
    const project = { conventions: { ...PROJECT.conventions, yearStart: 4 } };
    expect(spanDates({ unit: "year", from: 0, to: 0, anchor: "today" }, "2026-02-01", project)).toBe(
      "2025/26",
    );
  });

  it("is what the filter keeps: the rows of these dates, and no others", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 19_000, max: 20_500 }), { minLength: 1, maxLength: 30 }),
        fc.constantFrom(...spansFrom("newest").filter(({ unit }) => unit === "day")),
        (days, span) => {
          const table = madeTable("t", { day: ["date", days] });
          const tables = [table];
          const scope = {
            tables: [{ name: "t", columns: scopeColumns(table) }],
            measures: [],
            inputs: [],
            links: [],
          };
          const relative: Relative = { ...span, anchor: "newest" };
          const [extent, kept] = runQueries(
            [
              querySchema.parse(extentQuery({ table: "t", column: "day" })),
              querySchema.parse({
                table: "t",
                measures: [{ as: "n", formula: "count(*)" }],
                filters: [{ column: "day", relative }],
              }),
            ],
            { tables, inputs: {}, scope },
          );
          if (!("totals" in extent) || !("totals" in kept)) throw new Error("no answer");
          const newest = newestIn(extent);
          expect(newest).toBe(isoDate(Math.max(...days)));
          const said = spanDates(relative, String(newest), PROJECT).split(" – ");
          const [first, last] = [said[0], said[said.length - 1]].map((d) => parseIsoDate(d) ?? 0);
          expect(kept.totals.n).toBe(days.filter((d) => d >= first && d <= last).length);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("is nothing while the newest row is not known", () => {
    expect(newestIn(null)).toBeNull();
    expect(newestIn({ error: "gone" })).toBeNull();
  });
});

describe("a stretch in words", () => {
  it("is told apart from every other", () => {
    for (const anchor of ["newest", "today"] as const) {
      const texts = spansFrom(anchor).map((span) => spanText({ ...span, anchor }));
      expect(new Set(texts).size).toBe(SPANS.length);
    }
  });
});
