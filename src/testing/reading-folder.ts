import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect } from "vitest";
import { ImportProblem } from "../server/import/import-problem";
import { readTable } from "../server/import/read-table";
import type { ImportOptions, ReadTable } from "../server/import/reader";
import { settings } from "../server/settings";
import { type Cell, openRows, tableFiles } from "../server/store/table-files";

let next = 0;

/**
 * For tests: a data folder of its own, and the two things that can come of a file, its cells or its problem.
 */
export function readingFolder(): {
  read: (
    content: string | Uint8Array,
    file?: string,
    options?: ImportOptions,
  ) => Promise<ReadTable & { cells: Cell[][] }>;
  problem: (content: string | Uint8Array, file?: string) => Promise<string>;
} {
  const before = settings.data;
  beforeAll(() => {
    settings.data = mkdtempSync(join(tmpdir(), "cavlo-read-"));
    mkdirSync(join(settings.data, "tables"));
  });
  afterAll(() => {
    rmSync(settings.data, { recursive: true });
    settings.data = before;
  });
  const read = async (content: string | Uint8Array, file = "t.csv", options: ImportOptions = {}) => {
    const id = `t${next++}`;
    const path = join(settings.data, `${id}.upload`);
    writeFileSync(path, content);
    const table = await readTable(id, path, file, options, () => {});
    const db = openRows(id);
    const cells = db.prepare("select * from rows order by rowid").raw().all() as Cell[][];
    db.close();
    return { ...table, cells };
  };
  return {
    read,
    /** The sentence with which a file is refused; asserts that nothing of it is left. */
    problem: async (content, file) => {
      const id = `t${next}`;
      const error = await read(content, file).catch((e) => e);
      expect(error).toBeInstanceOf(ImportProblem);
      expect(existsSync(tableFiles(id).rows)).toBe(false);
      expect(readdirSync(join(settings.data, "tables")).filter((f) => f.startsWith(`${id}.`))).toEqual([]);
      return (error as Error).message;
    },
  };
}
