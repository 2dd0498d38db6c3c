import type { Input } from "./schema";

/** A readable step: 1, 2 or 5 times a power of ten, at or a little below x. */
function readableBelow(x: number): number {
  const power = 10 ** Math.floor(Math.log10(x) + 1e-9);
  const step = [5, 2, 1].find((s) => s * power <= x * (1 + 1e-9)) ?? 1;
  return Number((step * power).toPrecision(12));
}

type Stepped = Pick<Input, "minimum" | "maximum" | "step" | "format">;

/**
 * By how much an input moves: by its own step; without one by a readable hundredth of its range, and where it
 * has none by one, which is a point of a percent.
 */
export function stepOf({ minimum, maximum, step, format }: Stepped): number {
  if (step !== null) return step;
  if (minimum !== null && maximum !== null && maximum > minimum)
    return readableBelow((maximum - minimum) / 100);
  return format.style === "percent" ? 0.01 : 1;
}

/** A number's next step, kept on the grid of steps and within the limits. */
export function stepped(value: number, direction: 1 | -1, input: Stepped): number {
  const step = stepOf(input);
  const from = input.minimum ?? 0;
  const steps = (value - from) / step;
  const next = from + (direction > 0 ? Math.floor(steps + 1e-9) + 1 : Math.ceil(steps - 1e-9) - 1) * step;
  return Number(
    Math.min(
      input.maximum ?? Number.POSITIVE_INFINITY,
      Math.max(input.minimum ?? Number.NEGATIVE_INFINITY, next),
    ).toPrecision(12),
  );
}
