/** The median of some numbers. */
export function median(numbers: number[]): number {
  const sorted = numbers.toSorted((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)];
}

/** Median time of a piece of work in milliseconds, after a warm-up. */
export function timed(work: () => void, runs = 200, warmUp = 50): number {
  for (let i = 0; i < warmUp; i++) work();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const began = performance.now();
    work();
    times.push(performance.now() - began);
  }
  return median(times);
}

export const ms = (n: number) => `${n < 10 ? n.toFixed(2) : n.toFixed(1)} ms`;
