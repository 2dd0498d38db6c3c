import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bucketStart, civil, DAY_MS, dayOf, isoDate, isoWeek, parseIsoDate } from "./calendar";

const anyDay = fc.integer({ min: -100_000_000, max: 100_000_000 });
const nearDay = fc.integer({ min: -800_000, max: 800_000 });

/** The same by the dates of the language. */
function byDate(day: number) {
  const moment = new Date(day * DAY_MS);
  return { year: moment.getUTCFullYear(), month: moment.getUTCMonth() + 1, day: moment.getUTCDate() };
}

describe("days and civil dates", () => {
  it("are those of the language's own dates, however far away", () => {
    fc.assert(
      fc.property(fc.oneof(anyDay, nearDay), (day) => {
        const date = byDate(day);
        expect(civil(day)).toEqual(date);
        expect(dayOf(date.year, date.month, date.day)).toBe(day);
      }),
      { numRuns: 2_000 },
    );
  });

  it("are so on every day of four centuries", () => {
    const wrong: number[] = [];
    for (let day = -135_140; day < 11_000; day++) {
      const { year, month, day: d } = civil(day);
      const moment = Date.UTC(year, month - 1, d) / DAY_MS;
      if (moment !== day || dayOf(year, month, d) !== day) wrong.push(day);
    }
    expect(wrong).toEqual([]);
  });

  it("know which dates do not exist", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5_000, max: 5_000 }),
        fc.integer({ min: -1, max: 14 }),
        fc.integer({ min: -1, max: 33 }),
        (year, month, day) => {
          const moment = new Date(0);
          moment.setUTCFullYear(year, month - 1, day);
          const exists = moment.getUTCMonth() === month - 1 && moment.getUTCDate() === day;
          expect(dayOf(year, month, day)).toBe(exists ? moment.getTime() / DAY_MS : null);
        },
      ),
      { numRuns: 2_000 },
    );
    for (const text of ["2023-02-29", "1900-02-29", "2026-04-31", "2026-00-10", "2026-13-01", "2026-1-0"])
      expect(parseIsoDate(text), text).toBeNull();
    expect(parseIsoDate("2000-02-29")).toBe(11_016);
    expect(dayOf(2026, Number.NaN, 1)).toBeNull();
    expect(dayOf(Number.NaN, 1, 1)).toBeNull();
    expect(dayOf(2026, 1, Number.NaN)).toBeNull();
    expect(dayOf(300_000, 1, 1)).toBeNull();
  });
});

describe("stretches of time", () => {
  it("begin on or before their days, and hold them", () => {
    const calendar = { weekStart: 7, weekOne: "first day" as const, yearStart: 4 };
    fc.assert(
      fc.property(nearDay, fc.constantFrom("year", "quarter", "month", "week", "day" as const), (day, by) => {
        for (const of of [undefined, calendar]) {
          const start = bucketStart(day, by as "year", of);
          expect(start).toBeLessThanOrEqual(day);
          expect(bucketStart(start, by as "year", of)).toBe(start);
          expect(day - start).toBeLessThan({ year: 366, quarter: 92, month: 31, week: 7, day: 1 }[by]);
        }
      }),
    );
  });

  it("of a year that begins in April take January to the year before", () => {
    const calendar = { weekStart: 1, weekOne: "iso" as const, yearStart: 4 };
    const start = (text: string, by: "year" | "quarter") =>
      isoDate(bucketStart(parseIsoDate(text) as number, by, calendar));
    expect(start("2026-01-15", "year")).toBe("2025-04-01");
    expect(start("2026-04-01", "year")).toBe("2026-04-01");
    expect(start("2026-03-31", "quarter")).toBe("2026-01-01");
  });

  it("number weeks as ISO 8601 does at the turn of years", () => {
    const week = (text: string) => isoWeek(parseIsoDate(text) as number);
    expect(week("2021-01-03")).toEqual({ year: 2020, week: 53 });
    expect(week("2021-01-04")).toEqual({ year: 2021, week: 1 });
    expect(week("2024-12-30")).toEqual({ year: 2025, week: 1 });
  });
});
