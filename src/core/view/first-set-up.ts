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
  /** A number among the inputs, and another measure, of the measure's own format. */
  goal: string | null;
  other: string | null;
}

function offerFor(kind: Kind, measure: Measure, project: Known): Offer {
  const columns = (findNamed(project.tables, measure.table)?.columns ?? []).filter((c) => !c.hidden);
  const { style } = measure.format;
  return {
    kind,
    texts: columns.filter((c) => c.reading.type === "text").map((c) => c.name),
    date: columns.find((c) => c.reading.type === "date")?.name ?? null,
    goal: project.inputs.find((i) => i.type === "number" && i.format.style === style)?.id ?? null,
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
 * A first set-up of a kind for a measure: split where the kind needs one, against an input where one of its
 * format exists.
 */
export function firstSetUp(kind: Kind, measure: Measure, project: Known): Visual {
  const offer = offerFor(kind, measure, project);
  const phrases = kind.roles.map((role) => FIRST[role]?.(offer) ?? {});
  return newVisual({
    id: `draft-${kind.id.replaceAll(" ", "-")}`,
    name: measure.label,
    title: measure.label,
    kind: kind.id,
    value: measure.id,
    order: kind.course ? { by: "split", order: "asc" } : { by: "value", order: "desc" },
    keep: kind.needsSplit ? { first: 6, others: measure.format.style !== "percent" } : null,
    size: kind.firstSize,
    ...(Object.assign({}, ...phrases) as Partial<Visual>),
  });
}
