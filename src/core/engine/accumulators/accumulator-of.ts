import type { Value, ValueType } from "../../base/value";
import type { Accumulator } from "./accumulator";
import { ByKey } from "./by-key";
import { Count } from "./count";
import { Distinct } from "./distinct";
import { NumberExtreme, TextExtreme } from "./extreme";
import { Percentile } from "./percentile";
import { Spread } from "./spread";
import { Sum } from "./sum";
import { Truth } from "./truth";

type Asked = {
  fn: string;
  distinct: boolean;
  arg: { type: ValueType } | null;
  fraction: { op: string; value?: Value } | null;
};

/** A fresh accumulator of a bound aggregate. */
export function accumulatorOf({ fn, distinct, arg, fraction }: Asked): Accumulator {
  if (distinct)
    return new Distinct(fn === "count" ? null : () => accumulatorOf({ fn, distinct: false, arg, fraction }));
  const type = arg?.type ?? "number";
  switch (fn) {
    case "count":
      return new Count();
    case "sum":
    case "avg":
      return new Sum(fn === "avg");
    case "min":
    case "max":
      return type === "text"
        ? new TextExtreme(fn === "max" ? 1 : -1)
        : new NumberExtreme(fn === "max" ? 1 : -1, type);
    case "median":
      return new Percentile(0.5);
    case "percentile_cont":
      return new Percentile(
        fraction?.op === "constant" && typeof fraction.value === "number" ? fraction.value : Number.NaN,
      );
    case "stddev_pop":
    case "stddev_samp":
    case "var_pop":
    case "var_samp":
      return new Spread(fn.startsWith("stddev"), fn.endsWith("samp"));
    case "max_by":
    case "min_by":
      return new ByKey(fn === "max_by" ? 1 : -1, type);
    case "bool_and":
    case "bool_or":
      return new Truth(fn === "bool_and");
  }
  throw new Error(`no accumulator for ${fn}`);
}
