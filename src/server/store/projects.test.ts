import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { emptyProject } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { settings } from "../settings";
import { database, openDatabase, SCHEMA_VERSION } from "./database";
import { createProject, deleteProject, listProjects, readProject, registerTable, saveProject, storedTables } from "./projects";
import { TableWriter, tableFiles } from "./table-files";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-store-"));
});
afterAll(() => {
  database().close();
  rmSync(settings.data, { recursive: true });
});

describe("projects", () => {
  let id = "";
  beforeEach(() => {
    id = createProject(emptyProject("One")).id;
  });

  it("are saved from the revision they grew from, and never over a newer one", () => {
    const first = saveProject(id, 1, emptyProject("Two"));
    expect(first).toMatchObject({ saved: { revision: 2, name: "Two" } });
    const stale = saveProject(id, 1, emptyProject("Lost?"));
    expect(stale).toMatchObject({ newer: { revision: 2, document: { name: "Two" } } });
    expect(readProject(id).document.name).toBe("Two");
  });

  it("keep the last 200 revisions", () => {
    for (let revision = 1; revision <= 210; revision++) saveProject(id, revision, emptyProject(`Revision ${revision + 1}`));
    const kept = database().prepare<[string], { n: number; oldest: number }>("select count(*) as n, min(revision) as oldest from revisions where project_id = ?").get(id);
    expect(kept).toEqual({ n: 200, oldest: 12 });
    expect(readProject(id).document.name).toBe("Revision 211");
  });

  it("go with their tables", () => {
    const writer = new TableWriter("gone", 1);
    writer.add(["x"]);
    writer.finish();
    registerTable(id, { id: "gone", rows: 1, columns: 1 });
    expect(storedTables(id)).toEqual(new Map([["gone", 1]]));
    deleteProject(id);
    expect(existsSync(tableFiles("gone").rows)).toBe(false);
    expect(() => readProject(id)).toThrow(HttpError);
    expect(listProjects().some((p) => p.id === id)).toBe(false);
  });

  it("survive names that look like SQL", () => {
    const odd = createProject(emptyProject("x'); drop table projects; --"));
    expect(readProject(odd.id).name).toBe("x'); drop table projects; --");
    expect(() => readProject("' or 1=1 --")).toThrow("There is no such project");
  });
});

it("what a stopped process left half-done is removed at the next start, and nothing else", () => {
  const project = createProject(emptyProject("Kept"));
  const kept = new TableWriter("kept", 1);
  kept.add(["x"]);
  kept.finish();
  registerTable(project.id, { id: "kept", rows: 1, columns: 1 });
  const half = new TableWriter("half", 1);
  half.add(["y"]);
  writeFileSync(tableFiles("half").upload, "a,b");
  const orphan = new TableWriter("orphan", 1);
  orphan.finish();
  const db = openDatabase();
  expect(db.pragma("user_version", { simple: true })).toBe(SCHEMA_VERSION);
  expect(db.pragma("journal_mode", { simple: true })).toBe("wal");
  expect([tableFiles("kept").rows, tableFiles("half").part, tableFiles("half").upload, tableFiles("orphan").rows].map((f) => existsSync(f))).toEqual([true, false, false, false]);
  db.close();
});

it("a data folder of a newer version is left alone", () => {
  const before = settings.data;
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-newer-"));
  const db = openDatabase();
  db.pragma("user_version = 99");
  db.close();
  expect(() => openDatabase()).toThrow("written by a newer version");
  rmSync(settings.data, { recursive: true });
  settings.data = before;
});
