import { closeSync, fstatSync, openSync, readSync } from "node:fs";
import { crc32 } from "node:zlib";

/** What a file held when it was written: its size and a CRC-32 for each stretch of it. */
export interface FileSums {
  size: number;
  stretch: number;
  sums: number[];
}

const STRETCH = 1 << 20;

/** Reads a file stretch by stretch; `visit` gives false to end. */
function eachStretch(path: string, stretch: number, visit: (sum: number, at: number) => boolean): number {
  const file = openSync(path, "r");
  try {
    const { size } = fstatSync(file);
    const buffer = Buffer.allocUnsafe(Math.min(stretch, Math.max(1, size)));
    for (let at = 0, from = 0; from < size; at++) {
      let filled = 0;
      while (filled < stretch && from + filled < size) {
        const read = readSync(file, buffer, filled, Math.min(stretch, size - from) - filled, from + filled);
        if (read === 0) break;
        filled += read;
      }
      if (!visit(crc32(buffer.subarray(0, filled)), at)) break;
      from += stretch;
    }
    return size;
  } finally {
    closeSync(file);
  }
}

/** The checksums of a file as it is now. */
export function sumsOf(path: string): FileSums {
  const sums: number[] = [];
  const size = eachStretch(path, STRETCH, (sum) => sums.push(sum) > 0);
  return { size, stretch: STRETCH, sums };
}

/**
 * What is wrong with a file compared with what was written, in words for the middle of a sentence, or null
 * where it is sound.
 */
export function damageOf(path: string, written: FileSums): string | null {
  let bad: number | null = null;
  let size: number;
  try {
    size = eachStretch(path, written.stretch, (sum, at) => {
      if (sum === written.sums[at]) return true;
      bad = at;
      return false;
    });
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "ENOENT"
      ? "the file is gone"
      : `the file cannot be read (${(error as Error).message})`;
  }
  if (size !== written.size) return `the file has ${size} bytes and not ${written.size}`;
  return bad === null
    ? null
    : `stretch ${(bad as number) + 1} of ${written.sums.length} is not what was written`;
}
