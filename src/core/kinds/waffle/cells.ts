/**
 * Divides `cells` whole cells among shares so that they add up to it: each gets the whole part of its quota,
 * and what is left goes to the largest remainders, ties by order (the method of A. Hamilton, also called
 * Hare's quota).
 */
export function largestRemainder(values: number[], cells: number): number[] {
  const largest = Math.max(0, ...values);
  if (largest === 0) return values.map(() => 0);
  const whole = values.reduce((sum, v) => sum + v / largest, 0);
  const quotas = values.map((v) => (v / largest / whole) * cells);
  const given = quotas.map((q) => Math.floor(q + 1e-9));
  let left = cells - given.reduce((sum, g) => sum + g, 0);
  const order = quotas
    .map((q, i) => ({ i, rest: q - given[i] }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i);
  for (const { i } of order) {
    if (left <= 0) break;
    given[i]++;
    left--;
  }
  return given;
}

/** The column and row (from the top left) of the n-th cell that is filled. */
export function cellAt(
  n: number,
  rows: number,
  columns: number,
  order: string,
  corner: string,
): { column: number; row: number } {
  const [a, b] = order === "row" ? [n % columns, Math.floor(n / columns)] : [Math.floor(n / rows), n % rows];
  return {
    column: corner.endsWith("left") ? a : columns - 1 - a,
    row: corner.startsWith("top") ? b : rows - 1 - b,
  };
}
