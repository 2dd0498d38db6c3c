import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newMeasure } from "../project/defaults";
import { measureSchema } from "../project/schema";
import { DAY_MS, isoDate } from "./calendar";
import { patternProblem, readByPattern, writeByPattern, writeDay } from "./date-pattern";

describe("a date by a pattern", () => {
  it("is read back as it is written, for every pattern that has all of it", () => {
    const pattern = fc.constantFrom(
      "dd.MM.yyyy",
      "yyyyMMdd",
      "d MMM yyyy",
      "MMMM d, yyyy",
      "yyyy-'day' DDD",
      "RRRR-'W'II-i",
    );
    const day = fc.integer({ min: -25_000, max: 60_000 });
    fc.assert(
      fc.property(pattern, day, (of, at) => {
        const written = writeByPattern(isoDate(at), of) as string;
        const usable = of.includes("DDD") ? null : readByPattern(written, of);
        if (!of.includes("DDD")) expect(usable, `${written} by ${of}`).toBe(at * DAY_MS);
        else expect(written.startsWith(isoDate(at).slice(0, 4))).toBe(true);
      }),
      { numRuns: 500 },
    );
  });

  it("takes what it leaves out from the first of January, and two digits of a year as 1970 to 2069", () => {
    expect(readByPattern("1998", "yyyy")).toBe(Date.UTC(1998, 0, 1));
    expect(readByPattern("May 69", "MMM yy")).toBe(Date.UTC(2069, 4, 1));
    expect(readByPattern("May 70", "MMM yy")).toBe(Date.UTC(1970, 4, 1));
    expect(readByPattern(" 20260501T0830 ", "yyyyMMdd'T'HHmm")).toBe(Date.UTC(2026, 4, 1, 8, 30));
  });

  it("is none where the text does not fit it, or it is none", () => {
    expect(readByPattern("31.04.2026", "dd.MM.yyyy")).toBeNull();
    expect(readByPattern("no date", "dd.MM.yyyy")).toBeNull();
    expect(readByPattern("2026", "nonsense")).toBeNull();
    expect(writeByPattern("no date", "yyyy")).toBeNull();
    expect(writeByPattern("2026-05-01", "'only words'")).toBeNull();
    expect(writeByPattern("2026-05-01", "nnn")).toBeNull();
    expect(writeByPattern("2026-05-01T23:30:00", "HH:mm")).toBe("23:30");
    expect(writeByPattern("2021-01-03", "YYYY-'W'ww")).toBe("2020-W53");
  });

  it("says what keeps it from being used", () => {
    expect(patternProblem("dd.MM.yyyy")).toBeNull();
    expect(patternProblem("MMM yy")).toBeNull();
    expect(patternProblem("DD.MM.YYYY")).toContain("in small letters");
    expect(patternProblem("dd.MM")).toContain("needs a year");
    expect(patternProblem("yyyy nonsense")).toContain("no pattern of a date");
  });
});

describe("the days of a measure", () => {
  it("are written by its pattern, and as they are without one or where that is none", () => {
    expect(writeDay("2025-12-31", { dates: "dd MMM yyyy" })).toBe("31 Dec 2025");
    expect(writeDay("2025-12-31T14:05:00", { dates: "d.M.yyyy HH:mm" })).toBe("31.12.2025 14:05");
    expect(writeDay("2025-12-31", {})).toBe("2025-12-31");
    expect(writeDay("North Quay", { dates: "dd MMM yyyy" })).toBe("North Quay");
  });

  it("have patterns that are checked where they are kept", () => {
    const measure = newMeasure({ id: "m", name: "last", label: "Last", table: "t", formula: "max(day)" });
    const kept = (dates: string) => measureSchema.safeParse({ ...measure, format: { dates } });
    expect(kept("dd MMM yyyy").data?.format.dates).toBe("dd MMM yyyy");
    for (const wrong of ["", "x".repeat(41), "!!", "'never'"])
      expect(kept(wrong).error?.issues[0].path, wrong).toEqual(["format", "dates"]);
  });
});
