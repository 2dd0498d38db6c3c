import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { civil, dayOf, isoDate, isoTimestamp } from "../base/calendar";
import { patternProblem, readByPattern } from "../base/date-pattern";
import { readNumber } from "../base/read-number";
import { readDate, readTimestamp } from "./cell-date";
import { doubtText } from "./doubt-text";
import { isNothing, readCell } from "./reading";
import { type CellKind, fileHints, NO_HINTS, ReadingGuess } from "./reading-guess";

const guessing = (cells: (string | null)[], kinds?: CellKind[]) => {
  const g = new ReadingGuess();
  for (const [i, c] of cells.entries()) g.add(c, kinds?.[i]);
  return g;
};
const guess = (...cells: (string | null)[]) => guessing(cells).settle().reading;
const doubts = (...cells: string[]) => guessing(cells).settle().doubts;

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
    ["0,912", ".", null],
    ["0.912", ",", null],
    ["0,912", ",", 0.912],
    ["%", ".", null],
  ] as const)("reads %s with %s", (text, decimal, expected) => {
    expect(readNumber(text, decimal)).toBe(expected);
  });

  it("reads back what it writes", () => {
    fc.assert(
      fc.property(
        fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e20, max: 1e20 }),
        (x) => void expect(readNumber(String(x), ".")).toBe(x + 0),
      ),
    );
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
    ["Jun 12 1998", "ymd", "1998-06-12"],
    ["June 12th, 1998", "ymd", "1998-06-12"],
    ["12-Jun-98", "ymd", "1998-06-12"],
    ["12-Jun-05", "dmy", "2005-06-12"],
    ["Jan 1 2000", "mdy", "2000-01-01"],
    ["Thu, 26 Nov 2026", "ymd", "2026-11-26"],
    ["June 2019", "ymd", "2019-06-01"],
    ["Sept 2019", "ymd", "2019-09-01"],
    ["2019-06", "ymd", "2019-06-01"],
    ["06/2019", "mdy", "2019-06-01"],
    ["20190612", "ymd", "2019-06-12"],
    ["20191312", "ymd", null],
    ["2020-W05", "ymd", "2020-01-27"],
    ["2020-W53", "ymd", "2020-12-28"],
    ["2019-W53", "ymd", null],
    ["Q1 2020", "ymd", "2020-01-01"],
    ["2020-Q4", "ymd", "2020-10-01"],
    ["Junk 2019", "ymd", null],
    ["Mayor 2019", "ymd", null],
    ["1/5/69", "dmy", "2069-05-01"],
    ["1/5/70", "dmy", "1970-05-01"],
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

describe("moments", () => {
  it.each([
    ["2001/01/01 06:55", "ymd", "2001-01-01T06:55:00"],
    ["1.2.2001 6:55 pm", "dmy", "2001-02-01T18:55:00"],
    ["2/1/2001 12:05 AM", "mdy", "2001-02-01T00:05:00"],
    ["Jun 12 1998 23:59:58.250", "ymd", "1998-06-12T23:59:58.250"],
    ["2026-05-01T08:30:00.5+02:00", "ymd", "2026-05-01T06:30:00.500"],
    ["2026-05-01 08:30 -0130", "ymd", "2026-05-01T10:00:00"],
    ["Thu, 26 Nov 2026 03:13:21 GMT", "ymd", "2026-11-26T03:13:21"],
    ["20190612T065501Z", "ymd", "2019-06-12T06:55:01"],
    ["2026-05-01 24:00", "ymd", "2026-05-02T00:00:00"],
    ["2026-05-01 25:00", "ymd", null],
    ["2026-05-01 13:00 pm", "ymd", null],
    ["06:55", "ymd", null],
  ] as const)("reads %s as %s", (text, order, expected) => {
    const ms = readTimestamp(text, order);
    expect(ms === null ? null : isoTimestamp(ms)).toBe(expected);
  });

  it("are read by a pattern of one's own, and what is no pattern is said", () => {
    const day = (text: string, pattern: string) => {
      const ms = readByPattern(text, pattern);
      return ms === null ? null : isoTimestamp(ms);
    };
    expect(day("31|12|99", "dd|MM|yy")).toBe("1999-12-31T00:00:00");
    expect(day("31|12|69", "dd|MM|yy")).toBe("2069-12-31T00:00:00");
    expect(day("Jun-98", "MMM-yy")).toBe("1998-06-01T00:00:00");
    expect(day("2019.163 07h", "yyyy.MMdd HH'h'")).toBeNull();
    expect(day("2019.0612 07h", "yyyy.MMdd HH'h'")).toBe("2019-06-12T07:00:00");
    expect(readCell("201906", { type: "date", pattern: "yyyyMM" })).toBe(dayOf(2019, 6, 1));
    expect(patternProblem("dd.MM.yyyy")).toBeNull();
    for (const bad of ["YYYY-MM-DD", "dd.MM", "yyyy-QQQQQQQQ-n"])
      expect(patternProblem(bad), bad).not.toBeNull();
    for (const any of ["yyyy", "[", "\ud800", "yyyy-ww-XYZ"])
      expect(() => readByPattern("2019", any)).not.toThrow();
  });

  it("read numbers that count from 1970 where somebody says so", () => {
    expect(readCell("1560322500", { type: "timestamp", epoch: "s" })).toBe(1_560_322_500_000);
    expect(readCell("1560322500250", { type: "timestamp", epoch: "ms" })).toBe(1_560_322_500_250);
    expect(readCell("9e300", { type: "timestamp", epoch: "ms" })).toBeNull();
  });

  it("read any moment back, in any notation", () => {
    const moments = fc
      .integer({ min: Date.UTC(1970, 0, 1), max: Date.UTC(2069, 11, 31) })
      .map((ms) => Math.floor(ms / 1000) * 1000);
    const names = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");
    fc.assert(
      fc.property(moments, fc.nat(7), (ms, form) => {
        const { year, month, day } = civil(Math.floor(ms / 86_400_000));
        const two = (n: number) => String(n).padStart(2, "0");
        const time = isoTimestamp(ms).slice(11);
        const [order, date] = (
          [
            ["ymd", `${year}/${two(month)}/${two(day)}`],
            ["dmy", `${day}.${month}.${year}`],
            ["mdy", `${month}/${day}/${year}`],
            ["dmy", `${two(day)}-${two(month)}-${two(year % 100)}`],
            ["ymd", `${day}-${names[month - 1]}-${two(year % 100)}`],
            ["ymd", `${names[month - 1]} ${day} ${year}`],
            ["ymd", `${names[month - 1]} ${day}, ${year}`],
            ["ymd", `${year}${two(month)}${two(day)}`],
          ] as const
        )[form];
        expect(readDate(date, order), date).toBe(Math.floor(ms / 86_400_000));
        expect(readTimestamp(`${date} ${time}`, order), `${date} ${time}`).toBe(ms);
      }),
      { numRuns: 2000 },
    );
  });
});

describe("guessing", () => {
  it("never takes three decimals for thousands", () => {
    expect(guess("1.234", "2.345", "0.912")).toEqual({ type: "number", decimal: "." });
    expect(doubts("1.234", "2.345", "0.912")).toEqual([]);
    expect(guess("1.234", "2.345")).toEqual({ type: "number", decimal: "." });
    expect(doubts("1.234", "2.345")).toEqual([
      {
        why: "decimal mark",
        other: { type: "number", decimal: "," },
        cells: [
          { text: "1.234", as: "1.234", other: "1234" },
          { text: "2.345", as: "2.345", other: "2345" },
        ],
      },
    ]);
    expect(guess("0,912", "1,234")).toEqual({ type: "number", decimal: "," });
  });

  it("takes a lone comma for thousands unless the file shows decimal commas, and says so", () => {
    const column = guessing(["1,234", "2,345"]);
    expect(column.settle().reading).toEqual({ type: "number", decimal: "." });
    expect(column.settle().doubts[0].cells[0]).toEqual({ text: "1,234", as: "1234", other: "1.234" });
    expect(column.settle({ ...NO_HINTS, decimalComma: true }).reading).toEqual({
      type: "number",
      decimal: ",",
    });
    expect(fileHints([column], ";").decimalComma).toBe(true);
    expect(fileHints([column], ",").decimalComma).toBe(false);
    expect(fileHints([column, guessing(["1,5", "2"])], ",").decimalComma).toBe(true);
    expect(fileHints([guessing(["1.234,5", "2"])], ",").pointGroups).toBe(true);
    expect(guessing(["1.234", "9.876"]).settle(fileHints([guessing(["1.234,5"])])).reading.decimal).toBe(",");
  });

  it("reads random numbers back in every notation that a file can hold", () => {
    const notations = {
      plain: ["", "."],
      english: [",", "."],
      continental: [".", ","],
      spaced: ["\u202f", ","],
    } as const;
    const amount = fc.record({
      whole: fc.integer({ min: 0, max: 99_999_999 }),
      cents: fc.integer({ min: 0, max: 99 }),
    });
    fc.assert(
      fc.property(
        fc.array(amount, { minLength: 1, maxLength: 20 }),
        fc.constantFrom(...Object.keys(notations)),
        (amounts, form) => {
          const [group, mark] = notations[form as keyof typeof notations];
          const cells = amounts.map(
            ({ whole, cents }) =>
              `${String(whole).replace(/\B(?=(\d{3})+$)/g, group)}${mark}${String(cents).padStart(2, "0")}`,
          );
          const { reading } = guessing(cells).settle();
          expect(cells.map((c) => readCell(c, reading))).toEqual(
            amounts.map(({ whole, cents }) => Number(`${whole}.${String(cents).padStart(2, "0")}`)),
          );
        },
      ),
      { numRuns: 500 },
    );
  });

  it("never settles in silence what could be a thousand times another: either it is settled by a cell, or it is said", () => {
    const cell = fc
      .tuple(fc.integer({ min: 0, max: 999 }), fc.integer({ min: 0, max: 999 }), fc.constantFrom(".", ","))
      .map(([a, b, mark]) => `${a}${mark}${String(b).padStart(3, "0")}`);
    fc.assert(
      fc.property(fc.array(cell, { minLength: 1, maxLength: 6 }), (cells) => {
        const { reading, doubts: said } = guessing(cells).settle();
        const both = ([".", ","] as const).filter((decimal) =>
          cells.every((c) => readNumber(c, decimal) !== null),
        );
        if (both.length === 2) expect(said[0]?.why).toBe("decimal mark");
        else if (both.length === 1) expect(reading).toEqual({ type: "number", decimal: both[0] });
        else expect(reading).toEqual({ type: "text" });
      }),
    );
  });

  it("says what dates, digits and brackets could be besides", () => {
    expect(guess("01/05/2026", "02/06/2026")).toEqual({ type: "date", dateOrder: "dmy" });
    expect(doubts("01/05/2026", "02/06/2026")[0]).toMatchObject({
      why: "day or month first",
      other: { type: "date", dateOrder: "mdy" },
      cells: [{ as: "2026-05-01", other: "2026-01-05" }, {}],
    });
    expect(doubts("05/05/2026")).toEqual([]);
    expect(guessing(["01/05/2026"]).settle({ ...NO_HINTS, dateOrder: "mdy" }).reading.dateOrder).toBe("mdy");
    expect(fileHints([guessing(["13/04/2026"])]).dateOrder).toBe("dmy");
    expect(doubts("0", "1", "0")[0]).toMatchObject({ why: "zero and one", other: { type: "boolean" } });
    expect(guess("20190612", "20200101")).toEqual({ type: "date", dateOrder: "ymd" });
    expect(doubts("20190612")[0].other).toEqual({ type: "number", decimal: "." });
    expect(guess("201906", "201907")).toEqual({ type: "number", decimal: "." });
    expect(doubts("201906")[0].other).toEqual({ type: "date", pattern: "yyyyMM" });
    expect(guess("1560322500", "1560322501")).toEqual({ type: "number", decimal: "." });
    expect(doubts("1560322500")[0].other).toEqual({ type: "timestamp", epoch: "s" });
    expect(doubts("1560322500123")[0].other).toEqual({ type: "timestamp", epoch: "ms" });
    expect(doubts("12E5", "3E7")[0]).toMatchObject({ why: "numbers with an e", other: { type: "text" } });
    expect(doubts("(12)", "(3)")[0].why).toBe("all in brackets");
    expect(doubts("(12)", "3")).toEqual([]);
    expect(guessing(["12%", "3"]).settle().notes[0]).toContain("percent sign");
    expect(guessing(["12-Jun-98"]).settle().notes[0]).toContain("two digits");
    for (const cells of [
      ["1.234"],
      ["01/05/2026"],
      ["0", "1"],
      ["201906"],
      ["1560322500"],
      ["1E5"],
      ["(1)"],
    ]) {
      const { reading, doubts: said } = guessing(cells).settle();
      expect(doubtText("c", reading, said[0])).toMatch(/^“c”: .+ could /);
    }
  });

  it("keeps names made of digits as texts", () => {
    expect(guess("01234", "98765")).toEqual({ type: "text" });
    expect(guess("12345678901234567890", "1")).toEqual({ type: "text" });
    expect(guess("9007199254740991")).toEqual({ type: "number", decimal: "." });
    expect(guess("9007199254740993")).toEqual({ type: "text" });
    expect(doubts("01234", "98765")).toEqual([]);
  });

  it("offers what fits nearly all cells, with those that it would lose", () => {
    const cells = [...Array.from({ length: 50 }, (_, i) => String(i * 7)), "lots"];
    expect(guess(...cells)).toEqual({ type: "text" });
    expect(doubts(...cells)).toEqual([
      {
        why: "a few do not fit",
        other: { type: "number", decimal: "." },
        cells: [{ text: "lots", as: "lots", other: null }],
      },
    ]);
    expect(doubts("North", "South", "East", "West", "12", "Up", "Down", "In", "Out")).toEqual([]);
  });

  it("takes values with types of their own as they are", () => {
    const typed = (cells: string[], kind: CellKind) =>
      guessing(
        cells,
        cells.map(() => kind),
      ).settle();
    expect(typed(["1.234", "2.345"], "number")).toEqual({
      reading: { type: "number", decimal: "." },
      doubts: [],
      notes: [],
    });
    expect(typed(["12", "13"], "text")).toMatchObject({
      reading: { type: "text" },
      doubts: [{ why: "texts like numbers" }],
    });
    expect(typed(["2026-05-01", "2026-05-02"], "text").reading).toEqual({ type: "date", dateOrder: "ymd" });
    expect(typed(["2026-05-01", "soon"], "text").reading).toEqual({ type: "text" });
    expect(typed(["20190612"], "text").reading).toEqual({ type: "text" });
    expect(typed(["true"], "text").reading).toEqual({ type: "text" });
    expect(typed(["true", "false"], "boolean").reading).toEqual({ type: "boolean" });
    expect(guessing(["1", "n/a"], ["number", "text"]).settle().reading.type).toBe("number");
    expect(guessing(["1", "lots"], ["number", "text"]).settle()).toMatchObject({
      reading: { type: "text" },
      doubts: [{ why: "a few do not fit" }],
    });
  });

  it("takes the reading that fits every cell", () => {
    expect(guess("1", "2.5", "")).toEqual({ type: "number", decimal: "." });
    expect(guess("1,5", "2")).toEqual({ type: "number", decimal: "," });
    expect(guess("1.234", "2.000.000")).toEqual({ type: "number", decimal: "," });
    expect(guess("1.234", "2.5")).toEqual({ type: "number", decimal: "." });
    expect(guess("yes", "no", "N/A")).toEqual({ type: "boolean" });
    expect(guess("1", "0")).toEqual({ type: "number", decimal: "." });
    expect(guess("13/04/2026", "01/05/2026")).toEqual({ type: "date", dateOrder: "dmy" });
    expect(guess("04/13/2026", "05/01/2026")).toEqual({ type: "date", dateOrder: "mdy" });
    expect(guess("2026-05-01 08:30", "2026-05-02")).toEqual({ type: "timestamp", dateOrder: "ymd" });
    expect(guess("12", "lots")).toEqual({ type: "text" });
    expect(guess("00123", "00456")).toEqual({ type: "text" });
    expect(guess("", "null")).toEqual({ type: "text" });
  });

  it("lets a late cell overturn the early ones", () => {
    const g = new ReadingGuess();
    for (let i = 0; i < 5000; i++) g.add(String(i));
    g.add("n. a. this time");
    expect(g.settle().reading).toEqual({ type: "text" });
  });
});

it("takes the usual words for nothing as null", () => {
  for (const word of ["", " ", "NULL", "n/a", "-", "None"]) expect(isNothing(word)).toBe(true);
  expect(readCell("none of these", { type: "text" })).toBe("none of these");
  expect(readCell("lots", { type: "number" })).toBeNull();
});
