import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "vitest";
import { createDemo } from "./demo";
import { settings } from "./settings";
import { readAbout } from "./store/about-table";
import { damageOf } from "./store/checksums";
import { closeDatabase, database } from "./store/database";
import { readProject } from "./store/projects";
import { openRows, tableFiles } from "./store/table-files";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-demo-"));
  database();
});
afterAll(() => {
  closeDatabase();
  rmSync(settings.data, { recursive: true });
});

const tablesOf = async () => readProject((await createDemo()).id).document.tables;
/** Whether the stored rows of every table are as its checksums say. */
const sound = (tables: { id: string }[]) =>
  tables.every(({ id }) => {
    const sums = readAbout(tableFiles(id).about)?.sums;
    return sums && damageOf(tableFiles(id).rows, sums.rows) === null;
  });

it("the demo has the same rows each time, in tables of its own, and none of another's damage", async () => {
  const first = await tablesOf();
  const second = await tablesOf();
  expect(first.map((t) => t.name)).toContain("sailings");
  expect(second.map((t) => [t.name, t.rows])).toEqual(first.map((t) => [t.name, t.rows]));
  expect(new Set([...first, ...second].map((t) => t.id)).size).toBe(2 * first.length);
  for (const [i, { id }] of second.entries()) {
    expect(readFileSync(tableFiles(id).rows).equals(readFileSync(tableFiles(first[i].id).rows))).toBe(true);
    expect(readdirSync(tableFiles(id).columns)).toEqual(readdirSync(tableFiles(first[i].id).columns));
  }
  expect(sound([...first, ...second])).toBe(true);

  const [{ id }] = second;
  const bytes = readFileSync(tableFiles(id).rows);
  bytes[bytes.length - 10] ^= 255;
  writeFileSync(tableFiles(id).rows, bytes);
  expect(sound(second)).toBe(false);
  const third = await tablesOf();
  expect(sound(third)).toBe(true);

  rmSync(tableFiles(third[2].id).rows);
  const fourth = await tablesOf();
  expect(sound(fourth)).toBe(true);
  const rows = openRows(fourth[0].id);
  expect(rows.prepare("select count(*) from rows").pluck().get()).toBe(fourth[0].rows);
  rows.close();
});

it("a demo that cannot be registered leaves no rows behind, and the next is made anew", async () => {
  const stored = () => readdirSync(join(settings.data, "tables")).length;
  const before = stored();
  // As where the disk is full while the project is written.
  database().exec(
    "create trigger full before insert on stored_tables begin select raise(abort, 'full'); end",
  );
  await expect(createDemo()).rejects.toThrow("full");
  expect(stored()).toBe(before);
  database().exec("drop trigger full");
  const tables = await tablesOf();
  expect(sound(tables)).toBe(true);
  expect(stored()).toBeGreaterThan(before);
});
