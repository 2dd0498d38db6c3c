import type { Expr } from "../formula/expr";
import type { Aggregate } from "../plan/aggregates";
import type { Accumulator } from "./accumulators/accumulator";
import { accumulatorOf } from "./accumulators/accumulator-of";
import type { Block, Readers } from "./block";
import { compileMask, type Mask } from "./mask";
import type { ScanSource } from "./scan-source";
import { compileRow, type Kernel, storedKernel } from "./vector";

/** Kernels and masks that are computed once a block, however many aggregates use them. */
export class SharedKernels {
  private readonly kernels = new Map<string, Kernel>();
  private readonly masks = new Map<string, Mask>();
  private block = 0;

  constructor(
    private readonly source: ScanSource,
    private readonly readers: Readers,
  ) {}

  /** Says that another block begins. */
  next(): void {
    this.block++;
  }

  /** What is computed of a block when it is first asked for. */
  once<T>(compute: (block: Block) => T): (block: Block) => T {
    let [at, value] = [-1, null as T | null];
    return (block) => {
      if (at !== this.block) {
        value = compute(block);
        at = this.block;
      }
      return value as T;
    };
  }

  kernel = (expr: Expr): Kernel => {
    const key = JSON.stringify(expr);
    const known = this.kernels.get(key);
    if (known) return known;
    this.source.checkStop();
    const made = this.once(compileRow(expr, this.source, this.readers, this.kernel));
    this.kernels.set(key, made);
    return made;
  };

  /**
   * An aggregate's accumulator with the kernel of its argument: a column's numbers as they are stored, where
   * the accumulator can take them so.
   */
  gathering(a: Aggregate): { accumulator: Accumulator; argument: Kernel | null } {
    const accumulator = accumulatorOf(a);
    const stored = a.arg && accumulator.takesStored ? storedKernel(a.arg, this.source, this.readers) : null;
    return { accumulator, argument: stored ?? (a.arg && this.kernel(a.arg)) };
  }

  mask(expr: Expr): Mask {
    const key = JSON.stringify(expr);
    const known = this.masks.get(key);
    if (known) return known;
    const made = this.once(compileMask(expr, this.kernel, this.readers.loops));
    this.masks.set(key, made);
    return made;
  }
}
