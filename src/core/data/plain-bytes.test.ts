import fc from "fast-check";
import { expect, it } from "vitest";
import { fromBytes, toBytes } from "./plain-bytes";

const whole = fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 });
const plain = fc.letrec((tie) => ({
  any: fc.oneof(
    { maxDepth: 4 },
    fc.string({ unit: "binary" }),
    fc.double({ noNaN: true, noDefaultInfinity: true }).map((x) => x + 0),
    fc.boolean(),
    fc.constant(null),
    fc.array(whole).map((a) => Int32Array.from(a)),
    fc.array(fc.integer({ min: -128, max: 127 })).map((a) => Int8Array.from(a)),
    fc.array(fc.integer({ min: 0, max: 2 ** 32 - 1 })).map((a) => Uint32Array.from(a)),
    fc.array(fc.double()).map((a) => Float64Array.from(a)),
    // Sums over the first of something: far larger than what is between them.
    fc.array(fc.integer({ min: 0, max: 90 })).map((a) => {
      let sum = 2 ** 40;
      return Float64Array.from(a, (x) => {
        sum += x;
        return sum;
      });
    }),
    fc.array(tie("any")),
    fc.array(fc.tuple(fc.string(), tie("any"))).map((entries) => new Map(entries)),
    fc.dictionary(fc.constantFrom("a", "constructor", "values", "__proto__x"), tie("any"), {
      noNullPrototype: true,
    }),
  ),
}));

it("gives back what was written", () => {
  fc.assert(
    fc.property(plain.any, (value) => {
      expect(fromBytes(toBytes(value))).toEqual(value);
    }),
    { numRuns: 500 },
  );
});

it("keeps -0, NaN and infinities among doubles, and reads where the bytes begin at an odd place", () => {
  const numbers = Float64Array.of(-0, Number.NaN, Number.NEGATIVE_INFINITY, 0.1, 5e-324, 2 ** 53);
  const bytes = toBytes({ numbers });
  const shifted = new Uint8Array(bytes.length + 1);
  shifted.set(bytes, 1);
  const back = (fromBytes(shifted.subarray(1)) as { numbers: Float64Array }).numbers;
  expect([...back].every((x, i) => Object.is(x, numbers[i]))).toBe(true);
});

it("writes sums over the first of many small numbers as their differences", () => {
  let sum = 0;
  const sums = Float64Array.from({ length: 10_000 }, (_, i) => {
    sum += i % 100;
    return sum;
  });
  expect(toBytes(sums).length).toBeLessThan(10_300);
});

it("refuses bytes of another byte order", () => {
  const bytes = toBytes([1]);
  bytes[0] ^= 1;
  expect(() => fromBytes(bytes)).toThrow("another byte order");
});
