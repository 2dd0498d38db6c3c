import type { Expr } from "../formula/expr";
import { BLOCK, type Block } from "./block";
import type { Kernel } from "./vector";

/** For each row of a block 1 where it counts, else 0. The array is reused by the next call. */
export type Mask = (block: Block) => Uint8Array;

type Test = (a: Float64Array, b: Float64Array, out: Uint8Array, length: number) => void;

/**
 * A comparison with null (NaN) is never true, which is just what SQL's filters ask; so no null has to be
 * looked for.
 */
const TESTS: Record<string, Test> = {
  "=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] === b[i]);
  },
  "<>": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < b[i]) + Number(a[i] > b[i]);
  },
  "<": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < b[i]);
  },
  "<=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] <= b[i]);
  },
  ">": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] > b[i]);
  },
  ">=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] >= b[i]);
  },
};
/** The same beside one number. */
const TESTS_BESIDE: Record<string, (a: Float64Array, c: number, out: Uint8Array, length: number) => void> = {
  "=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] === c);
  },
  "<>": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < c) + Number(a[i] > c);
  },
  "<": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < c);
  },
  "<=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] <= c);
  },
  ">": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] > c);
  },
  ">=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] >= c);
  },
};
/** The comparison that is true where another is false. */
const OPPOSITE: Record<string, string> = { "=": "<>", "<>": "=", "<": ">=", "<=": ">", ">": "<=", ">=": "<" };

const numbersOf = (kernel: Kernel, block: Block) => (kernel(block) as { numbers: Float64Array }).numbers;

function combined(masks: Mask[], all: boolean): Mask {
  const out = new Uint8Array(BLOCK);
  return (block) => {
    out.set(masks[0](block));
    for (const mask of masks.slice(1)) {
      const m = mask(block);
      if (all) for (let i = 0; i < block.length; i++) out[i] &= m[i];
      else for (let i = 0; i < block.length; i++) out[i] |= m[i];
    }
    return out;
  };
}

/**
 * Compiles a row-level condition into a mask of the rows for which it is true, or, with `wanted` false, for
 * which it is false; rows for which it is null are in neither. `kernelOf` gives the kernel of an expression,
 * so that equal ones are computed once a block.
 */
export function compileMask(expr: Expr, kernelOf: (expr: Expr) => Kernel, wanted = true): Mask {
  const sub = (e: Expr, truth = wanted) => compileMask(e, kernelOf, truth);
  if (expr.op === "call") {
    const { fn, args } = expr;
    if (fn === "not") return sub(args[0], !wanted);
    // "and" is true where all are, and false where any is; "or" the other way round.
    if ((fn === "and" || fn === "or") && args.length > 0)
      return combined(
        args.map((a) => sub(a)),
        (fn === "and") === wanted,
      );
    if (Object.hasOwn(TESTS, fn) && args.every((a) => a.type !== "text")) {
      const name = wanted ? fn : OPPOSITE[fn];
      const beside = args[1].op === "constant" && args[1].value !== null ? Number(args[1].value) : null;
      if (beside !== null) {
        const test = TESTS_BESIDE[name];
        const left = kernelOf(args[0]);
        const out = new Uint8Array(BLOCK);
        return (block) => {
          test(numbersOf(left, block), beside, out, block.length);
          return out;
        };
      }
      const test = TESTS[name];
      const [left, right] = args.map(kernelOf);
      const out = new Uint8Array(BLOCK);
      return (block) => {
        test(numbersOf(left, block), numbersOf(right, block), out, block.length);
        return out;
      };
    }
  }
  const kernel = kernelOf(expr);
  const out = new Uint8Array(BLOCK);
  const truth = wanted ? 1 : 0;
  return (block) => {
    const numbers = numbersOf(kernel, block);
    for (let i = 0; i < block.length; i++) out[i] = Number(numbers[i] === truth);
    return out;
  };
}
