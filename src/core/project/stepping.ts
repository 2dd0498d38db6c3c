import type { Input } from "./schema";

/** A number's next step, kept on the grid of steps and within the limits. */
export function stepped(
  value: number,
  direction: 1 | -1,
  input: Pick<Input, "minimum" | "maximum" | "step">,
): number {
  const step = input.step ?? 1;
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
