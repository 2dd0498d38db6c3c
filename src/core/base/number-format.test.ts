import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fitText, shorten, textWidth, wrap } from "../scene/text";
import { exactNumber, formatNumber, inOneUnit, type NumberFormat, PLAIN_FORMAT } from "./number-format";
import { checkTemplate, fillTemplate, openPlace } from "./template";

const T = "\u2009";
describe("number format", () => {
  it.each([
    [934120, {}, `934${T}120`],
    [0.864, { style: "percent", decimals: 1 }, `86.4${T}%`],
    [1.12, { style: "percent" }, `112${T}%`],
    [934120, { units: "automatic", decimals: 0 }, "934k"],
    [4_213_000, { style: "currency", units: "automatic", decimals: 2 }, `€4.21${T}M`],
    [1_284_930_112, { units: "automatic", decimals: 1 }, `1.3${T}bn`],
    [999_960, { units: "automatic", decimals: 1 }, `1.0${T}M`],
    [0.00042, {}, "0.00042"],
    [0.00042, { units: "million" }, "0.00042"],
    [-12.5, { decimals: 1 }, "−12.5"],
    [1234.5, { locale: "de-DE", decimals: 1 }, "1.234,5"],
    [135, { style: "duration" }, `2${T}h\u00a015${T}min`],
    [-30, { style: "duration" }, `−30${T}min`],
    [5, { prefix: "~", suffix: " km" }, "~5\u00a0km"],
    [null, {}, "—"],
    [Number.NaN, {}, "—"],
    [Number.POSITIVE_INFINITY, {}, "—"],
  ] as const)("writes %s with %o", (value, format, expected) => {
    expect(formatNumber(value, { ...PLAIN_FORMAT, ...format })).toBe(expected);
  });
});

describe("numbers of other locales", () => {
  it("are written part by part as the language does, with a true minus and thin spaces where none is asked", () => {
    const currencies = ["EUR", "USD", "CHF", "JPY", "INR", "XYZ", "BHD"];
    const locales = [
      "plain",
      "de-DE",
      "fr-CH",
      "en-IN",
      "ar-EG",
      "sv-SE",
      "he-IL",
      "fa-IR",
      "hi-IN-u-nu-deva",
    ];
    const some = fc.oneof(
      fc.double({ noNaN: true, noDefaultInfinity: true }),
      fc.constantFrom(0, -0, -0.4, 1e21),
    );
    fc.assert(
      fc.property(
        some,
        fc.constantFrom(...locales),
        fc.option(fc.constantFrom(...currencies), { nil: null }),
        fc.integer({ min: 0, max: 10 }),
        (value, locale, currency, decimals) => {
          const vanishes = value !== 0 && Math.abs(value) < 0.5 * 10 ** -decimals;
          fc.pre(!vanishes);
          const written = new Intl.NumberFormat(locale === "plain" ? "en-GB" : locale, {
            minimumFractionDigits: decimals,
            maximumFractionDigits: decimals,
            ...(currency === null ? {} : { style: "currency", currency, currencyDisplay: "narrowSymbol" }),
          });
          const expected = written
            .formatToParts(value)
            .map((p) =>
              locale === "plain" && p.type === "group" ? T : p.type === "minusSign" ? "−" : p.value,
            );
          const style = currency === null ? {} : ({ style: "currency", currency } as const);
          expect(formatNumber(value, { ...PLAIN_FORMAT, ...style, locale, decimals })).toBe(
            expected.join(""),
          );
        },
      ),
    );
  });
});

describe("one unit for all values of a measure", () => {
  const bySize = { ...PLAIN_FORMAT, units: "automatic", decimals: 1 } as const;
  const write = (values: (number | null)[], format: NumberFormat = bySize) =>
    values.map((v) => formatNumber(v, inOneUnit(format, values)));

  it("is the largest in which the smallest still has a digit", () => {
    expect(write([1_321_014, 759_684, 382_452])).toEqual(["1.3\u2009M", "0.8\u2009M", "0.4\u2009M"]);
    expect(write([1_321_014, 382])).toEqual(["1\u2009321.0k", "0.4k"]);
    expect(write([1_321_014, 3])).toEqual(["1\u2009321\u2009014.0", "3.0"]);
    expect(write([2e9, null, 0, -3e8])).toEqual(["2.0\u2009bn", "—", "0.0\u2009bn", "−0.3\u2009bn"]);
    expect(write([])).toEqual([]);
  });

  it("leaves a chosen unit as it is", () => {
    const million = { ...bySize, units: "million" } as const;
    expect(inOneUnit(million, [5, 1e9])).toBe(million);
    expect(inOneUnit(bySize, [5e6])).toBe(inOneUnit(bySize, [7e6, 8e6]));
  });
});

describe("templates", () => {
  const values = { total: { value: 934120, format: PLAIN_FORMAT }, category: "<b>Old & new</b>" };
  it("write values and formats", () => {
    expect(fillTemplate("{total} = {total:automatic.1}, {Category}", values)).toBe(
      `934${T}120 = 934.1k, <b>Old & new</b>`,
    );
    expect(fillTemplate("{nothing} {total", values)).toBe("— {total");
  });
  it("name what is wrong and where", () => {
    expect(checkTemplate("a {totl} b", values)).toEqual([
      { start: 2, end: 8, message: "There is nothing called “totl” to write here. Did you mean {total}?" },
    ]);
    expect(checkTemplate("{total:percnt}", values)[0].message).toContain("is no format");
    expect(checkTemplate("50 } more", values)[0]).toMatchObject({ start: 3, end: 4 });
    expect(checkTemplate("{total:percent.1}", values)).toEqual([]);
    expect(checkTemplate("{category:percent.1}", values)[0].message).toContain("is a text");
  });

  it("write days by the date letters of Unicode, one or from one to another", () => {
    const days = {
      week: { from: "2026-01-01", to: "2026-01-01", text: "Week 1, 2026" },
      span: { from: "2025-12-29", to: "2026-02-01", text: "all of it" },
    };
    const write = (text: string) => fillTemplate(text, days);
    expect(write("{week}, {week:YYYY-'W'ww}, {week:dd.MM.yyyy}")).toBe("Week 1, 2026, 2026-W01, 01.01.2026");
    // The week belongs to the year of its Thursday.
    expect(write("{span:YYYY-'W'ww}")).toBe("2026-W01 – 2026-W05");
    expect(write("{span:MMM yyyy}, {span:'the year' y}")).toBe(
      "Dec 2025 – Feb 2026, the year 2025 – the year 2026",
    );
    // What is no pattern writes the day as it is, and is said.
    expect(write("{week:n}")).toBe("Week 1, 2026");
    expect(checkTemplate("{week:n}", days)[0].message).toContain("no way to write a date");
    expect(checkTemplate("{span:EEEE}", days)).toEqual([]);
  });

  it("know what is being written before a caret", () => {
    expect(openPlace("{total} of {me", 14)).toEqual({ from: 12, typed: "me", name: null });
    expect(openPlace("a {total:per} b", 12)).toEqual({ from: 9, typed: "per", name: "total" });
    expect(openPlace("a {total} b", 11)).toBeNull();
    expect(openPlace("a b", 2)).toBeNull();
  });
});

describe("text", () => {
  it("is shortened and wrapped to fit", () => {
    const long = "Upper Lanthorne Public Landing Stage";
    expect(textWidth(shorten(long, 90, 12, 400), 12, 400)).toBeLessThanOrEqual(90);
    expect(shorten(long, 90, 12, 400)).toMatch(/…$/);
    expect(shorten(long, 3, 12, 400)).toBe("");
    const lines = wrap(long, 100, 12, 400, 2);
    expect(lines).toHaveLength(2);
    for (const line of lines) expect(textWidth(line, 12, 400)).toBeLessThanOrEqual(100);
  });

  it("is never cut within a number, and never torn from a unit", () => {
    const texts = [
      "6\u2009025\u2009418 of 6\u2009500\u2009000",
      "$7.93\u2009M in all",
      "4.47\u2009M (77\u2009%)",
      "26.2\u2009% of the target",
      "Ferry 12\u2009345 to the isle",
      "−12.5\u2009% less",
      "1.234,5 of it",
    ];
    for (const text of texts) {
      const numbers = text.match(/[$−]?\d(?:[\d.,\u2009]*\d)?(?:\u2009(?:M|%))?/gu) ?? [];
      for (let width = 1; width < 200; width++) {
        const cut = shorten(text, width, 12, 400);
        if (!cut.endsWith("…")) continue;
        const kept = cut.slice(0, -1);
        // What is left of the text has each of its numbers whole, or not at all.
        for (const found of kept.match(/[$−]?\d(?:[\d.,\u2009]*\d)?(?:\u2009(?:M|%))?/gu) ?? [])
          expect(numbers, `${text} at ${width}: ${cut}`).toContain(found.trimEnd());
        for (const line of wrap(text, width, 12, 400, 3)) expect(line).not.toMatch(/^[%M]/);
      }
    }
    expect(shorten("310\u2009200", 30, 12, 400)).toBe("");
    expect(fitText(["6\u2009025\u2009418 of 6\u2009500\u2009000"], 40, 12, 400).text).toBe("");
    expect(fitText(["a long word without a number"], 60, 12, 400).text).toMatch(/…$/);
  });
});

describe("a number in full", () => {
  it.each<[number, Partial<NumberFormat>, string | undefined]>([
    [1_284_930_112, { units: "automatic", decimals: 1 }, "1\u2009284\u2009930\u2009112"],
    [0.152347, { style: "percent", decimals: 1 }, "15.2347\u2009%"],
    [8.25, { decimals: 1 }, "8.25"],
    [1000, { units: "thousand", decimals: 0 }, "1\u2009000"],
    [310_200, {}, undefined],
    [0.5, { decimals: 2 }, undefined],
    [0.1 + 0.2, { decimals: 1 }, undefined],
  ])("%d with %o", (value, more, wanted) =>
    expect(exactNumber(value, { ...PLAIN_FORMAT, ...more })).toBe(wanted),
  );
});
