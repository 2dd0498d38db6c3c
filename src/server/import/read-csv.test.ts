import { describe, expect, it } from "vitest";
import { readingFolder } from "../../testing/reading-folder";

const { read, problem } = readingFolder();

describe("words for nothing in a column of texts", () => {
  it("are a doubt each, with their count, and none where they stand among numbers", async () => {
    const rows = Array.from(
      { length: 40 },
      (_, i) => `${i % 4 === 0 ? "None" : "North"},${i % 5 ? i : "-"},${i === 3 ? "n/a" : "x"}`,
    );
    const table = await read(`stop,riders,note\n${rows.join("\n")}\n`);
    expect(table.columns.map((c) => c.reading.type)).toEqual(["text", "number", "text"]);
    const doubts = table.doubts.filter((d) => d.why === "words for nothing");
    expect(doubts.map((d) => [d.column, d.count, d.cells[0].text, d.other.kept])).toEqual([
      ["stop", 10, "None", ["none"]],
      ["note", 1, "n/a", ["n/a"]],
    ]);
  });
});

describe("reading CSV", () => {
  it.each([
    ["a,b\n1,2\n", ",", [["1", "2"]]],
    ["a;b\r\n1,5;2,5\r\n", ";", [["1,5", "2,5"]]],
    ["a\tb\nx y\tz\n", "\t", [["x y", "z"]]],
    [
      "a|b\n1|2\n3|4",
      "|",
      [
        ["1", "2"],
        ["3", "4"],
      ],
    ],
    ['a,b\n"1,5","say ""hi"""\n', ",", [["1,5", 'say "hi"']]],
    ['a,b\n"two\nlines",2\n', ",", [["two\nlines", "2"]]],
    ['a,b\nx 5" pipe,2\n', ",", [['x 5" pipe', "2"]]],
    [
      "a;b\n'one;two';3\n'x';4\n",
      ";",
      [
        ["one;two", "3"],
        ["x", "4"],
      ],
    ],
  ] as const)("detects the separator and quotes of %j", async (content, separator, cells) => {
    const table = await read(content);
    expect(table.source.separator).toBe(separator);
    expect(table.cells).toEqual(cells);
  });

  it.each([
    ["utf-8", Buffer.from("\ufeffname,n\nZürich,1\n", "utf8")],
    ["utf-8", Buffer.from("name,n\nZürich,1\n", "utf8")],
    ["utf-16le", Buffer.from("\ufeffname,n\nZürich,1\n", "utf16le")],
    ["utf-16le", Buffer.from("name,n\nZürich,1\n", "utf16le")],
    ["utf-16be", Buffer.from("\ufeffname,n\nZürich,1\n", "utf16le").swap16()],
    ["windows-1252", Buffer.from("name,n\nZürich,1\n", "latin1")],
  ] as const)("detects %s", async (encoding, content) => {
    const table = await read(content);
    expect(table.source.encoding).toBe(encoding);
    expect(table.columns[0].name).toBe("name");
    expect(table.cells).toEqual([["Zürich", "1"]]);
  });

  it("finds a broken UTF-8 byte late in the file", async () => {
    const table = await read(
      Buffer.concat([
        Buffer.from(`name,n\n${"abc,1\n".repeat(200_000)}`),
        Buffer.from("Zürich,2\n", "latin1"),
      ]),
    );
    expect(table.source.encoding).toBe("windows-1252");
    expect(table.cells.at(-1)).toEqual(["Zürich", "2"]);
  });

  it("tells a head from data, and takes the person's word for it", async () => {
    expect((await read("x,y\na,b\n")).source.header).toBe(true);
    expect((await read("1,2\n3,4\n")).source.header).toBe(false);
    expect((await read("1,2\n3,4\n")).columns.map((c) => c.name)).toEqual(["column_1", "column_2"]);
    expect((await read("x,y\na,b\n", "t.csv", { header: false })).rows).toBe(2);
  });

  it("mends names and short rows, and says so", async () => {
    const table = await read("a,a,,B\n1,2,3\n4,5,6,7\n");
    expect(table.columns.map((c) => c.name)).toEqual(["a", "a_2", "column_3", "B"]);
    expect(table.cells[0]).toEqual(["1", "2", "3", null]);
    expect(table.notes).toEqual([
      "The name “a” stands twice; column 2 is called a_2.",
      "Column 3 has no name in the file; it is called column_3.",
      "Row 2 has 3 of 4 cells; the missing ones are empty.",
    ]);
  });

  it("lets empty cells past the end be", async () => {
    expect((await read("a,b,\n1,2,\n3,4,,\n")).cells).toEqual([
      ["1", "2"],
      ["3", "4"],
    ]);
  });

  it("refuses what is broken with the place and leaves nothing", async () => {
    expect(await problem("a,b\n1,2\n1,2,3\n")).toContain("Row 3 has 3 cells, but the head has 2");
    expect(await problem('a,b\n1,"open\n2,3\n')).toContain("never closed");
    expect(await problem("")).toContain("empty");
    expect(await problem("a,b\n")).toContain("a head but no rows");
    expect(await problem(Buffer.from([1, 0, 0, 0, 7, 9, 200, 0, 0, 0, 3]))).toContain("not a text file");
    expect(await problem(`${"x,".repeat(2500)}x\n${"1,".repeat(2500)}1\n`)).toContain("at most 2000");
  });

  it("keeps markup and what looks like SQL as the text it is", async () => {
    const table = await read(`"name'); drop table rows; --",b\n<script>alert(1)</script>,=1+1\n`);
    expect(table.columns[0].name).toBe("name'); drop table rows; --");
    expect(table.cells).toEqual([["<script>alert(1)</script>", "=1+1"]]);
  });
});

describe("what a text file leaves open", () => {
  it("is said with the other reading and its effect", async () => {
    const table = await read("weight,on,flag\n1.234,01/05/2026,1\n2.345,02/06/2026,0\n");
    expect(table.columns.map((c) => c.reading)).toEqual([
      { type: "number", decimal: "." },
      { type: "date", dateOrder: "dmy" },
      { type: "number", decimal: "." },
    ]);
    expect(table.doubts.map((d) => [d.column, d.why])).toEqual([
      ["weight", "decimal mark"],
      ["on", "day or month first"],
      ["flag", "zero and one"],
    ]);
    expect(table.doubts[0].cells[0]).toEqual({ text: "1.234", as: "1.234", other: "1234" });
  });

  it("is settled by the separator or by another column where they say something", async () => {
    const readings = async (text: string) =>
      (await read(text)).columns.map((c) => c.reading.decimal ?? c.reading.dateOrder);
    expect(await readings("a;b\n1,234;x\n")).toEqual([",", undefined]);
    expect(await readings('a,b\n"1,234","1,5"\n')).toEqual([",", ","]);
    expect(await readings('a,b\n"1,234",x\n')).toEqual([".", undefined]);
    expect(await readings("a,b\n01/05/2026,04/13/2026\n")).toEqual(["mdy", "mdy"]);
  });

  it("finds a head of years and months by what stands below it", async () => {
    expect((await read("route,2019,2020\nFerrow,12,13\n")).columns.map((c) => c.name)).toEqual([
      "route",
      "2019",
      "2020",
    ]);
    expect((await read("route,Jan 2019,Feb 2019\nFerrow,12,13\n")).columns.map((c) => c.name)).toEqual([
      "route",
      "Jan 2019",
      "Feb 2019",
    ]);
    expect((await read("Ferrow,12,13\nQuay,14,15\n")).rows).toBe(2);
    expect((await read("1,2,3\n4,5,6\n")).rows).toBe(2);
  });
});
