import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { civil, dayOf, isoDate } from "../formula/calendar";
import { isNothing, ReadingGuess, readCell, readDate, readNumber } from "./reading";

const guess = (...cells: (string | null)[]) => {
  const g = new ReadingGuess();
  for (const c of cells) g.add(c);
  return g.result();
};

describe("numbers", () => {
  it.each([
    ["1,234.5", ".", 1234.5],
    ["1.234,5", ",", 1234.5],
    ["1 234,5", ",", 1234.5],
    ["1\u202f234", ".", 1234],
    ["€ 12.50", ".", 12.5],
    ["12,50 €", ",", 12.5],
    ["-$3", ".", -3],
    ["($1,200)", ".", -1200],
    ["86.4 %", ".", 0.864],
    ["1e3", ".", 1000],
    [".5", ".", 0.5],
    ["−7", ".", -7],
    ["1,23.4", ".", null],
    ["12a", ".", null],
    ["1.2.3", ".", null],
    ["%", ".", null],
  ] as const)("reads %s with %s", (text, decimal, expected) => {
    expect(readNumber(text, decimal)).toBe(expected);
  });

  it("reads back what it writes", () => {
    fc.assert(fc.property(fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e20, max: 1e20 }), (x) => void expect(readNumber(String(x), ".")).toBe(x + 0)));
  });
});

describe("dates", () => {
  it.each([
    ["2026-05-01", "ymd", "2026-05-01"],
    ["01.05.2026", "dmy", "2026-05-01"],
    ["5/1/26", "mdy", "2026-05-01"],
    ["1 May 2026", "dmy", "2026-05-01"],
    ["31.04.2026", "dmy", null],
    ["2026-13-01", "ymd", null],
    ["29.02.2024", "dmy", "2024-02-29"],
    ["29.02.2023", "dmy", null],
  ] as const)("reads %s as %s", (text, order, expected) => {
    const day = readDate(text, order);
    expect(day === null ? null : isoDate(day)).toBe(expected);
  });

  it("goes there and back over two thousand years", () => {
    fc.assert(
      fc.property(fc.integer({ min: -365_000, max: 365_000 }), (day) => {
        const { year, month, day: d } = civil(day);
        expect(dayOf(year, month, d)).toBe(day);
        expect(isoDate(day)).toContain(`-${String(month).padStart(2, "0")}-`);
      }),
    );
  });
});

describe("guessing", () => {
  it("takes the reading that fits every cell", () => {
    expect(guess("1", "2.5", "")).toEqual({ type: "number", decimal: "." });
    expect(guess("1,5", "2")).toEqual({ type: "number", decimal: "," });
    expect(guess("1.234", "2.000.000")).toEqual({ type: "number", decimal: "," });
    expect(guess("1.234", "2.5")).toEqual({ type: "number", decimal: "." });
    expect(guess("yes", "no", "N/A")).toEqual({ type: "boolean" });
    expect(guess("1", "0")).toEqual({ type: "number", decimal: "." });
    expect(guess("13/04/2026", "01/05/2026")).toEqual({ type: "date", dateOrder: "dmy" });
    expect(guess("04/13/2026", "05/01/2026")).toEqual({ type: "date", dateOrder: "mdy" });
    expect(guess("2026-05-01 08:30", "2026-05-02")).toEqual({ type: "timestamp" });
    expect(guess("12", "lots")).toEqual({ type: "text" });
    expect(guess("00123", "00456")).toEqual({ type: "text" });
    expect(guess("", "null")).toEqual({ type: "text" });
  });

  it("lets a late cell overturn the early ones", () => {
    const g = new ReadingGuess();
    for (let i = 0; i < 5000; i++) g.add(String(i));
    g.add("n. a. this time");
    expect(g.result()).toEqual({ type: "text" });
  });
});

it("takes the usual words for nothing as null", () => {
  for (const word of ["", " ", "NULL", "n/a", "-", "None"]) expect(isNothing(word)).toBe(true);
  expect(readCell("none of these", { type: "text" })).toBe("none of these");
  expect(readCell("lots", { type: "number" })).toBeNull();
});
