import { kindOf, SIDE_BY_SIDE } from "../kinds";
import type { VisualRow } from "../rows/visual-data";
import { change, type DrawnFacts, type Mend, type ReviewRule } from "./finding";

/** What shows the parts of a whole in a visual; null where nothing does. */
export const wholeAs = ({ visual, data, style }: DrawnFacts) =>
  kindOf(visual.kind).wholeAs?.(data, style) ?? null;
const isPie = (facts: DrawnFacts) => wholeAs(facts) === "slices";

const positive = (rows: VisualRow[]) => rows.map((r) => r.value ?? 0).filter((v) => v > 0);
const asBars = (facts: DrawnFacts): Mend =>
  change(`Draw ${SIDE_BY_SIDE.phrase}`, facts, { kind: SIDE_BY_SIDE.id });
/** Whether shares stay what they are when the smallest parts become one. */
const areAllParts = ({ data }: DrawnFacts) => data.addsUp && data.rows.every((r) => (r.value ?? 0) >= 0);
const keepFirst = (facts: DrawnFacts): Mend =>
  areAllParts(facts)
    ? change("Keep the first 6 and Other", facts, { keep: { first: 6, others: true } })
    : asBars(facts);

/** More slices than can be told apart. */
const MOST_SLICES = 8;
/** A slice thinner than this share of the whole is a line. */
const THIN = 0.015;
/** Slices whose shares differ by less than this look alike. */
const ALIKE = 0.02;

/** A pie of more slices than an eye can compare. */
export const manySlices: ReviewRule = {
  id: "many slices",
  look: (facts) => {
    const count = facts.data.rows.length;
    if (!isPie(facts) || count <= MOST_SLICES) return null;
    return {
      text: `${count} slices are more than can be compared.`,
      why: `Beyond ${MOST_SLICES}, neighbours look alike and names find no room.`,
      mend: keepFirst(facts),
    };
  },
};

/** Slices too thin to be seen as shapes. */
export const thinSlices: ReviewRule = {
  id: "thin slices",
  look: (facts) => {
    const { rows } = facts.data;
    if (!isPie(facts) || rows.length > MOST_SLICES) return null;
    const whole = positive(rows).reduce((sum, v) => sum + v, 0);
    const thin = rows.filter((r) => r.groups === 0 && (r.value ?? 0) > 0 && (r.value ?? 0) / whole < THIN);
    if (thin.length < 2) return null;
    return {
      text: `${thin.length} slices are thinner than 1.5 % of the whole.`,
      why: "They are seen as lines, and cannot be compared or pointed at.",
      mend: asBars(facts),
    };
  },
};

/** Slices that are nearly equal: angles hide what lengths show. */
export const nearEqualSlices: ReviewRule = {
  id: "near-equal slices",
  look: (facts) => {
    const values = positive(facts.data.rows).toSorted((a, b) => b - a);
    if (!isPie(facts) || values.length < 4 || values.length > MOST_SLICES) return null;
    const whole = values.reduce((sum, v) => sum + v, 0);
    const alike = values.filter((v, i) => i > 0 && (values[i - 1] - v) / whole < ALIKE).length;
    if (alike < values.length - 1) return null;
    return {
      text: `The ${values.length} slices are nearly equal.`,
      why: "Angles that differ by so little look the same; lengths beside each other tell them apart.",
      mend: asBars(facts),
    };
  },
};

/** Values below zero among the parts of a whole. */
export const negativeParts: ReviewRule = {
  id: "negative parts",
  look: (facts) => {
    const count = facts.data.rows.filter((r) => (r.value ?? 0) < 0).length;
    const as = wholeAs(facts);
    if (!(as === "slices" || as === "petals") || count === 0) return null;
    return {
      text: `${count} of the parts ${count === 1 ? "is" : "are"} below zero and left out.`,
      why: "A share of a whole cannot be negative, so what is drawn is not all there is.",
      mend: asBars(facts),
    };
  },
};

/** Parts of a rate, an average or a distinct count, drawn as if they made a whole. */
export const notAdditive: ReviewRule = {
  id: "parts that do not add up",
  look: (facts) => {
    const { data, measure } = facts;
    const as = wholeAs(facts);
    const isMeasures = data.rows.length > 1 && data.rows.every((r) => r.format);
    if (!(as === "slices" || as === "stacks") || isMeasures || data.rows.length < 2 || data.addsUp)
      return null;
    return {
      text: `${measure.label} of the parts does not add up to that of the whole.`,
      why: "Shares of a sum that means nothing are drawn: rates, averages and distinct counts have no parts.",
      mend:
        as === "stacks" ? change("Put them side by side", facts, { kind: SIDE_BY_SIDE.id }) : asBars(facts),
    };
  },
};
