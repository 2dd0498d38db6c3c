import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatNumber, inOneUnit, NEW_FORMAT, type NumberFormat } from "../base/number-format";
import { shortApart, withDigits, writtenAlike } from "./digits";

const written = (values: number[], more: Partial<NumberFormat> = {}, extent = 400) => {
  const format = withDigits({ ...NEW_FORMAT, ...more }, values, extent);
  return values.map((v) => formatNumber(v, inOneUnit(format, values)).replaceAll("\u2009", " "));
};

describe("digits that nobody fixed", () => {
  it.each<[string, number[], Partial<NumberFormat>, string[]]>([
    ["rates under 1", [0.67, 0.64, 0.58, 0.52], {}, ["0.67", "0.64", "0.58", "0.52"]],
    ["whole numbers", [989, 1020, 1000], {}, ["989", "1 020", "1 000"]],
    ["averages", [8.25, 3.5, 12.1], {}, ["8.3", "3.5", "12.1"]],
    ["shares", [0.152, 0.131], { style: "percent" }, ["15.2 %", "13.1 %"]],
    ["shares that differ by little", [0.8641, 0.8672], { style: "percent" }, ["86.4 %", "86.7 %"]],
    ["money", [1204.5, 880.25], { style: "currency" }, ["€1 205", "€880"]],
    ["amounts under a hundred", [12.5, 9.99], { style: "currency" }, ["€12.50", "€9.99"]],
    ["millions", [4_470_000, 4_500_000], { units: "million" }, ["4.47 M", "4.50 M"]],
  ])("%s", (_, values, more, wanted) => expect(written(values, more)).toEqual(wanted));

  it("leave what cannot be told apart in shape as it is, and fixed ones too", () => {
    expect(written([1000.001, 1000.002])).toEqual(["1 000", "1 000"]);
    expect(written([0.67, 0.64], { decimals: 0 })).toEqual(["1", "1"]);
    expect(written([0.86411, 0.86412], { style: "percent" })).toEqual(["86.4 %", "86.4 %"]);
  });

  it("tell apart whatever differs by more than a pixel", () => {
    const value = fc.oneof(
      fc.integer({ min: -1_000_000, max: 1_000_000 }).map((n) => n / 1e6),
      fc.integer({ min: -100_000, max: 1e7 }),
      fc.integer({ min: 0, max: 50_000_000 }).map((n) => n / 1e5),
    );
    const style = fc.constantFrom<NumberFormat["style"]>("number", "percent", "currency");
    const units = fc.constantFrom<NumberFormat["units"]>("none", "automatic");
    fc.assert(
      fc.property(fc.array(value, { minLength: 2, maxLength: 12 }), style, units, (values, s, u) => {
        const format = withDigits({ ...NEW_FORMAT, style: s, units: u }, values, 400);
        expect(typeof format.decimals).toBe("number");
        expect(writtenAlike(values, inOneUnit(format, values), 400)).toBe(false);
      }),
      { numRuns: 2000, seed: 5 },
    );
  });

  it("are the same object each time, and those of one number where it stands alone", () => {
    const format = { ...NEW_FORMAT };
    expect(withDigits(format, [0.5, 0.25], 400)).toBe(withDigits(format, [0.75, 0.25], 400));
    expect(
      [0.6712, 8.25, 58.33, 1234.56, 7].map((v) => formatNumber(v, format).replace("\u2009", " ")),
    ).toEqual(["0.67", "8.25", "58.3", "1 235", "7"]);
  });
});

describe("short forms", () => {
  const whole = { ...NEW_FORMAT, decimals: 0 } as const;

  it("have the digits that tell values apart", () => {
    const values = [1_321_000, 1_154_000, 761_000];
    const [first] = shortApart(whole, values, 400);
    const texts = values.map((v) => formatNumber(v, first).replaceAll("\u2009", " "));
    expect(new Set(texts).size).toBe(3);
    expect(writtenAlike(values, first, 400)).toBe(false);
  });

  it("are none where two more digits do not tell apart what the full form does", () => {
    const value = fc.integer({ min: 0, max: 50_000_000 });
    fc.assert(
      fc.property(fc.array(value, { minLength: 2, maxLength: 12 }), (values) => {
        for (const form of shortApart(whole, values, 4000))
          expect(writtenAlike(values, form, 4000)).toBe(false);
      }),
      { numRuns: 1000, seed: 7 },
    );
  });

  it("stand for nothing, for empty values and for one alone", () => {
    for (const values of [[], [null, null], [5_000_000], [Number.NaN, 1e7]])
      expect(() => shortApart(whole, values, 0)).not.toThrow();
    expect(shortApart(whole, [5_000_000], 400).length).toBeGreaterThan(0);
  });
});
