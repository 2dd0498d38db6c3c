import { existsSync, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { settings } from "../settings";
import { faultAnswer, faultOf } from "./disk-fault";

const before = settings.data;
beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-fault-"));
});
afterAll(() => {
  rmSync(settings.data, { recursive: true, force: true });
  settings.data = before;
});
const coded = (code: string) => Object.assign(new Error(code), { code });

describe("faults of the disk", () => {
  it.each([
    ["SQLITE_FULL", "disk_full", 507],
    ["ENOSPC", "disk_full", 507],
    ["EDQUOT", "disk_full", 507],
    ["SQLITE_READONLY", "read_only", 503],
    ["SQLITE_READONLY_DBMOVED", "read_only", 503],
    ["EROFS", "read_only", 503],
    ["EACCES", "read_only", 503],
    ["SQLITE_CANTOPEN", "folder_gone", 503],
    ["SQLITE_IOERR_WRITE", "folder_gone", 503],
    ["SQLITE_CORRUPT", "damaged_database", 503],
    ["SQLITE_CORRUPT_VTAB", "damaged_database", 503],
    ["SQLITE_NOTADB", "damaged_database", 503],
    ["SQLITE_BUSY_SNAPSHOT", "busy_database", 503],
  ] as const)("%s is %s and answers %i with a sentence", (code, fault, status) => {
    expect(faultOf(coded(code))).toBe(fault);
    const answer = faultAnswer(fault);
    expect(answer.status).toBe(status);
    expect(answer.message).toMatch(/^[A-Z].{30,}\.$/);
  });

  it("are told from what is none: a missing file in a folder that is there, and any other error", () => {
    for (const other of [
      coded("ENOENT"),
      coded("SQLITE_CONSTRAINT"),
      new TypeError("x"),
      null,
      "text",
      { code: 7 },
    ])
      expect(faultOf(other)).toBeNull();
    rmSync(settings.data, { recursive: true });
    expect(faultOf(coded("ENOENT"))).toBe("folder_gone");
    expect(faultOf(coded("EROFS"))).toBe("folder_gone");
    mkdirSync(settings.data);
  });

  it("come from a database that only may be read, as it says itself", () => {
    const file = join(settings.data, "a.sqlite");
    new Database(file).exec("create table t (x)").close();
    const db = new Database(file, { readonly: true });
    let error: unknown;
    try {
      db.exec("insert into t values (1)");
    } catch (thrown) {
      error = thrown;
    }
    db.close();
    expect(existsSync(file)).toBe(true);
    expect(faultOf(error)).toBe("read_only");
  });
});
