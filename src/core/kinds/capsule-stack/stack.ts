/** One segment of a stack: which of the series, its value, and where it lies. */
export interface Segment {
  series: number;
  value: number;
  from: number;
  to: number;
  /** Whether its near or far end is one of the stack's own ends. */
  outermost: { near: boolean; far: boolean };
}

/**
 * Stacks values from zero: those above it upwards, those below it downwards, in their order. The rounding
 * belongs to the outermost segments that have a length: the last on each side, and the first where the stack
 * has one side only.
 */
export function stackOf(cells: (number | null)[], asShares: boolean): Segment[] {
  const present = cells.map((value, series) => ({ value: value ?? 0, series })).filter((c) => c.value !== 0);
  const whole = asShares ? present.reduce((sum, c) => sum + Math.abs(c.value), 0) : 1;
  const side = (sign: 1 | -1): Segment[] => {
    let at = 0;
    return present
      .filter((c) => Math.sign(c.value) === sign)
      .map(({ series, value }) => {
        const from = at;
        at += value / whole;
        return { series, value, from, to: at, outermost: { near: false, far: false } };
      });
  };
  const [up, down] = [side(1), side(-1)];
  for (const [own, other] of [
    [up, down],
    [down, up],
  ]) {
    if (own.length === 0) continue;
    own[own.length - 1].outermost.far = true;
    if (other.length === 0) own[0].outermost.near = true;
  }
  return [...up, ...down];
}
