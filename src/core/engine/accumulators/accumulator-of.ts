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

/** What of an aggregate says how it is gathered, as plain data. */
export type Gathering = Pick<Aggregate, "fn" | "distinct" | "fraction"> & { arg: { type: ValueType } | null };

/** What of an aggregate says how it is gathered. */
export const gatheringOf = ({ fn, distinct, fraction, arg }: Aggregate): Gathering => ({
  fn,
  distinct,
  fraction,
  arg: arg && { type: arg.type },
});

const typeOf = ({ arg }: Gathering) => arg?.type ?? "number";
const extreme = (sign: 1 | -1) => (asked: Gathering) =>
  typeOf(asked) === "text" ? new TextExtreme(sign) : new NumberExtreme(sign, typeOf(asked));
const shareOf = ({ fraction }: Gathering) =>
  fraction?.op === "constant" && typeof fraction.value === "number" ? fraction.value : Number.NaN;

/** How each aggregate is gathered. */
const ACCUMULATORS: Record<AggregateName, (asked: Gathering) => Accumulator> = {
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
export function accumulatorOf(asked: Gathering): Accumulator {
  const make = () => ACCUMULATORS[asked.fn](asked);
  if (!asked.distinct) return make();
  return new Distinct(asked.fn === "count" ? null : make);
}
