import { spawnSync } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { emptyProject, type Project, tableSchema } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { reclaimGroup, unclaimedGroups } from "../keep/reclaim";
import { settings } from "../settings";
import { writeAbout } from "./about-table";
import { sumsOf } from "./checksums";
import { closeDatabase, database, openDatabase, SCHEMA_VERSION } from "./database";
import {
  createProject,
  damagedRevisions,
  deletedProjects,
  deleteProject,
  listProjects,
  purgeDeleted,
  readProject,
  registerTable,
  restoreRevision,
  saveProject,
  storedTables,
  undeleteProject,
} from "./projects";
import { TableWriter, tableFiles, tablesFolder } from "./table-files";

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-store-"));
});
afterAll(() => {
  closeDatabase();
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
    for (let revision = 1; revision <= 210; revision++)
      saveProject(id, revision, emptyProject(`Revision ${revision + 1}`));
    const kept = database()
      .prepare<[string], { n: number; oldest: number }>(
        "select count(*) as n, min(revision) as oldest from revisions where project_id = ?",
      )
      .get(id);
    expect(kept).toEqual({ n: 200, oldest: 12 });
    expect(readProject(id).document.name).toBe("Revision 211");
  });

  it("are kept with their tables for a while when they are deleted, and can be brought back or let go", () => {
    const table = "gone-gone-gone-1";
    const writer = new TableWriter(table, 1);
    writer.add(["x"]);
    writer.finish();
    registerTable(id, { id: table, rows: 1, columns: 1 });
    expect(storedTables(id)).toEqual(new Map([[table, { rows: 1, columns: 1 }]]));
    deleteProject(id);
    expect(() => readProject(id)).toThrow("kept for 30 days");
    expect(() => saveProject(id, 1, emptyProject("x"))).toThrow(HttpError);
    expect(listProjects().some((p) => p.id === id)).toBe(false);
    expect(deletedProjects().map((p) => p.id)).toContain(id);
    purgeDeleted();
    expect(existsSync(tableFiles(table).rows)).toBe(true);
    expect(undeleteProject(id).name).toBe("One");
    expect(readProject(id).document.name).toBe("One");
    expect(() => purgeDeleted(id)).toThrow("no such removed project");
    deleteProject(id);
    database().prepare("update projects set deleted_at = '2020-01-01' where id = ?").run(id);
    purgeDeleted();
    expect(existsSync(tableFiles(table).rows)).toBe(false);
    expect(() => undeleteProject(id)).toThrow(HttpError);
  });

  it("let go of a table once no revision names it, and not before", () => {
    const [old, fresh] = ["old-old-old-old-", "new-new-new-new-"];
    const withTable = (name: string): Project => ({
      ...emptyProject("P"),
      tables: [
        tableSchema.parse({
          id: name,
          name: "t",
          rows: 1,
          columns: [{ name: "c", reading: { type: "text" } }],
          source: { file: "" },
        }),
      ],
    });
    for (const name of [old, fresh]) {
      const writer = new TableWriter(name, 1);
      writer.add(["x"]);
      writer.finish();
      registerTable(id, { id: name, rows: 1, columns: 1 });
    }
    let revision = 1;
    const save = (document: Project) => {
      saveProject(id, revision, document);
      revision++;
    };
    save(withTable(old));
    const named = revision;
    save(emptyProject("P"));
    while (revision < named + 199) save(emptyProject("P"));
    expect(existsSync(tableFiles(old).rows)).toBe(true);
    save(emptyProject("P"));
    expect(existsSync(tableFiles(old).rows)).toBe(false);
    expect([...storedTables(id).keys()]).toEqual([fresh]);
    // One that was brought in and that no revision has named yet stays.
    expect(existsSync(tableFiles(fresh).rows)).toBe(true);
  });

  it("say where their document is damaged, and go back to the newest sound revision", () => {
    saveProject(id, 1, emptyProject("Sound"));
    saveProject(id, 2, emptyProject("Damaged"));
    database()
      .prepare("update revisions set document = replace(document, 'Damaged', 'Dbmaged') where project_id = ?")
      .run(id);
    expect(() => readProject(id)).toThrow(
      "newest revision (3) of Damaged is damaged: what stands on the disk is not what was saved. Revision 2",
    );
    expect(damagedRevisions().filter((d) => d.project === id)).toEqual([
      expect.objectContaining({ revision: 3 }),
    ]);
    expect(() => restoreRevision(id, 3)).toThrow("damaged");
    expect(restoreRevision(id, 2)).toMatchObject({ name: "Sound", revision: 4 });
    expect(readProject(id).document.name).toBe("Sound");
  });

  it("survive names that look like SQL", () => {
    const odd = createProject(emptyProject("x'); drop table projects; --"));
    expect(readProject(odd.id).name).toBe("x'); drop table projects; --");
    expect(() => readProject("' or 1=1 --")).toThrow("There is no such project");
  });
});

describe("the data folder at a start", () => {
  const ID = {
    kept: "kept-kept-kept-1",
    half: "half-half-half-1",
    orphan: "orphan-orphan-01",
    bare: "bare-bare-bare-1",
  };
  const tables = () => readdirSync(tablesFolder()).sort();
  const writeTable = (id: string) => {
    const writer = new TableWriter(id, 1);
    writer.add(["x"]);
    writer.finish();
  };
  const about = (id: string, createdAt = "2020-01-01T00:00:00Z", name = "lost") =>
    writeAbout({
      id,
      name,
      project: { id: "p", name: "Lost project" },
      rows: 1,
      columns: [{ name: "c", reading: { type: "text" } }],
      createdAt,
      sums: { rows: sumsOf(tableFiles(id).rows), source: null },
    });

  it("removes what was left unfinished, moves aside what no project names, and touches nothing else", () => {
    const project = createProject(emptyProject("Kept"));
    writeTable(ID.kept);
    registerTable(project.id, { id: ID.kept, rows: 1, columns: 1 });
    const half = new TableWriter(ID.half, 1);
    half.add(["y"]);
    writeFileSync(tableFiles(ID.half).upload, "a,b");
    writeTable(ID.orphan);
    about(ID.orphan);
    // Columns whose rows are gone are the last that is left of a table.
    mkdirSync(tableFiles(ID.bare).columns);
    writeFileSync(join(tableFiles(ID.bare).columns, "c0-text-000000000000"), "left");
    for (const foreign of ["notes.txt", "mine.sqlite", "longer-than-our-names.sqlite"])
      writeFileSync(join(tablesFolder(), foreign), "mine");
    closeDatabase();
    const db = database();
    expect(db.pragma("user_version", { simple: true })).toBe(SCHEMA_VERSION);
    expect(db.pragma("journal_mode", { simple: true })).toBe("wal");
    expect(tables()).toEqual(
      expect.arrayContaining([
        `${ID.bare}.columns`,
        `${ID.kept}.sqlite`,
        "longer-than-our-names.sqlite",
        "mine.sqlite",
        "notes.txt",
      ]),
    );
    expect(tables().filter((f) => f.startsWith(ID.half) || f.startsWith(ID.orphan))).toEqual([]);
    expect(readdirSync(join(settings.data, "unclaimed")).sort()).toEqual([
      `${ID.orphan}.about.json`,
      `${ID.orphan}.sqlite`,
    ]);
    expect(unclaimedGroups()).toEqual([
      { project: "p", name: "Lost project", tables: [{ id: ID.orphan, name: "lost", rows: 1 }] },
    ]);
    const back = reclaimGroup("p");
    expect(readProject(back.id).document.tables).toMatchObject([{ id: ID.orphan, name: "lost", rows: 1 }]);
    expect(existsSync(tableFiles(ID.orphan).rows)).toBe(true);
    expect(unclaimedGroups()).toEqual([]);
  });

  it("brings tables of one long name back under names of their own", () => {
    const before = settings.data;
    settings.data = mkdtempSync(join(tmpdir(), "cavlo-long-"));
    closeDatabase();
    try {
      createProject(emptyProject("One"));
      const name = "n".repeat(120);
      for (const id of [ID.kept, ID.orphan]) {
        writeTable(id);
        about(id, undefined, name);
      }
      const { tables: back } = readProject(reclaimGroup("p").id).document;
      expect(back.map((t) => t.name).sort()).toEqual([name, `${"n".repeat(110)}_2`].sort());
    } finally {
      closeDatabase();
      rmSync(settings.data, { recursive: true });
      settings.data = before;
    }
  });

  it.each(["without the database", "with an older database", "with a database of an earlier version"])(
    "%s moves and removes nothing",
    (how) => {
      const before = settings.data;
      settings.data = mkdtempSync(join(tmpdir(), "cavlo-older-"));
      closeDatabase();
      try {
        createProject(emptyProject("One"));
        closeDatabase();
        if (how === "with an older database")
          copyFileSync(join(settings.data, "cavlo.sqlite"), join(settings.data, "older.sqlite"));
        const project = createProject(emptyProject("Two"));
        writeTable(ID.kept);
        about(ID.kept);
        registerTable(project.id, { id: ID.kept, rows: 1, columns: 1 });
        closeDatabase();
        const files = tables();
        if (how === "without the database")
          for (const end of ["", "-wal", "-shm"])
            rmSync(join(settings.data, `cavlo.sqlite${end}`), { force: true });
        else if (how === "with an older database")
          renameSync(join(settings.data, "older.sqlite"), join(settings.data, "cavlo.sqlite"));
        else {
          const db = new Database(join(settings.data, "cavlo.sqlite"));
          db.exec(
            "delete from stored_tables; drop table revision_tables; drop table folder; alter table projects drop column deleted_at; alter table revisions drop column sum",
          );
          db.pragma("user_version = 1");
          db.close();
        }
        expect(unclaimedGroups()).toMatchObject([{ project: "p", tables: [{ id: ID.kept }] }]);
        expect(tables()).toEqual(files);
        const back = reclaimGroup("p");
        expect(readProject(back.id).document.tables).toHaveLength(1);
      } finally {
        closeDatabase();
        rmSync(settings.data, { recursive: true });
        settings.data = before;
      }
    },
  );

  it("goes to one process only", () => {
    void database();
    const other = spawnSync(
      process.execPath,
      [
        "-e",
        `
      const Database = require("better-sqlite3");
      const lock = new Database(${JSON.stringify(join(settings.data, "writer.lock"))}, { timeout: 0 });
      try { lock.exec("begin exclusive"); console.log("taken"); } catch (error) { console.log(error.code); }`,
      ],
      { cwd: process.cwd(), encoding: "utf8" },
    );
    expect(other.stdout.trim()).toBe("SQLITE_BUSY");
    expect(readFileSync(join(settings.data, "writer.pid"), "utf8").trim()).toBe(String(process.pid));
  });

  it("is missed when it goes, and taken up again when it is back", () => {
    const project = createProject(emptyProject("Here"));
    renameSync(join(settings.data, "cavlo.sqlite"), join(settings.data, "away.sqlite"));
    expect(() => saveProject(project.id, 1, emptyProject("Lost?"))).toThrow("is gone or cannot be reached");
    renameSync(join(settings.data, "away.sqlite"), join(settings.data, "cavlo.sqlite"));
    expect(saveProject(project.id, 1, emptyProject("Saved"))).toMatchObject({ saved: { revision: 2 } });
  });
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
