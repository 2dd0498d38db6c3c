import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { settings } from "../settings";

const held = new Map<string, Database.Database>();

/** Who writes into the data folder, for the sentence that says so. */
function holder(pidFile: string): string {
  try {
    return ` (process ${readFileSync(pidFile, "utf8").trim()})`;
  } catch {
    return "";
  }
}

/**
 * Takes the data folder for this process: nobody else writes into it until the process ends, however it ends,
 * since the system itself gives the lock back. Throws with a sentence where another process has it; nothing
 * is changed then.
 */
export function holdFolder(): void {
  const folder = settings.data;
  if (held.has(folder)) return;
  mkdirSync(folder, { recursive: true });
  const pidFile = join(folder, "writer.pid");
  const lock = new Database(join(folder, "writer.lock"), { timeout: 0 });
  try {
    lock.exec("begin exclusive");
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code !== "SQLITE_BUSY") throw error;
    throw new Error(
      `The data folder ${folder} is in use by another Cavlo${holder(pidFile)}. Stop that one first, or choose another folder with --data.`,
    );
  }
  writeFileSync(pidFile, `${process.pid}\n`);
  held.set(folder, lock);
}
