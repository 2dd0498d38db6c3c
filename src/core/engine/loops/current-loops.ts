import type { Loops } from "./loops";
import { plainLoops } from "./plain-loops";

let take = (): Loops => plainLoops;

/** Says where the scans of this thread get their loops. */
export function scanWith(loops: () => Loops): void {
  take = loops;
}

/** The loops for one scan, which says when it ends; what it made with them is nobody else's until then. */
export const takeLoops = (): Loops => take();
