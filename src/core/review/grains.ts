import { spoken } from "../view/spoken";
import { change, type ReviewRule } from "./finding";

/** A split by stretches of time that are finer than the dates of one of its tables stand for. */
export const unlikeGrains: ReviewRule = {
  id: "grains that do not meet",
  look: (facts) => {
    const [first] = facts.data.coarse;
    if (!first) return null;
    const { table, column, grain, by } = first;
    const { split, series } = spoken(facts.visual);
    const field = split?.by === by ? "split" : series?.by === by ? "series" : null;
    const whole = field === "split" ? split : series;
    return {
      text: `${table}.${column} has one date a ${grain}, and is split by ${by}.`,
      why: `All of a ${grain} stands in its first ${by}: it is far too much there, and nothing in the others.`,
      ...(field && whole ? { mend: change(`By ${grain}`, facts, { [field]: { ...whole, by: grain } }) } : {}),
    };
  },
};
