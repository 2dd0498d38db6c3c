import {
  cpSync,
  createWriteStream,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pipeline } from "node:stream/promises";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { emptyProject, tableSchema } from "@/core/project/schema";
import { madeTable } from "@/testing/made-table";
import { settings } from "../settings";
import { writeAbout } from "../store/about-table";
import { sumsOf } from "../store/checksums";
import { writeColumnFile } from "../store/column-files";
import { closeDatabase, database } from "../store/database";
import { createProject, listProjects, readProject, registerTable, saveProject } from "../store/projects";
import { TableWriter, tableFiles, tablesFolder } from "../store/table-files";
import { backupStream } from "./backup";
import { restoreBackup } from "./restore";
import { verifyFolder } from "./verify";

const TABLE = "kept-kept-kept-1";
const folder = mkdtempSync(join(tmpdir(), "cavlo-keep-"));
const backup = join(folder, "backup.zip");
const before = settings.data;
const TEXT = { type: "text" } as const;
let project = "";

beforeAll(async () => {
  settings.data = join(folder, "data");
  const writer = (() => {
    void database();
    return new TableWriter(TABLE, 1);
  })();
  writer.add(["Ferrow"]);
  writer.finish();
  writeColumnFile(TABLE, 0, TEXT, madeTable("t", { c: ["text", ["Ferrow"]] }).columns[0].data);
  const table = tableSchema.parse({
    id: TABLE,
    name: "t",
    rows: 1,
    columns: [{ name: "c", reading: TEXT }],
    source: { file: "t.csv" },
  });
  project = createProject({ ...emptyProject("With a table"), tables: [table] }).id;
  writeAbout({
    id: TABLE,
    name: "t",
    project: { id: project, name: "With a table" },
    rows: 1,
    columns: table.columns,
    createdAt: "2026-01-01",
    sums: { rows: sumsOf(tableFiles(TABLE).rows), source: null },
  });
  registerTable(project, { id: TABLE, rows: 1, columns: 1 });
  createProject(emptyProject("Without tables"));
  await pipeline(await backupStream(null), createWriteStream(backup));
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true });
  settings.data = before;
});

/** Does something in a copy of the data folder, and gives what it gave. */
async function inCopy<T>(work: () => T | Promise<T>): Promise<T> {
  closeDatabase();
  const original = settings.data;
  settings.data = mkdtempSync(join(folder, "copy-"));
  cpSync(original, settings.data, { recursive: true, filter: (f) => !f.includes("writer.") });
  try {
    return await work();
  } finally {
    closeDatabase();
    settings.data = original;
  }
}

function flip(file: string): void {
  const bytes = readFileSync(file);
  bytes[bytes.length - 5] ^= 1;
  writeFileSync(file, bytes);
}
const everyFile = () =>
  Object.fromEntries(
    (readdirSync(tablesFolder(), { recursive: true, withFileTypes: true }) ?? [])
      .filter((f) => f.isFile())
      .map((f) => [f.name, readFileSync(join(f.parentPath, f.name), "base64")]),
  );
const found = () => [...verifyFolder()].flatMap((s) => s.found);

describe("a backup", () => {
  it("that is restored beside what is there gives every project one other name, in the list and in its document", async () => {
    await inCopy(async () => {
      await restoreBackup(backup);
      const names = listProjects().map((p) => p.name);
      expect(names.toSorted()).toEqual([
        "With a table",
        "With a table (restored)",
        "Without tables",
        "Without tables (restored)",
      ]);
      for (const { id, name } of listProjects()) expect(readProject(id).document.name).toBe(name);
      const copy = listProjects().find((p) => p.name === "With a table (restored)");
      const { document } = readProject(copy?.id ?? "");
      expect(document.tables[0].id).not.toBe(TABLE);
      expect(readFileSync(tableFiles(document.tables[0].id).rows)).toEqual(
        readFileSync(tableFiles(TABLE).rows),
      );
      expect(found()).toEqual([]);
    });
  });

  it("puts everything under its own name into an empty folder, with all revisions", async () => {
    const original = settings.data;
    closeDatabase();
    settings.data = mkdtempSync(join(folder, "empty-"));
    try {
      const restored = await restoreBackup(backup);
      expect(restored.map((r) => r.notes)).toEqual([[], []]);
      expect(readProject(project)).toMatchObject({
        name: "With a table",
        revision: 1,
        document: { tables: [{ id: TABLE }] },
      });
      expect(saveProject(project, 1, emptyProject("Goes on"))).toMatchObject({ saved: { revision: 2 } });
      expect(readdirSync(tablesFolder()).filter((f) => /part|upload/.test(f))).toEqual([]);
    } finally {
      closeDatabase();
      settings.data = original;
    }
  });

  it("that was cut short is refused with a sentence, and nothing of it comes in", async () => {
    const cut = join(folder, "cut.zip");
    writeFileSync(cut, readFileSync(backup).subarray(0, 900));
    await inCopy(async () => {
      const files = readdirSync(tablesFolder()).sort();
      await expect(restoreBackup(cut)).rejects.toThrow("is no backup, or it was cut short");
      expect(listProjects()).toHaveLength(2);
      expect(readdirSync(tablesFolder()).sort()).toEqual(files);
    });
  });
});

describe("looking at everything", () => {
  it("finds nothing where all is as it was written", async () => {
    await inCopy(() => expect(found()).toEqual([]));
  });

  it.each(["the column", "the rows", "both", "a document", "the note"])(
    "tells damage of %s, says only what holds, and changes no file",
    async (what) => {
      await inCopy(() => {
        const columns = join(tableFiles(TABLE).columns, readdirSync(tableFiles(TABLE).columns)[0]);
        if (what === "the column" || what === "both") flip(columns);
        if (what === "the rows" || what === "both") flip(tableFiles(TABLE).rows);
        if (what === "a document")
          database()
            .prepare("update revisions set document = replace(document, 'With', 'Wizh') where project_id = ?")
            .run(project);
        if (what === "the note") rmSync(tableFiles(TABLE).about);
        const files = everyFile();
        const damage = found();
        expect(everyFile()).toEqual(files);
        const whats = {
          "the column": ["A column of t in With a table"],
          "the rows": ["The rows of t in With a table"],
          both: ["The rows of t in With a table", "A column of t in With a table"],
          "a document": ["Revision 1 of With a table"],
          "the note": [`The table ${TABLE} of With a table`],
        };
        expect(damage.map((d) => d.what)).toEqual(whats[what as keyof typeof whats]);
        const advice = damage.map((d) => d.advice).join(" ");
        if (what === "the column") expect(advice).toContain("The rows are sound");
        if (what === "both") expect(advice).not.toContain("are sound");
      });
    },
  );
});
