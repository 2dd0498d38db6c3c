import type { AddsUp } from "../formula/expr";
import { kindOf } from "../kinds";
import type { Kind } from "../kinds/anatomy/kind";
import { addsUp } from "../project/adds-up";
import { columnsOfMeasure } from "../project/columns-of-measure";
import { calendarOf } from "../project/conventions";
import { newVisual } from "../project/defaults";
import { freeMadeName } from "../project/made-names";
import type { RoleId } from "../project/roles";
import type { Measure, Project, Visual } from "../project/schema";
import type { TableFacts } from "./column-facts";
import { isMadeWith, isOfTotal, whyNoSize } from "./drawable";
import { fittingCourse, fittingParts, MOST_GROUPS } from "./fitting-split";
import { spoken } from "./spoken";

type Known = Pick<Project, "tables" | "links" | "inputs" | "measures" | "conventions">;

/** What a first set-up can draw on. */
interface Offer {
  kind: Kind;
  /** Splits into parts, the fittest first, and how many groups each has. */
  parts: { split: NonNullable<Visual["split"]>; groups: number }[];
  /** The course over time in as many steps as a line takes, and in as few as parts are told apart. */
  course: Visual["split"];
  stretches: Visual["split"];
  /**
   * An input of the measure's format that is named after it and that it is not computed with, and another
   * measure of that format.
   */
  goal: string | null;
  other: string | null;
  /** Whether the measure holds groups against the total of all, and so needs some. */
  isOfTotal: boolean;
}

/** The words of a label that say what it is about: "Passenger target" is about passengers. */
const wordsIn = (label: string) =>
  label
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length >= 4 && !GENERIC.has(word));
const GENERIC: ReadonlySet<string> = new Set([
  "goal",
  "target",
  "total",
  "rate",
  "share",
  "average",
  "number",
]);

/** Whether two labels are about one thing: a word of the one begins a word of the other. */
const namedAlike = (a: string, b: string): boolean =>
  wordsIn(a).some((x) => wordsIn(b).some((y) => x.startsWith(y) || y.startsWith(x)));

function offerFor(kind: Kind, measure: Measure, project: Known, facts: TableFacts): Offer {
  const columns = columnsOfMeasure(measure, project);
  const { style } = measure.format;
  const calendar = calendarOf(project);
  return {
    kind,
    parts: fittingParts(columns, facts),
    course: fittingCourse(columns, facts, calendar),
    stretches: fittingCourse(columns, facts, calendar, MOST_GROUPS),
    goal:
      project.inputs.find(
        (i) =>
          i.type === "number" &&
          i.format.style === style &&
          namedAlike(i.label, measure.label) &&
          !isMadeWith(measure, i.name, project),
      )?.id ?? null,
    isOfTotal: isOfTotal(measure, project),
    other:
      project.measures.find(
        (m) =>
          m.id !== measure.id &&
          m.table === measure.table &&
          m.format.style === style &&
          whyNoSize(m, project) === null,
      )?.id ?? null,
  };
}

const against = ({ goal }: Offer) => (goal ? { input: goal } : null);
/** A series has no more groups than are told apart: stretches of time, else the next fit column. */
const seriesOf = ({ parts, stretches }: Offer) =>
  stretches ?? parts.slice(1).find((p) => p.groups <= MOST_GROUPS)?.split ?? null;

/** What the roles of a kind begin with; the others begin empty. */
const FIRST: { [R in RoleId]?: (offer: Offer) => Partial<Visual> } = {
  split: ({ kind, parts, stretches, course, isOfTotal: needsGroups }) => {
    if (kind.needsSplit || (needsGroups && !kind.course)) return { split: parts[0]?.split ?? stretches };
    return { split: kind.course ? course : null };
  },
  series: (o) => (o.kind.dividedAtFirst && o.parts[0] ? { series: seriesOf(o) } : {}),
  second: (o) => ({ second: o.other }),
  comparison: (o) => ({ comparison: against(o) }),
  target: (o) => ({ target: against(o) }),
};

/** How many groups a split is kept to: all of a few; of more the largest, the others together. */
function keepOf({ parts }: Offer, split: Visual["split"], told: AddsUp): Visual["keep"] {
  const groups = parts.find((p) => p.split === split)?.groups ?? 0;
  if (groups <= MOST_GROUPS) return null;
  // The average of all others is no part beside the first.
  return told === "no" ? { first: MOST_GROUPS, others: false } : { first: MOST_GROUPS - 1, others: true };
}

/**
 * A first set-up of a kind for a measure: split where the kind needs one, by a column whose groups can be
 * told apart (`facts` are those of the measure's table); what it runs against or stands beside is a proposal
 * (`proposedIn`), which can be left out. Its title is a template, and follows the sentence.
 */
export function firstSetUp(kind: Kind, measure: Measure, project: Known, facts: TableFacts): Visual {
  const offer = offerFor(kind, measure, project, facts);
  const phrases: Partial<Visual> = Object.assign({}, ...kind.roles.map((role) => FIRST[role]?.(offer) ?? {}));
  const visual = newVisual({
    id: `draft-${kind.id.replaceAll(" ", "-")}`,
    name: "",
    title: titleFor(kind, phrases),
    kind: kind.id,
    value: measure.id,
    order: phrases.split?.by ? { by: "split", order: "asc" } : { by: "value", order: "desc" },
    keep: keepOf(offer, phrases.split ?? null, addsUp(measure, project)),
    size: kind.firstSize,
    ...phrases,
  });
  return { ...visual, name: freeMadeName(visual, { measures: [measure] }, []) };
}

/** Whether a first set-up says nothing of its measure: a share of the total that stands for all rows is all. */
export const saysNothing = (kind: Kind, { split }: Visual, measure: Measure, project: Known): boolean =>
  isOfTotal(measure, project) && (split === null || kind.course === true);

/**
 * The title of a visual after a change of its sentence: what a first set-up has follows it, until somebody
 * writes another.
 */
export function titleAfter(visual: Visual, change: Partial<Visual>): string {
  const made = (of: Visual) => titleFor(kindOf(of.kind), spoken(of));
  return visual.title === made(visual) ? made({ ...visual, ...change }) : visual.title;
}

/** "{measure} by {split}": captions follow the sentence until somebody writes another. */
const titleFor = (kind: Kind, { split }: Partial<Visual>) =>
  split && !kind.course ? "{measure} by {split}" : "{measure}";

/** The roles that a first set-up fills with what it only supposes. */
const PROPOSED = ["second", "comparison", "target"] as const satisfies readonly RoleId[];

/** The roles of a first set-up that are proposals. */
export const proposedIn = (visual: Visual): (typeof PROPOSED)[number][] =>
  PROPOSED.filter((role) => visual[role] !== null);

/** A first set-up with its proposals left out. */
export const withoutProposals = (visual: Visual): Visual => ({
  ...visual,
  ...Object.fromEntries(PROPOSED.map((role) => [role, null])),
});
