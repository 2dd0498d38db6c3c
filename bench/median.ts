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

/**
 * Median times of several pieces of work in milliseconds, done in turn, so that an hour in which the machine
 * has other work is the same for each of them.
 */
export async function timedInTurn(works: (() => unknown)[], runs: number, warmUp: number): Promise<number[]> {
  const took = works.map((): number[] => []);
  for (let i = -warmUp; i < runs; i++)
    for (const [k, work] of works.entries()) {
      const began = performance.now();
      await work();
      if (i >= 0) took[k].push(performance.now() - began);
    }
  return took.map(median);
}

export const ms = (n: number) => `${n < 10 ? n.toFixed(2) : n.toFixed(1)} ms`;
