import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isDigitName, readNumber } from "./read-number";

describe("a number in a cell", () => {
  it("is read back as it is written in any grouping, with either mark", () => {
    const number = fc
      .double({ min: -1e12, max: 1e12, noNaN: true })
      .map((x) => Math.round(x * 100) / 100 + 0);
    const written = fc.record({
      x: number,
      mark: fc.constantFrom("." as const, "," as const),
      group: fc.constantFrom("", "\u0020", "\u00a0", "\u2009", "\u202f", "'", "’", "other mark"),
      minus: fc.constantFrom("-", "−", "()"),
      currency: fc.constantFrom("", "€", "$ ", " EUR", " kr."),
    });
    fc.assert(
      fc.property(written, ({ x, mark, group, minus, currency }) => {
        const [whole, part = ""] = Math.abs(x).toString().split(".");
        const sign = group === "other mark" ? (mark === "." ? "," : ".") : group;
        const grouped = whole.replace(/\B(?=(\d{3})+$)/g, sign);
        const digits = grouped + (part && mark + part);
        const amount =
          /^\s|\.$/.test(currency) || currency === " EUR" ? digits + currency : currency + digits;
        const text = x >= 0 ? amount : minus === "()" ? `(${amount})` : minus + amount;
        expect(readNumber(` ${text} `, mark), text).toBe(x);
      }),
      { numRuns: 1_000 },
    );
  });

  it("understands percent, powers of ten and signs, and keeps the digits of a percentage", () => {
    expect(readNumber("86.4 %", ".")).toBe(0.864);
    expect(readNumber("86,4%", ",")).toBe(0.864);
    expect(readNumber("1.5e3", ".")).toBe(1500);
    expect(readNumber("1,5E-3", ",")).toBe(0.0015);
    expect(readNumber("+7", ".")).toBe(7);
    expect(readNumber("+ 7 €", ".")).toBe(7);
    expect(readNumber("€ -5", ".")).toBe(-5);
    expect(readNumber("(-5)", ".")).toBe(5);
    expect(readNumber(".5", ".")).toBe(0.5);
    expect(readNumber("5.", ".")).toBe(5);
  });

  it("is none where a text only has digits", () => {
    for (const text of [
      "",
      " ",
      "-",
      "%",
      "()",
      "€",
      "e5",
      "1 2",
      "12 34",
      "1,23,456",
      "1.2.3",
      "0x10",
      "1e",
      "NaN",
    ])
      expect(readNumber(text, "."), text).toBeNull();
    // No group begins with a zero, and one is of three digits.
    expect(readNumber("0,912", ".")).toBeNull();
    expect(readNumber("1,91", ".")).toBeNull();
    expect(readNumber("1e999", ".")).toBeNull();
    expect(readNumber("1.234", ",")).toBe(1234);
    expect(readNumber("1.23", ",")).toBeNull();
  });

  it("is a name where it has a leading zero, or more digits than a number keeps", () => {
    expect(["007", "-01", "+00", "9007199254740993", "12345678901234567890"].map(isDigitName)).toEqual(
      Array(5).fill(true),
    );
    expect(["0", "0.5", "7", "9007199254740991", "1000000000000000", "a07"].map(isDigitName)).toEqual(
      Array(6).fill(false),
    );
  });
});
