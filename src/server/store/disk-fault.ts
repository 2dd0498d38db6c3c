import { existsSync } from "node:fs";
import { HttpError } from "../http/errors";
import { settings } from "../settings";

/** What the data folder's disk did not do, in words: nothing was changed then. */
export type FaultCode = "disk_full" | "read_only" | "folder_gone" | "damaged_database" | "busy_database";

const SENTENCES: Record<FaultCode, { status: 503 | 507; message: () => string }> = {
  disk_full: {
    status: 507,
    message: () =>
      "The disk with the data folder is full. Nothing was changed; free some room and try again.",
  },
  read_only: {
    status: 503,
    message: () =>
      `The data folder ${settings.data} cannot be written. Nothing was changed; give this user the right to write there.`,
  },
  folder_gone: {
    status: 503,
    message: () =>
      `The data folder ${settings.data} is gone or cannot be reached. Nothing was changed; bring it back, and Cavlo goes on.`,
  },
  damaged_database: {
    status: 503,
    message: () =>
      `The database in ${settings.data} is damaged. Stop Cavlo, keep a copy of the folder, and restore a backup with ./start --restore; the tables beside it are kept.`,
  },
  busy_database: {
    status: 503,
    message: () => "The database is locked by another program for too long. Nothing was changed; try again.",
  },
};

/** Which fault of the disk an error stands for, or null where it is none. */
export function faultOf(error: unknown): FaultCode | null {
  const code = String((error as { code?: unknown } | null)?.code ?? "");
  if (code === "SQLITE_FULL" || code === "ENOSPC" || code === "EDQUOT" || code === "EFBIG")
    return "disk_full";
  if (code === "SQLITE_CORRUPT" || code.startsWith("SQLITE_CORRUPT_") || code === "SQLITE_NOTADB")
    return "damaged_database";
  if (code === "SQLITE_BUSY" || code.startsWith("SQLITE_BUSY_")) return "busy_database";
  const aboutFiles =
    /^(SQLITE_(READONLY|CANTOPEN|IOERR)|EROFS$|EACCES$|EPERM$|ENOENT$|EIO$|ENOTDIR$|ESTALE$)/.test(code);
  if (!aboutFiles) return null;
  if (!existsSync(settings.data)) return "folder_gone";
  if (/READONLY|EROFS|EACCES|EPERM/.test(code)) return "read_only";
  return code === "ENOENT" ? null : "folder_gone";
}

/** The answer that tells of a fault of the disk. */
export function faultAnswer(code: FaultCode): HttpError {
  const { status, message } = SENTENCES[code];
  return new HttpError(status, code, message());
}
