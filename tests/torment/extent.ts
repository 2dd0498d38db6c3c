import { appendFileSync, mkdirSync } from "node:fs";

/** Whether the long run is asked for; the short one is part of every check. */
export const LONG = process.env.TORMENT === "long";

/** The same attacks come with the same seed. */
export const SEED = Number(process.env.TORMENT_SEED ?? 20260101);

/** A part of the long run, where there is less time: TORMENT_SHARE=0.3. */
const SHARE = Number(process.env.TORMENT_SHARE ?? 1);

export const times = (short: number, long: number): number => (LONG ? Math.ceil(long * SHARE) : short);

/** Numbers from 0 to 1, the same for the same seed (mulberry32, T. Ettinger 2017, public domain). */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Writes a figure down: what was tried, and what came of it. */
export function figure(what: string): void {
  console.log(what);
  mkdirSync(".check", { recursive: true });
  appendFileSync(".check/torment.txt", `${what}\n`);
}
