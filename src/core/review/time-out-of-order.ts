import { spoken } from "../view/spoken";
import { change, type ReviewRule } from "./finding";

/** Stretches of time that are put in order by size: their course cannot be seen. */
export const timeOutOfOrder: ReviewRule = {
  id: "time out of order",
  look: (facts) => {
    const { split, order } = spoken(facts.visual);
    const isBySize = order.by === "value" || (typeof order.by === "object" && "measure" in order.by);
    if (split?.by === undefined || !isBySize || facts.data.rows.length < 3) return null;
    return {
      text: `The ${split.by}s stand in order of size, not of time.`,
      why: "How the value went cannot be seen, and neighbours do not follow each other.",
      mend: change("Put them in order of time", facts, { order: { by: "split", order: "asc" } }),
    };
  },
};
