import { expect, it } from "vitest";
import { keptIn, keptProblem, withKept, withoutKept } from "./kept-words";
import { nothingWord, readCell } from "./reading";
import { nothingDoubts } from "./reading-guess";
import { readingKey, readingLabel } from "./reading-label";
import type { Reading } from "./reading-schema";

const TEXT: Reading = { type: "text" };

it("words for nothing are empty until a column keeps them, each for itself; blank stays empty", () => {
  const kept = withKept(TEXT, "none");
  expect(["None", " none ", "NA", "", "  ", "North"].map((cell) => readCell(cell, TEXT))).toEqual([
    null,
    null,
    null,
    null,
    null,
    "North",
  ]);
  expect(["None", " none ", "NA", "", "  ", null].map((cell) => readCell(cell, kept))).toEqual([
    "None",
    " none ",
    null,
    null,
    null,
    null,
  ]);
  expect(withKept(kept, "none")).toEqual(kept);
  expect(withoutKept(kept, "none")).toEqual(TEXT);
  expect(readCell("-", { type: "number", kept: ["-"] })).toBeNull();
});

it("a reading that keeps words is another one, and is called so", () => {
  const kept = withKept(withKept(TEXT, "na"), "none");
  expect(readingKey(kept)).toBe(readingKey(withKept(withKept(TEXT, "none"), "na")));
  expect(readingKey(kept)).not.toBe(readingKey(TEXT));
  expect(readingLabel(kept)).toBe("text, “na”, “none” kept");
});

it("each word of a column of texts is a doubt of its own, with its count", () => {
  const words = new Map([
    ["None", 8939],
    ["-", 2],
  ]);
  expect(nothingDoubts(TEXT, words).map((d) => [d.why, d.count, d.other])).toEqual([
    ["words for nothing", 8939, { type: "text", kept: ["none"] }],
    ["words for nothing", 2, { type: "text", kept: ["-"] }],
  ]);
  expect(nothingDoubts({ type: "number" }, words)).toEqual([]);
});

it("a list of words takes those that count as empty, and says which does not", () => {
  expect(keptIn("None, NA,, - ")).toEqual(["none", "na", "-"]);
  expect(keptProblem("None, NA")).toBeNull();
  expect(keptProblem("None, North")).toContain("“North” is a value already");
  expect([nothingWord("constructor"), nothingWord("")]).toEqual([null, null]);
});
