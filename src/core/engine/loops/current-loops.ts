import type { Loops } from "./loops";
import { plainLoops } from "./plain-loops";

let take = (): Loops => plainLoops;

/** Says where the scans of this thread get their loops; gives where they got them before. */
export function scanWith(loops: () => Loops): () => Loops {
  const before = take;
  take = loops;
  return before;
}

/** The loops for one scan, which says when it ends; what it made with them is nobody else's until then. */
export const takeLoops = (): Loops => take();
