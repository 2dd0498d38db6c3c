import { createWriteStream, existsSync, renameSync, rmSync } from "node:fs";
import { pipeline } from "node:stream/promises";
import { backupStream } from "./keep/backup";
import { restoreBackup } from "./keep/restore";
import { verifyFolder } from "./keep/verify";
import { settings } from "./settings";
import { openForReading } from "./store/database";

/** What the command line asks for, besides serving. */
export interface Command {
  verify?: boolean;
  backup?: string;
  project?: string;
  restore?: string;
}

function verify(): number {
  let found = 0;
  let of = 0;
  for (const step of verifyFolder()) {
    of = step.of;
    for (const { what, problem, advice } of step.found) {
      found++;
      console.log(`${what}: ${problem}. ${advice}`);
    }
  }
  console.log(
    found === 0
      ? `Everything in ${settings.data} is as it was written (${of} things were looked at).`
      : `${found} of ${of} things are not as they were written.`,
  );
  return found === 0 ? 0 : 1;
}

async function backup(path: string, project: string | null): Promise<number> {
  if (existsSync(path)) throw new Error(`${path} is there already. Choose another name.`);
  const part = `${path}.part`;
  try {
    await pipeline(await backupStream(project), createWriteStream(part));
    renameSync(part, path);
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
  console.log(`The backup is written: ${path}`);
  return 0;
}

async function restore(path: string): Promise<number> {
  const restored = await restoreBackup(path);
  for (const { name, notes } of restored) console.log([`Restored: ${name}`, ...notes].join("\n  "));
  return restored.some((r) => r.notes.length > 0) ? 1 : 0;
}

/** Does what a command of ./start asks instead of serving. Gives the exit code. */
export async function runCommand(command: Command): Promise<number> {
  if (command.restore !== undefined) return restore(command.restore);
  openForReading();
  if (command.backup !== undefined) return backup(command.backup, command.project ?? null);
  return verify();
}
