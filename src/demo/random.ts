/**
 * A seeded generator of numbers from 0 to 1 (mulberry32, a public-domain 32-bit generator): the same seed,
 * the same numbers.
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number around 0 with standard deviation near 1: the sum of twelve uniform ones, less six. */
export function bell(random: () => number): number {
  let sum = -6;
  for (let i = 0; i < 12; i++) sum += random();
  return sum;
}
