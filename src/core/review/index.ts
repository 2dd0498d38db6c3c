import { isKind } from "../kinds";
import { styleOf } from "../view/picture";
import { moreThanColours, paleLabels, rampOnBars, rampWithinBars, redAndGreenAlone } from "./colours";
import { hundredfoldPercent, summedShare } from "./doubted-measure";
import { failedProof } from "./failed-proof";
import type { DrawnFacts, Facts, Finding, ReviewRule } from "./finding";
import { unlikeGrains } from "./grains";
import { nearColours } from "./near-colours";
import { percentsForShares, sharesForPercents } from "./notation";
import { numbersAlike } from "./numbers-alike";
import { changedTargets, targetOutOfReach } from "./own-targets";
import { manySlices, nearEqualSlices, negativeParts, notAdditive, thinSlices } from "./parts-of-a-whole";
import { baselineNotZero, brokenZones, pastScale, twoScales, zonesOffScale } from "./scales";
import { smallTile } from "./small-tile";
import { staleCaption } from "./stale-caption";
import { timeOutOfOrder } from "./time-out-of-order";

/** Every rule that a visual is looked at by, the most urgent first; to add one is a file and a line. */
export const RULES: readonly ReviewRule[] = [
  failedProof,
  summedShare,
  hundredfoldPercent,
  percentsForShares,
  sharesForPercents,
  changedTargets,
  targetOutOfReach,
  notAdditive,
  negativeParts,
  manySlices,
  thinSlices,
  nearEqualSlices,
  pastScale,
  brokenZones,
  zonesOffScale,
  twoScales,
  baselineNotZero,
  numbersAlike,
  unlikeGrains,
  timeOutOfOrder,
  staleCaption,
  rampOnBars,
  rampWithinBars,
  redAndGreenAlone,
  paleLabels,
  moreThanColours,
  nearColours,
  smallTile,
];

/** The facts of a visual that draws something; null where it does not. */
function drawn(facts: Facts): DrawnFacts | null {
  const { visual, data, project, design } = facts;
  const measure = project.measures.find((m) => m.id === visual.value);
  if (!data || data.problem !== null || !measure || !isKind(visual.kind)) return null;
  return { ...facts, data, measure, style: styleOf(visual, design) };
}

const looked = new WeakMap<Facts["visual"], { facts: Facts; found: Finding[] }>();

/** What is seen of a visual as it is drawn; looked at again only when it, its data or the project change. */
function seenIn(facts: Facts): Finding[] {
  const { visual, data, project, design, stands } = facts;
  const known = looked.get(visual);
  const isSame =
    known?.facts.data === data &&
    known.facts.project === project &&
    known.facts.design === design &&
    known.facts.stands === stands;
  if (isSame) return known.found;
  const seen = drawn(facts);
  const found = RULES.flatMap((rule): Finding[] => {
    const one = seen && "look" in rule ? rule.look(seen) : null;
    return one ? [{ ...one, id: rule.id, rule: rule.id }] : [];
  });
  looked.set(visual, { facts, found });
  return found;
}

/** What there is to say of a visual, rule by rule, whether it was left as it is or not. */
export function review(facts: Facts): Finding[] {
  const settled = RULES.flatMap((rule): Finding[] =>
    "find" in rule ? rule.find(facts).map((f) => ({ ...f, rule: rule.id })) : [],
  );
  return [...settled, ...seenIn(facts)];
}
