import type { Cells, Lane, Loops } from "./loops";

/** A lane is every `step`-th number, from its own place on. */
export interface Column extends Lane {
  numbers: Float64Array;
  step: number;
}

/** Writes the lane of some rows. */
export function fillColumn(
  { numbers, at, step }: Column,
  length: number,
  numberOf: (row: number) => number,
): void {
  for (let i = 0; i < length; i++) numbers[at + i * step] = numberOf(i);
}

/** Whether a cell is neither null nor filtered out. */
export function isKept({ cells, none, at }: Cells, filter: Uint8Array | null, row: number): boolean {
  const x = cells[at?.[row] ?? row];
  return x !== none && x === x && filter?.[row] !== 0;
}

/** What `foldLanes` does, over records in any memory. */
export function foldColumns(...[totals, groups, rows, length]: Parameters<Loops["foldLanes"]>): void {
  const { sums, largest, lanes } = rows;
  for (const { numbers, at, step } of lanes as Column[])
    for (let i = 0; i < length; i++) {
      const to = groups[i] * step + at;
      const x = numbers[at + i * step];
      if (at < 2 * sums) totals[to] += x;
      else if (at < 2 * (sums + largest) ? x > totals[to] : x < totals[to]) totals[to] = x;
    }
}
