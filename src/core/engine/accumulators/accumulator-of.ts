import type { ValueType } from "../../base/value";
import type { AggregateName } from "../../formula/aggregates";
import type { Aggregate } from "../../plan/aggregates";
import type { Accumulator } from "./accumulator";
import { ByKey } from "./by-key";
import { Count } from "./count";
import { Distinct } from "./distinct";
import { NumberExtreme, TextExtreme } from "./extreme";
import { GeometricMean } from "./geometric-mean";
import { Mode } from "./mode";
import { Percentile } from "./percentile";
import { Spread } from "./spread";
import { Sum } from "./sum";
import { Truth } from "./truth";

type Asked = Pick<Aggregate, "fn" | "distinct" | "fraction"> & { arg: { type: ValueType } | null };

const typeOf = ({ arg }: Asked) => arg?.type ?? "number";
const extreme = (sign: 1 | -1) => (asked: Asked) =>
  typeOf(asked) === "text" ? new TextExtreme(sign) : new NumberExtreme(sign, typeOf(asked));
const shareOf = ({ fraction }: Asked) =>
  fraction?.op === "constant" && typeof fraction.value === "number" ? fraction.value : Number.NaN;

/** How each aggregate is gathered. */
const ACCUMULATORS: Record<AggregateName, (asked: Asked) => Accumulator> = {
  count: () => new Count(),
  sum: () => new Sum(false),
  avg: () => new Sum(true),
  min: extreme(-1),
  max: extreme(1),
  median: () => new Percentile(0.5),
  percentile_cont: (asked) => new Percentile(shareOf(asked)),
  mode: (asked) => new Mode(typeOf(asked)),
  geometric_mean: () => new GeometricMean(),
  stddev_pop: () => new Spread(true, false),
  stddev_samp: () => new Spread(true, true),
  var_pop: () => new Spread(false, false),
  var_samp: () => new Spread(false, true),
  max_by: (asked) => new ByKey(1, typeOf(asked)),
  min_by: (asked) => new ByKey(-1, typeOf(asked)),
  bool_and: () => new Truth(true),
  bool_or: () => new Truth(false),
};

/** A fresh accumulator of a bound aggregate. */
export function accumulatorOf(asked: Asked): Accumulator {
  const make = () => ACCUMULATORS[asked.fn](asked);
  if (!asked.distinct) return make();
  return new Distinct(asked.fn === "count" ? null : make);
}
