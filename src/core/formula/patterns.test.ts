import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { LimitError } from "../base/limit-error";
import { decimalMark, isMatch, momentBy, replacedByPattern } from "./patterns";
import { firstOf, lastOf, padded, pieceOf, placeOf } from "./texts";

describe("regular expressions of formulas", () => {
  it("take no longer on a pattern that would keep others busy for ever", () => {
    expect(isMatch(`${"a".repeat(50_000)}!`, "^(a+)+$")).toBe(false);
    expect(isMatch(`${"a".repeat(20_000)}!`, "^(a|aa|a?)*$")).toBe(false);
  });

  it("find what a plain search finds", () => {
    fc.assert(
      fc.property(
        fc.stringMatching(/^[ab.\-\d ]{0,30}$/),
        fc.constantFrom("a+b", "[0-9]+", "^ ", "b$", "a|-"),
        (text, p) => {
          expect(isMatch(text, p)).toBe(new RegExp(p).test(text));
          expect(replacedByPattern(text, p, "<$0>")).toBe(text.replace(new RegExp(p, "g"), "<$&>"));
        },
      ),
      { numRuns: 500, seed: 3 },
    );
  });

  it("fill groups, leave what is none, and write a dollar sign by two", () => {
    expect(replacedByPattern("12 May", "([0-9]+) (.*)", "$2 $1")).toBe("May 12");
    expect(replacedByPattern("a", "(a)|(b)", "[$1|$2|$7]$$")).toBe("[a||$7]$");
  });

  it("say in words what is wrong with them, each time", () => {
    for (let i = 0; i < 2; i++) expect(() => isMatch("a", "(")).toThrow(/“\(” is no regular expression/);
    expect(() => isMatch("a", "a".repeat(1001))).toThrow(LimitError);
    expect(() => momentBy("2020", "DD")).toThrow(/yyyy and the day/);
    expect(() => decimalMark(";")).toThrow(/neither/);
  });

  it("make no text without end", () => {
    expect(() => replacedByPattern("x".repeat(60_000), "x", "yy".repeat(10))).toThrow(LimitError);
    expect(() => padded("start", "a", 1e9)).toThrow(LimitError);
  });
});

describe("pieces of texts", () => {
  it("count characters, not halves of them", () => {
    expect(firstOf("𝒳yz", 2)).toBe("𝒳y");
    expect(lastOf("xy𝒵", 2)).toBe("y𝒵");
    expect(placeOf("y", "𝒳y")).toBe(2);
    expect(padded("start", "𝒳", 3, "ab")).toBe("ab𝒳");
  });

  it("are nothing where nothing is asked for", () => {
    expect([firstOf("abc", -1), lastOf("abc", 0), pieceOf("a-b", "-", 0), pieceOf("a-b", "-", 9)]).toEqual([
      "",
      "",
      "",
      "",
    ]);
    expect(pieceOf("a-b", "", 1)).toBe("a-b");
    expect(padded("end", "abc", 2, "")).toBe("ab");
    expect(padded("end", "abc", 5, "")).toBe("abc");
    expect(placeOf("", "abc")).toBe(1);
  });
});
