import { formatNumber } from "../base/number-format";
import type { NumberSource, Visual, Zone } from "../project/schema";
import { change, type DrawnFacts, type Mend, type ReviewRule } from "./finding";

type NumberField = "target" | "minimum" | "maximum" | "comparison";
const FIELDS: NumberField[] = ["target", "minimum", "maximum", "comparison"];
/** A share above this was meant as a percent. */
const MOST_SHARE = 5;

const written = (source: NumberSource | null) => (source && "number" in source ? source.number : null);

const isPercentEdge = (to: Zone["to"]): to is number => typeof to === "number" && Math.abs(to) > MOST_SHARE;

/** 70 where 0.7 is meant: numbers of a percent that were written as percents. */
export const percentsForShares: ReviewRule = {
  id: "percents for shares",
  look: (facts) => {
    const { visual, measure } = facts;
    if (measure.format.style !== "percent") return null;
    const fields = FIELDS.filter((f) => Math.abs(written(visual[f]) ?? 0) > MOST_SHARE);
    const edges = visual.zones.flatMap(({ to }) => (isPercentEdge(to) ? to : []));
    if (fields.length === 0 && edges.length === 0) return null;
    const first = fields.length ? (written(visual[fields[0]]) ?? 0) : edges[0];
    return {
      text: `${first} is written where ${measure.label} is a share: that is ${formatNumber(first, measure.format)}.`,
      why: "Shares run from 0 to 1, so that the value lies far below what it is held against.",
      mend: divided(facts, fields),
    };
  },
};

function divided(facts: DrawnFacts, fields: NumberField[]): Mend {
  const { visual } = facts;
  const less = (n: number) => Number((n / 100).toPrecision(12));
  const sources = fields.map((f) => [f, { number: less(written(visual[f]) ?? 0) }] as const);
  const zones = visual.zones.map((z) => ({
    ...z,
    to: isPercentEdge(z.to) ? less(z.to) : z.to,
  }));
  return change("Divide by 100", facts, { ...(Object.fromEntries(sources) as Partial<Visual>), zones });
}

/** 0.7 where 70 is meant: a target of a whole number that no value comes near. */
export const sharesForPercents: ReviewRule = {
  id: "shares for percents",
  look: (facts) => {
    const { visual, data, measure } = facts;
    const target = written(visual.target);
    const value = Math.abs(data.total ?? 0);
    const isPercent = measure.format.suffix.trim() === "%";
    if (!isPercent || target === null || target <= 0 || target > 1 || value <= 1.5 || value > 150)
      return null;
    return {
      text: `The target is ${target} where ${measure.label} is ${formatNumber(data.total, measure.format)}.`,
      why: "The measure counts in percents, the target as a share of 1: every value is past it.",
      mend: change("Multiply by 100", facts, { target: { number: target * 100 } }),
    };
  },
};
