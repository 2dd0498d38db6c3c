import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { columnNames, readSample, sniffEncoding, sniffHeader, sniffQuote, sniffSeparator } from "./sniff";

let folder = "";
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "cavlo-sniff-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function encodingOf(bytes: Uint8Array): string {
  const path = join(folder, "file");
  writeFileSync(path, bytes);
  return sniffEncoding(path, bytes.length);
}
const utf16 = (text: string, big: boolean) => {
  const bytes = Buffer.from(text, "utf16le");
  return big ? bytes.swap16() : bytes;
};

describe("the encoding of a file", () => {
  it("is UTF-8 wherever the whole file is, however late its first odd character comes", () => {
    expect(encodingOf(Buffer.from(""))).toBe("utf-8");
    expect(encodingOf(Buffer.from("route,n\nFerrow,1\n"))).toBe("utf-8");
    const late = `${"a,b\n".repeat(300_000)}Ærø,1\n`;
    expect(encodingOf(Buffer.from(late))).toBe("utf-8");
    expect(encodingOf(Buffer.from(late, "latin1"))).toBe("windows-1252");
    // A character that the edge of a chunk cuts in two.
    expect(encodingOf(Buffer.from(`${"x".repeat((1 << 20) - 1)}é`))).toBe("utf-8");
    // One that the end of the file cuts in two is none.
    expect(encodingOf(Buffer.from("é").subarray(0, 1))).toBe("windows-1252");
  });

  it("is UTF-16 by its mark, or by its zero bytes", () => {
    for (const big of [false, true]) {
      const name = big ? "utf-16be" : "utf-16le";
      expect(encodingOf(utf16("\ufeffroute,n\n日本,1\n", big))).toBe(name);
      expect(encodingOf(utf16("route,n\nFerrow,1\n".repeat(20), big))).toBe(name);
      writeFileSync(join(folder, "16"), utf16("route,n\nFerrow,1\n", big));
      expect(readSample(join(folder, "16"), name)).toBe("route,n\nFerrow,1\n");
    }
    expect(() => encodingOf(new Uint8Array([1, 0, 2, 3, 0, 0, 4]))).toThrow("not a text file");
  });
});

describe("how a file is written", () => {
  it("is told for tables that are written with any separator and either quote", () => {
    const word = fc.stringMatching(/^[a-z]{1,6}$/);
    const cell = fc.oneof(word, fc.integer({ min: 0, max: 9_999 }).map(String));
    const table = fc
      .integer({ min: 2, max: 6 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 3, maxLength: 30 }),
      );
    fc.assert(
      fc.property(
        table,
        fc.constantFrom(",", ";", "\t", "|"),
        fc.constantFrom("", '"', "'"),
        fc.boolean(),
        (rows, separator, quote, holdsSeparators) => {
          const text = rows
            .map((row) =>
              row
                .map((c) => (quote ? `${quote}${c}${holdsSeparators ? ",;" : ""}${quote}` : c))
                .join(separator),
            )
            .join("\n");
          const found = sniffQuote(text);
          expect(found).toBe(quote || '"');
          expect(sniffSeparator(`${text}\n`, found)).toBe(separator);
        },
      ),
      { numRuns: 300 },
    );
  });

  it("is not misled by a decimal comma, nor by an apostrophe within words", () => {
    expect(sniffSeparator("route;fare;tax\nFerrow;1,5;0,3\nQuay;2;0,4\n", '"')).toBe(";");
    expect(sniffQuote("name,note\nO'Brien,it's late\nD'Arcy,on time\n")).toBe('"');
    expect(sniffSeparator("one column\nof words\n", '"')).toBe(",");
  });
});

describe("the first row", () => {
  it("holds names where none of its cells looks like a value", () => {
    expect(sniffHeader(["route", "n"], ["Ferrow", "1"])).toBe(true);
    expect(sniffHeader(["Ferrow", "1"], ["Quay", "2"])).toBe(false);
    expect(sniffHeader(["route", "2024", "2025"], ["Ferrow", "10", "20"])).toBe(true);
    expect(sniffHeader(["2024", "2025"], ["2023", "2022"])).toBe(false);
    expect(sniffHeader(["2026-01-01", "2026-02-01"], ["3", "4"])).toBe(true);
    expect(sniffHeader(["true", "false"], ["true", "true"])).toBe(false);
    expect(sniffHeader([null, null, "total"], ["a", "b", "c"])).toBe(false);
    expect(sniffHeader(["a", "b"], null)).toBe(true);
    expect(sniffHeader([], null)).toBe(false);
  });
});

describe("the names of columns", () => {
  it("are those of the head, trimmed, made up where there is none, and numbered where they stand twice", () => {
    expect(columnNames(["  route \n name ", "", null, "Route  Name", "constructor"], 6)).toEqual({
      names: ["route name", "column_2", "column_3", "Route Name_2", "constructor", "column_6"],
      notes: [
        "Column 2 has no name in the file; it is called column_2.",
        "Column 3 has no name in the file; it is called column_3.",
        "The name “Route Name” stands twice; column 4 is called Route Name_2.",
        "Column 6 has no name in the file; it is called column_6.",
      ],
    });
    expect(columnNames(null, 2)).toEqual({ names: ["column_1", "column_2"], notes: [] });
  });

  it("are cut where they are very long, which does not make them stand twice, nor leave half a character", () => {
    const long = `${"a".repeat(99)}😀 and more`;
    const { names, notes } = columnNames([`${long} 1`, `${long} 2`], 2);
    expect(names).toEqual(["a".repeat(99), `${"a".repeat(99)}_2`]);
    expect(notes).toEqual([
      `The name of column 1 has 112 characters; it is called ${names[0]}.`,
      `The name of column 2 has 112 characters; it is called ${names[1]}.`,
    ]);
  });

  it("are all there and all different, whatever the head is", () => {
    const name = fc.oneof(
      fc.constantFrom(null, "", " ", "a", "A", "a_2", "column_2", "__proto__", "\ud800"),
      fc.string({ unit: "binary", maxLength: 130 }),
    );
    fc.assert(
      fc.property(fc.array(name, { maxLength: 12 }), fc.integer({ min: 0, max: 14 }), (head, width) => {
        const { names } = columnNames(head, width);
        expect(names).toHaveLength(width);
        expect(new Set(names.map((n) => n.toLowerCase())).size).toBe(width);
        for (const n of names) expect(n.trim()).not.toBe("");
      }),
      { numRuns: 500 },
    );
  });
});
