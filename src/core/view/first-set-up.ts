import { findNamed } from "../base/names";
import type { Kind } from "../kinds/anatomy/kind";
import { newVisual } from "../project/defaults";
import type { RoleId } from "../project/roles";
import type { Measure, Project, Visual } from "../project/schema";

type Known = Pick<Project, "tables" | "inputs" | "measures">;

/** What a first set-up can draw on. */
interface Offer {
  kind: Kind;
  texts: string[];
  date: string | null;
  /** An input of the measure's format that is named after it, and another measure of that format. */
  goal: string | null;
  other: string | null;
}

/** The words of a label that say what it is about: "Passenger goal" is about passengers. */
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

function offerFor(kind: Kind, measure: Measure, project: Known): Offer {
  const columns = (findNamed(project.tables, measure.table)?.columns ?? []).filter((c) => !c.hidden);
  const { style } = measure.format;
  return {
    kind,
    texts: columns.filter((c) => c.reading.type === "text").map((c) => c.name),
    date: columns.find((c) => c.reading.type === "date")?.name ?? null,
    goal:
      project.inputs.find(
        (i) => i.type === "number" && i.format.style === style && namedAlike(i.label, measure.label),
      )?.id ?? null,
    other:
      project.measures.find(
        (m) => m.id !== measure.id && m.table === measure.table && m.format.style === style,
      )?.id ?? null,
  };
}

const byYear = ({ date }: Offer) => (date ? { column: date, by: "year" as const } : null);
const byText = ({ texts }: Offer, at: number) => (texts[at] ? { column: texts[at] } : null);
const against = ({ goal }: Offer) => (goal ? { input: goal } : null);

/** What the roles of a kind begin with; the others begin empty. */
const FIRST: { [R in RoleId]?: (offer: Offer) => Partial<Visual> } = {
  split: (o) => {
    if (o.kind.needsSplit) return { split: byText(o, 0) ?? byYear(o) };
    return { split: o.kind.course && o.date ? { column: o.date, by: "month" } : null };
  },
  series: (o) => (o.kind.dividedAtFirst && o.texts[0] ? { series: byYear(o) ?? byText(o, 1) } : {}),
  second: (o) => ({ second: o.other }),
  comparison: (o) => ({ comparison: against(o) }),
  target: (o) => ({ target: against(o) }),
};

/**
 * A first set-up of a kind for a measure: split where the kind needs one; what it runs against or stands
 * beside is a proposal (`proposedIn`), which can be left out. Its title is a template, and follows the sentence.
 */
export function firstSetUp(kind: Kind, measure: Measure, project: Known): Visual {
  const offer = offerFor(kind, measure, project);
  const phrases: Partial<Visual> = Object.assign({}, ...kind.roles.map((role) => FIRST[role]?.(offer) ?? {}));
  return newVisual({
    id: `draft-${kind.id.replaceAll(" ", "-")}`,
    name: measure.label,
    title: titleFor(kind, phrases),
    kind: kind.id,
    value: measure.id,
    order: kind.course ? { by: "split", order: "asc" } : { by: "value", order: "desc" },
    keep: kind.needsSplit ? { first: 6, others: measure.format.style !== "percent" } : null,
    size: kind.firstSize,
    ...phrases,
  });
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
