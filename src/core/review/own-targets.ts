import { isOfEach } from "../project/roles";
import type { NumberSource, Visual } from "../project/schema";
import { spoken } from "../view/spoken";
import { change, type Facts, type Mend, type ReviewRule } from "./finding";

const ofWhole = (visual: Visual, source: NumberSource | null): NumberSource | null =>
  isOfEach(visual, source) ? { ...source, over: "whole" } : source;

/** All rows against one value of each measure: that over the whole. */
function allAgainstWhole(facts: Facts): Mend {
  const { visual } = facts;
  return change("All against the whole", facts, {
    target: ofWhole(visual, visual.target),
    baseline: ofWhole(visual, visual.baseline),
    rules: visual.rules.map((rule) => {
      const { than } = rule;
      return typeof than === "object" && isOfEach(visual, than)
        ? { ...rule, than: { ...than, over: "whole" as const } }
        : rule;
    }),
    changed: [],
  });
}

/** The labels of the measures of which each row has a value of its own, where the kind has rows. */
function ownIn({ visual, project }: Facts): string[] {
  const { target, baseline, rules } = spoken(visual);
  const limits = rules.map(({ than }) => (typeof than === "object" ? than : null));
  const ids = [target, baseline, ...limits].flatMap((s) => (isOfEach(spoken(visual), s) ? s.measure : []));
  return [...new Set(ids)].flatMap((id) => project.measures.find((m) => m.id === id)?.label ?? []);
}

/** What an earlier version held against one value for all rows, and which is each row's own now. */
export const changedTargets: ReviewRule = {
  id: "own targets",
  look: (facts) => {
    const names = facts.visual.changed.includes("own targets") ? ownIn(facts) : [];
    if (names.length === 0) return null;
    return {
      text: `Each row stands against its own ${names.join(" and ")} now; before, all stood against that of the whole.`,
      why: "Shares, ticks and colours of the rows are other ones than in an earlier version.",
      mend: allAgainstWhole(facts),
    };
  },
};

/** A target that the split does not reach, or that a filter leaves whole: nothing runs against it. */
export const targetOutOfReach: ReviewRule = {
  id: "target out of reach",
  look: (facts) => {
    const { data, visual, project } = facts;
    const { target } = visual;
    const measure = target && "measure" in target && project.measures.find((m) => m.id === target.measure);
    if (!data.outOfReach || !measure) return null;
    const { by, why } = data.outOfReach;
    return {
      text: `There is no target: ${why}`,
      why:
        by === "split"
          ? `A row cannot be held against its own ${measure.label} where nothing says which part of that is its.`
          : `What the filter keeps would be held against the ${measure.label} of all there is.`,
      ...(by === "split"
        ? { mend: change("All against the whole", facts, { target: ofWhole(visual, target) }) }
        : {
            measure,
            mend: {
              label: `Let ${measure.label} stand whole`,
              edit: { type: "change measure", id: measure.id, change: { standsWhole: true } },
            },
          }),
    };
  },
};
