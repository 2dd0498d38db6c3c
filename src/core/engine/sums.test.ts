import fc from "fast-check";
import { expect, it } from "vitest";
import { accumulatorOf } from "./accumulators/accumulator-of";
import { plainLoops } from "./loops/plain-loops";

/** The exact sum of doubles: each is a whole number of 2^-1074. */
function exactSum(values: number[]): number {
  let sum = 0n;
  for (const value of values) {
    const bits = new DataView(new ArrayBuffer(8));
    bits.setFloat64(0, value);
    const raw = bits.getBigUint64(0);
    const exponent = (raw >> 52n) & 0x7ffn;
    const fraction = raw & 0xfffffffffffffn;
    const whole = exponent === 0n ? fraction : (fraction | 0x10000000000000n) << (exponent - 1n);
    sum += raw >> 63n ? -whole : whole;
  }
  // The leading 60 bits carry far more than the 1e-12 asked for.
  const size = sum < 0n ? -sum : sum;
  const shift = Math.max(0, size.toString(2).length - 60);
  const leading = Number(size >> BigInt(shift)) * 2 ** -537 * 2 ** (shift - 537);
  return sum < 0n ? -leading : leading;
}

it("sums of hostile orders agree with exact arithmetic to 1e-12 of the values' size", () => {
  const value = fc.oneof(
    fc.double({ min: -1e15, max: 1e15, noNaN: true }),
    fc.double({ min: -1e-3, max: 1e-3, noNaN: true }),
    fc.constantFrom(1e15, -1e15, 0.1, 1e-9),
  );
  fc.assert(
    fc.property(fc.array(value, { minLength: 1, maxLength: 200 }), (values) => {
      const numbers = Float64Array.from(values);
      const sum = accumulatorOf({ fn: "sum", distinct: false, arg: { type: "number" }, fraction: null });
      sum.add(
        { groups: new Int32Array(values.length), length: values.length, size: 1, loops: plainLoops },
        { numbers },
        null,
        null,
      );
      const exact = exactSum(values);
      const got = sum.result(0) as number;
      expect(Math.abs(got - exact)).toBeLessThanOrEqual(
        1e-12 * Math.max(Math.abs(exact), 1e-15 * Math.max(...values.map(Math.abs)), Number.MIN_VALUE),
      );
    }),
    { numRuns: 500, seed: 17 },
  );
});

it("keeps what plain addition loses", () => {
  const numbers = Float64Array.of(1e16, 1, -1e16, 1);
  const sum = accumulatorOf({ fn: "sum", distinct: false, arg: { type: "number" }, fraction: null });
  sum.add({ groups: new Int32Array(4), length: 4, size: 1, loops: plainLoops }, { numbers }, null, null);
  expect(sum.result(0)).toBe(2);
});
