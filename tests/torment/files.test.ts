import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { strToU8, zipSync } from "fflate";
import { parquetWriteBuffer } from "hyparquet-writer";
import { afterAll, beforeAll, expect, it } from "vitest";
import writeXlsxFile from "write-excel-file/node";
import { endAllServers, json, lastLine, OwnServer } from "../own-server";
import { figure, LONG, randomFrom, SEED, times } from "./extent";

const FILES = times(5, 300);
/** The longest that a broken file of a few kilobytes may take. */
const SLOWEST = 10_000;
const server = new OwnServer();
const random = randomFrom(SEED + 1);
const int = (most: number) => Math.floor(random() * most);
let project = "";

beforeAll(async () => {
  await server.start();
  project = (
    await (await fetch(`${server.base}/api/projects`, json("POST", { name: "Broken files" }))).json()
  ).project.id;
});
afterAll(endAllServers);

/** Damages a file: bytes are changed, cut off, taken out, repeated or put in. */
function damaged(bytes: Uint8Array): Uint8Array {
  let now = Buffer.from(bytes);
  for (let n = 1 + int(4); n > 0; n--) {
    const at = int(now.length);
    const some = 1 + int(40);
    switch (int(6)) {
      case 0:
        for (let i = at; i < Math.min(now.length, at + some); i++) now[i] = int(256);
        break;
      case 1:
        now = now.subarray(0, at);
        break;
      case 2:
        now = Buffer.concat([now.subarray(0, at), now.subarray(at + some)]);
        break;
      case 3:
        now = Buffer.concat([now.subarray(0, at), now.subarray(at, at + some), now.subarray(at)]);
        break;
      case 4:
        now = Buffer.concat([
          now.subarray(0, at),
          Buffer.from(["\u0000", '"', "\n", "{", "]", "<", "&", ",", "\ufeff", "é"][int(10)]),
          now.subarray(at),
        ]);
        break;
      default:
        if (now.length) now[at] ^= 1 << int(8);
    }
  }
  return now;
}

const ROWS = Array.from({ length: 60 }, (_, i) => ({
  route: ["Ferrow", "Quay", "Sound"][i % 3],
  on: `2026-05-${String((i % 28) + 1).padStart(2, "0")}`,
  n: i * 1.5,
  ok: i % 2 === 0,
}));
const FORMATS: Record<string, () => Promise<Uint8Array>> = {
  "t.csv": async () =>
    strToU8(`route,on,n,ok\n${ROWS.map((r) => `"${r.route}",${r.on},${r.n},${r.ok}`).join("\n")}\n`),
  "t.json": async () => strToU8(JSON.stringify(ROWS)),
  "object.json": async () =>
    strToU8(JSON.stringify({ meta: { a: 1 }, data: { rows: ROWS, more: ROWS.slice(0, 3) } })),
  "t.ndjson": async () => strToU8(ROWS.map((r) => JSON.stringify(r)).join("\n")),
  "t.xlsx": async () =>
    new Uint8Array(
      await (
        await writeXlsxFile([
          {
            sheet: "S",
            data: [
              Object.keys(ROWS[0]).map((value) => ({ value })),
              ...ROWS.map((r) => Object.values(r).map((value) => ({ value }))),
            ],
          },
        ] as never)
      ).toBuffer(),
    ),
  "t.parquet": async () =>
    new Uint8Array(
      parquetWriteBuffer({
        columnData: [
          { name: "route", data: ROWS.map((r) => r.route), type: "STRING" },
          { name: "n", data: ROWS.map((r) => r.n), type: "DOUBLE" },
        ],
      }),
    ),
};

const leftovers = () => readdirSync(join(server.data, "tables")).filter((f) => /\.(upload|part)/.test(f));

it.each(Object.keys(FORMATS))(
  `${FILES} broken files like %s come in or are refused with a sentence, and nothing is left of them`,
  async (name) => {
    const whole = await FORMATS[name]();
    const outcomes = { taken: 0, refused: 0 };
    let slowest = 0;
    for (let i = 0; i < FILES; i++) {
      const body = damaged(whole);
      const began = performance.now();
      const response = await fetch(`${server.base}/api/projects/${project}/tables?name=${name}`, {
        method: "POST",
        body: body as BodyInit,
      });
      expect(response.status).toBeLessThan(500);
      const said = await lastLine(response);
      slowest = Math.max(slowest, performance.now() - began);
      if (said.table) outcomes.taken++;
      else {
        outcomes.refused++;
        expect(said.error?.code, `${name} ${i}: ${said.error?.message}`).not.toBe("internal");
        expect(said.error?.message).toMatch(/[a-z].{10,}\.$/s);
      }
    }
    expect(leftovers()).toEqual([]);
    expect(slowest).toBeLessThan(SLOWEST);
    figure(
      `broken ${name}: ${FILES}, ${outcomes.taken} taken, ${outcomes.refused} refused, slowest ${Math.round(slowest)} ms`,
    );
  },
);

it("small files that would grow without end cost neither memory nor time", async () => {
  const sheet = (inner: string) =>
    `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">${inner}</worksheet>`;
  const book = (xml: string, more: Record<string, string> = {}) =>
    zipSync(
      Object.fromEntries(
        Object.entries({
          "xl/workbook.xml": '<workbook xmlns:r="r"><sheets><sheet name="S" r:id="a"/></sheets></workbook>',
          "xl/_rels/workbook.xml.rels":
            '<Relationships><Relationship Id="a" Target="worksheets/sheet1.xml"/></Relationships>',
          "xl/worksheets/sheet1.xml": xml,
          ...more,
        }).map(([name, text]) => [name, strToU8(text)]),
      ),
      { level: 9 },
    );
  const bombs: [string, Uint8Array | string][] = [
    [
      "far.xlsx",
      book(
        sheet(
          `<sheetData>${Array.from({ length: 2000 }, (_, i) => `<row r="${i * 500 + 1}"><c r="BXW${i * 500 + 1}"><v>1</v></c></row>`).join("")}</sheetData>`,
        ),
      ),
    ],
    ["tags.xlsx", book(`<worksheet ${"a ".repeat(1_000_000)}>`)],
    [
      "zeros.xlsx",
      book(sheet(`<sheetData><row><c t="str"><v>${"0".repeat(30_000_000)}</v></c></row></sheetData>`)),
    ],
    [
      "merges.xlsx",
      book(
        sheet(
          `<sheetData><row r="1"><c><v>1</v></c></row></sheetData><mergeCells>${'<mergeCell ref="A1:XFD1048576"/>'.repeat(100_000)}</mergeCells>`,
        ),
      ),
    ],
    ["deep.xlsx", book("<a>".repeat(1_000_000))],
    [
      "laughs.xlsx",
      book(
        `<!DOCTYPE x [<!ENTITY a "a"><!ENTITY b "${"&a;".repeat(1000)}"><!ENTITY c "${"&b;".repeat(1000)}">]><worksheet><sheetData><row><c t="str"><v>&c;</v></c></row></sheetData></worksheet>`,
      ),
    ],
    ["brackets.json", "[".repeat(2_000_000)],
    ["keys.json", `[{${Array.from({ length: 100_000 }, (_, i) => `"k${i}":1`).join(",")}}]`],
    ["quotes.csv", `a\n${'"'.repeat(3_000_001)}`],
    ["wide.csv", `${",".repeat(500_000)}\n${",".repeat(500_000)}\n`],
    ["long.csv", `a\n${"x".repeat(20_000_000)}\n`],
    // A page whose header was damaged so that its reader goes on for minutes.
    ["circling.parquet", readFileSync(new URL("circling.parquet", import.meta.url))],
  ];
  // The short run takes those that are over in a moment.
  for (const [name, body] of LONG
    ? bombs
    : bombs.filter(([name]) => !["far.xlsx", "zeros.xlsx", "long.csv", "circling.parquet"].includes(name))) {
    const before = server.memory;
    const began = performance.now();
    const response = await fetch(`${server.base}/api/projects/${project}/tables?name=${name}`, {
      method: "POST",
      body: body as BodyInit,
    });
    const said = await lastLine(response);
    const took = performance.now() - began;
    expect(
      said.table || said.error?.code !== "internal",
      `${name}: ${JSON.stringify(said).slice(0, 200)}`,
    ).toBeTruthy();
    expect(took, name).toBeLessThan(SLOWEST);
    expect(server.memory - before, name).toBeLessThan(600);
    figure(
      `${name} (${Math.round(body.length / 1000)} kB): ${said.table ? "taken" : said.error?.code} in ${Math.round(took)} ms, memory ${Math.round(before)} to ${Math.round(server.memory)} MB`,
    );
  }
  expect((await fetch(`${server.base}/api/health`)).ok).toBe(true);
});
