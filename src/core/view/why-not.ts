import type { QueryInput } from "../plan/query";
import { unansweredIn } from "../project/answerable";
import type { Named } from "../project/names";
import { measuresOf, numberSources, rowMeasuresOf } from "../project/roles";
import type { Visual } from "../project/schema";
import { whyNoSize } from "./drawable";
import { answersTo } from "./picks";
import { toQuery } from "./query";

/** What a visual asks. In what order its categories stand by hand has no say in whether that can be answered. */
const asks = (visual: Visual, project: Named): QueryInput | null =>
  toQuery(visual, { ...project, categories: [] });

/**
 * Why a change of a visual's sentence could not be answered, in a sentence: the whole picture, or what the
 * change asks for besides. Null where it can.
 */
export function whyNot(visual: Visual, change: Partial<Omit<Visual, "id">>, project: Named): string | null {
  const next = { ...visual, ...change };
  const sizes = [
    ...rowMeasuresOf(next),
    ...numberSources(next).flatMap((s) => ("measure" in s ? s.measure : [])),
  ];
  for (const id of sizes) {
    const measure = measuresOf(visual).includes(id) ? undefined : project.measures.find((m) => m.id === id);
    const why = measure && whyNoSize(measure, project);
    if (why) return `${measure.label} ${why}.`;
  }
  const query = asks(next, project);
  if (!query) return null;
  const { isWhole, why } = unansweredIn(query, project);
  if (isWhole || why.length === 0) return why[0] ?? null;
  const before = asks(visual, project);
  const known = before ? unansweredIn(before, project).why : [];
  return why.find((reason) => !known.includes(reason)) ?? null;
}

/** Why rows or series do not stand in the order that the sentence says; null where they do. */
export function whyNotInOrder(visual: Visual, field: "order" | "seriesOrder", project: Named): string | null {
  const order = visual[field];
  if (!order || typeof order.by === "string") return null;
  if ("column" in order.by && !answersTo(visual, order.by.column, project))
    return `The value's rows have no column ${order.by.column} any more.`;
  return whyNot({ ...visual, [field]: { by: "value", order: order.order } }, { [field]: order }, project);
}
