import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import type { Reading } from "@/core/data/reading-schema";
import { madeTable } from "@/testing/made-table";
import { settings } from "../settings";
import { readColumnFile, writeColumnFile } from "./column-files";
import { columnOf } from "./shared-column";
import { removeTableFiles, tableFiles } from "./table-files";

const before = settings.data;
beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-columns-"));
  mkdirSync(join(settings.data, "tables"));
});
afterAll(() => {
  rmSync(settings.data, { recursive: true });
  settings.data = before;
});
const data = madeTable("t", {
  text: ["text", ["é", null, "line\nbreak", "é", ""]],
  number: ["number", [1.5, null, -0, 1e300, 3]],
  date: ["date", [20000, null, -5, 0, 1]],
  boolean: ["boolean", [true, null, false, false, true]],
  timestamp: ["timestamp", [1, null, 3, 4, 5]],
}).columns;
const reading = (type: string) => ({ type }) as Reading;

const readBack = (id: string, at: number, type: string) => {
  const read = readColumnFile(id, at, reading(type), 5);
  return read && columnOf(read);
};

describe("files of typed columns", () => {
  it("give back every type as it was", () => {
    for (const [at, column] of data.entries()) {
      writeColumnFile("whole", at, reading(column.data.type), column.data);
      expect(readBack("whole", at, column.data.type)).toEqual(column.data);
    }
    expect(readdirSync(tableFiles("whole").columns).some((f) => f.endsWith(".part"))).toBe(false);
    removeTableFiles("whole");
    expect(readColumnFile("whole", 0, reading("text"), 5)).toBeNull();
  });

  it("are written beside what another thread writes, and leave nothing where that fails", () => {
    writeColumnFile("two", 1, reading("number"), data[1].data);
    const folder = tableFiles("two").columns;
    const [name] = readdirSync(folder);
    rmSync(join(folder, name));
    writeFileSync(join(folder, `${name}.part`), "half of it");
    writeColumnFile("two", 1, reading("number"), data[1].data);
    expect(readFileSync(join(folder, `${name}.part`), "utf8")).toBe("half of it");
    expect(readBack("two", 1, "number")).toEqual(data[1].data);

    rmSync(join(folder, name));
    mkdirSync(join(folder, name));
    expect(() => writeColumnFile("two", 1, reading("number"), data[1].data)).toThrow();
    expect(readdirSync(folder).sort()).toEqual([name, `${name}.part`]);
  });

  it("of another reading or number of rows are not taken", () => {
    writeColumnFile("other", 1, { type: "number", decimal: "," }, data[1].data);
    expect(readColumnFile("other", 1, { type: "number", decimal: "." }, 5)).toBeNull();
    expect(readColumnFile("other", 1, { type: "number", decimal: "," }, 6)).toBeNull();
  });

  it("that are cut short, changed or no column at all are passed over, never half-read", () => {
    const texts = data[0].data;
    const warned = vi.spyOn(console, "warn").mockImplementation(() => {});
    writeColumnFile("broken", 0, reading("text"), texts);
    const [name] = readdirSync(tableFiles("broken").columns);
    const file = join(tableFiles("broken").columns, name);
    const sound = readFileSync(file);
    fc.assert(
      fc.property(fc.nat(sound.length - 1), fc.nat(255), fc.boolean(), (at, byte, cut) => {
        const bytes = cut ? sound.subarray(0, at) : Buffer.from(sound);
        if (!cut) bytes[at] = byte;
        writeFileSync(file, bytes);
        const changed = cut || sound[at] !== byte;
        const read = readColumnFile("broken", 0, reading("text"), 5);
        if (changed && sound.subarray(0, at).includes(10)) expect(read).toBeNull();
        else if (read !== null) expect(columnOf(read)).toEqual(texts);
      }),
      { numRuns: 300, seed: 9 },
    );
    expect(warned.mock.calls[0][0]).toContain("is read from the rows instead");
    warned.mockRestore();
  });
});
