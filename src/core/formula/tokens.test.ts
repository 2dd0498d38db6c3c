import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type TokenKind, tokenize } from "./tokens";

const told = (source: string) => tokenize(source).tokens.map(({ kind, text }) => [kind, text]);

describe("the tokens of a formula", () => {
  it("are its words, names, numbers, texts, inputs and symbols, as they are meant", () => {
    expect(told(`sum("Net ""fare""") / :goal >= 1.5e3 != 'it''s' || .5`)).toEqual([
      ["word", "sum"],
      ["symbol", "("],
      ["quoted", 'Net "fare"'],
      ["symbol", ")"],
      ["symbol", "/"],
      ["input", "goal"],
      ["symbol", ">="],
      ["number", "1.5e3"],
      ["symbol", "<>"],
      ["string", "it's"],
      ["symbol", "||"],
      ["number", ".5"],
      ["end", ""],
    ]);
    expect(
      told("Überfahrt_2 日本 constructor __proto__")
        .slice(0, -1)
        .map(([, text]) => text),
    ).toEqual(["Überfahrt_2", "日本", "constructor", "__proto__"]);
  });

  it("leave blanks and comments out, closed or not", () => {
    expect(told("a -- to the end of the line / b\n+/* of\nseveral */c")).toEqual([
      ["word", "a"],
      ["symbol", "+"],
      ["word", "c"],
      ["end", ""],
    ]);
    expect(told("a /* never closed")).toEqual([
      ["word", "a"],
      ["end", ""],
    ]);
    expect(told("")).toEqual([["end", ""]]);
  });

  it("say what is wrong, where, and what other languages write", () => {
    const wrong = (source: string) =>
      tokenize(source).problems.map(({ start, end, message, mends }) => [
        source.slice(start, end),
        message,
        mends?.map((m) => m.text) ?? null,
      ]);
    expect(wrong("a == b && c")).toEqual([
      ["==", "“==” is written =.", ["="]],
      ["&&", "“&&” is written and.", ["and"]],
    ]);
    expect(wrong("'open")).toEqual([["'open", "This text has no closing '. Add one where it ends.", null]]);
    expect(wrong('"open')).toEqual([['"open', 'This name has no closing ". Add one where it ends.', null]]);
    expect(wrong(": goal")).toEqual([[":", "A colon starts the name of an input, for example :goal.", null]]);
    // Whole characters are named, not halves of them.
    expect(wrong("a 😀 b")).toEqual([["😀", "“😀” has no meaning in a formula. Remove it.", null]]);
    expect(wrong("\ud83d")).toHaveLength(1);
  });

  it("are found again among any blanks", () => {
    const token = fc.oneof(
      fc.stringMatching(/^[a-z_][a-z0-9_]{0,6}$/).map((text) => ["word", text, text] as const),
      fc.nat(1e6).map((n) => ["number", String(n), String(n)] as const),
      fc
        .string({ unit: "binary", maxLength: 8 })
        .map((text) => ["string", text, `'${text.replaceAll("'", "''")}'`] as const),
      fc
        .string({ unit: "binary", maxLength: 8 })
        .map((text) => ["quoted", text, `"${text.replaceAll('"', '""')}"`] as const),
      fc.stringMatching(/^[a-z_]{1,6}$/).map((text) => ["input", text, `:${text}`] as const),
      fc.constantFrom("(", ")", ",", "<=", "<>", "*").map((text) => ["symbol", text, text] as const),
    );
    const blank = fc.constantFrom(" ", "\n", "\t ", " /* x */ ", " -- x\n");
    fc.assert(
      fc.property(fc.array(fc.tuple(token, blank), { maxLength: 20 }), (written) => {
        const source = written.map(([[, , text], after]) => text + after).join("");
        const { tokens, problems } = tokenize(source);
        expect(problems).toEqual([]);
        const expected: [TokenKind, string][] = written.map(([[kind, text]]) => [kind, text]);
        expect(tokens.map((t) => [t.kind, t.text])).toEqual([...expected, ["end", ""]]);
        for (const [i, { start, end }] of tokens.slice(0, -1).entries())
          expect(source.slice(start, end)).toBe(written[i][0][2]);
      }),
      { numRuns: 300 },
    );
  });

  it("of any text stand in its order, within it, and end where it ends", () => {
    const odd = fc.string({
      unit: fc.constantFrom(
        "a",
        "1",
        ".",
        "'",
        '"',
        ":",
        "-",
        "*",
        "/",
        "=",
        "&",
        " ",
        "\n",
        "é",
        "\ud800",
        "\u0000",
      ),
      maxLength: 40,
    });
    fc.assert(
      fc.property(odd, (source) => {
        const { tokens, problems } = tokenize(source);
        let at = 0;
        for (const { start, end } of tokens) {
          expect(start).toBeGreaterThanOrEqual(at);
          expect(end).toBeGreaterThanOrEqual(start);
          at = end;
        }
        expect(tokens.at(-1)).toEqual({ kind: "end", text: "", start: source.length, end: source.length });
        for (const { start, end } of problems) expect(start < end && end <= source.length).toBe(true);
      }),
      { numRuns: 1_000 },
    );
  });
});
