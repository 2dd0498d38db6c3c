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

/** How long a patient thread sleeps at most before it looks again, in milliseconds. */
const NAP = 20;

/** The flag of a thread that rests while others have questions under way, as many as a word of memory says. */
export function patientFlag(stop: StopFlag, underWay: SharedArrayBuffer): StopFlag {
  const word = new Int32Array(underWay);
  return () => {
    for (let busy = Atomics.load(word, 0); busy > 0 && stop() === null; busy = Atomics.load(word, 0))
      Atomics.wait(word, 0, busy, NAP);
    return stop();
  };
}
