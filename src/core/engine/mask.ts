import type { Expr } from "../formula/expr";
import type { Block } from "./block";
import { BLOCK, type Loops, TESTS, type TestName } from "./loops/loops";
import type { Kernel } from "./vector";

/** For each row of a block 1 where it counts, else 0. The array is reused by the next call. */
export type Mask = (block: Block) => Uint8Array;

/** The comparison that is true where another is false. */
const OPPOSITE: Record<TestName, TestName> = {
  "=": "<>",
  "<>": "=",
  "<": ">=",
  "<=": ">",
  ">": "<=",
  ">=": "<",
};

const numbersOf = (kernel: Kernel, block: Block) => (kernel(block) as { numbers: Float64Array }).numbers;

function combined(masks: Mask[], all: boolean, loops: Loops): Mask {
  const out = loops.bytes(BLOCK);
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
export function compileMask(expr: Expr, kernelOf: (expr: Expr) => Kernel, loops: Loops, wanted = true): Mask {
  const sub = (e: Expr, truth = wanted) => compileMask(e, kernelOf, loops, truth);
  if (expr.op === "call") {
    const { fn, args } = expr;
    if (fn === "not") return sub(args[0], !wanted);
    // "and" is true where all are, and false where any is; "or" the other way round.
    if ((fn === "and" || fn === "or") && args.length > 0)
      return combined(
        args.map((a) => sub(a)),
        (fn === "and") === wanted,
        loops,
      );
    const test = TESTS.find((name) => name === fn);
    if (test && args.every((a) => a.type !== "text")) {
      const name = wanted ? test : OPPOSITE[test];
      const left = kernelOf(args[0]);
      const right = kernelOf(args[1]);
      const out = loops.bytes(BLOCK);
      return (block) => {
        loops.test(name, numbersOf(left, block), numbersOf(right, block), out, block.length);
        return out;
      };
    }
  }
  const kernel = kernelOf(expr);
  const out = loops.bytes(BLOCK);
  const truth = wanted ? 1 : 0;
  return (block) => {
    const numbers = numbersOf(kernel, block);
    for (let i = 0; i < block.length; i++) out[i] = Number(numbers[i] === truth);
    return out;
  };
}
