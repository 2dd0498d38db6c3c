import type { StopFlag } from "@/core/engine/stop";
import { STOP } from "./pool";

/** The flag in a word of shared memory in which a thread is told to stop. */
export function stopFlag(memory: SharedArrayBuffer): StopFlag {
  const word = new Int32Array(memory);
  return () => {
    const now = Atomics.load(word, 0);
    return now === STOP.none ? null : now === STOP.tooLong ? "too_long" : "cancelled";
  };
}
