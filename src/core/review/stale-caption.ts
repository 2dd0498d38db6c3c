import { sameName } from "../base/names";
import { namesInTemplate } from "../base/template";
import { change, type ReviewRule } from "./finding";

const holds = (text: string, label: string) =>
  label.length > 3 &&
  new RegExp(
    `(^|[^\\p{L}\\p{N}])${label.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}($|[^\\p{L}\\p{N}])`,
    "iu",
  ).test(text);

/** A fixed title that names another measure than the one that is shown. */
export const staleCaption: ReviewRule = {
  id: "stale caption",
  look: (facts) => {
    const { visual, measure, project, data } = facts;
    if (namesInTemplate(visual.title).length > 0 || holds(visual.title, measure.label)) return null;
    const shown = new Set([visual.value, visual.second, visual.headSize, ...visual.more]);
    const columns = project.tables.flatMap((t) => [...t.columns, ...t.derived].map((c) => c.name));
    const other = project.measures.find(
      (m) =>
        !shown.has(m.id) &&
        holds(visual.title, m.label) &&
        !holds(measure.label, m.label) &&
        !columns.some((c) => sameName(c, m.label)),
    );
    if (!other) return null;
    return {
      text: `The title says ${other.label}, and the picture shows ${measure.label}.`,
      why: "A reader takes the one for the other.",
      mend: change("Let the title follow the sentence", facts, {
        title: data.splitLabel === null ? "{measure}" : "{measure} by {split}",
      }),
    };
  },
};
