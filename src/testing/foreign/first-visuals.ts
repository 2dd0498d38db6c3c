import type { Table } from "../../core/data/column";
import { runQueries } from "../../core/engine/run";
import { KINDS } from "../../core/kinds";
import { querySchema, type Result } from "../../core/plan/query";
import { QueryError } from "../../core/plan/query-error";
import { scopeOf } from "../../core/project/names";
import {
  emptyProject,
  type Measure,
  type Project,
  type TableInfo,
  type Visual,
} from "../../core/project/schema";
import { review } from "../../core/review";
import type { VisualData, VisualRow } from "../../core/rows/visual-data";
import { THEMES } from "../../core/scene/colour";
import type { Scene } from "../../core/scene/marks";
import { factsQuery, readFacts, type TableFacts } from "../../core/view/column-facts";
import { firstSetUp } from "../../core/view/first-set-up";
import { sceneOf } from "../../core/view/picture";
import { proposedMeasures } from "../../core/view/proposed-measures";
import { answeredData } from "../answered";
import { faults } from "../craft/faults";
import { misnamed } from "../craft/named";
import { unshown } from "../craft/shown";
import { tornNumbers } from "../craft/torn-numbers";

/** Sizes besides a visual's first. */
const SMALL = { width: 160, height: 120 };

/** What a first visual is never accused of: all of it would be the doing of who proposed it. */
const NEVER = new Set([
  "summed share",
  "hundredfold percent",
  "percents for shares",
  "shares for percents",
  "numbers alike",
  "own targets",
  "target out of reach",
  "past the scale",
  "broken zones",
  "zones off the scale",
  "stale caption",
  "time out of order",
]);

/** Whether the parts of a measure make its whole, by what it adds: sums and counts, and nothing else proposed. */
const doesAdd = ({ formula }: Measure): boolean => /^(sum\(|count\(\*\)$)/.test(formula);

/** Rows whose values differ by more than a hundredth of the largest and whose labels at their ends are alike. */
function writtenAlike(rows: VisualRow[], scene: Scene): string[] {
  const most = Math.max(0, ...rows.map((r) => Math.abs(r.value ?? 0)));
  const labelled = rows.flatMap(({ key, value, label }) => {
    const mark = scene.marks.find((m) => m.type === "text" && m.id === `label:${key}`);
    return mark?.type === "text" && value !== null ? [{ text: mark.text, value, label }] : [];
  });
  return labelled.flatMap((one, i) =>
    labelled.slice(i + 1).flatMap((other) => {
      const isAlike = /\d/.test(one.text) && one.text === other.text;
      const differs = Math.abs(one.value - other.value) > most / 100;
      return isAlike && differs ? [`${one.label} and ${other.label} are both written ${one.text}`] : [];
    }),
  );
}

/** Whether all categories are names: numbers among them cannot be told from values by how they look. */
const areNames = ({ rows, series }: VisualData): boolean =>
  [...rows, ...series].every(({ label }) => /^\p{L}[^\d]*$/u.test(label));

function wrongIn(visual: Visual, data: VisualData, measure: Measure, project: Project): string[] {
  if (data.problem !== null) return [`says “${data.problem}”`];
  const found: string[] = [];
  for (const size of [visual.size, SMALL]) {
    const scene = sceneOf(visual, data, undefined, { size });
    const at = `${size.width} x ${size.height}: `;
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    found.push(
      ...faults(scene, scene.background ?? THEMES[scene.theme].sheet).map((f) => at + f),
      ...tornNumbers(scene).map((f) => at + f),
      ...unshown(visual, data, scene).map((f) => at + f),
      ...(size === visual.size && areNames(data) ? misnamed(data, scene).map((f) => at + f) : []),
      ...writtenAlike(data.rows, scene).map((f) => at + f),
      ...(doesAdd(measure) && [...texts, scene.description].some((t) => t.includes(data.words.notAdditive))
        ? [`${at}accuses a sum of not adding up`]
        : []),
      ...(texts.some((t) => /NaN|Infinity|undefined|\[object/.test(t))
        ? [`${at}writes what is no number`]
        : []),
    );
  }
  const findings = review({ visual, project, design: project, data, proofs: [], stands: [] });
  const accused = findings.filter(
    (f) => NEVER.has(f.rule) || (f.rule === "parts that do not add up" && doesAdd(measure)),
  );
  return [...found, ...accused.map((f) => `is accused: ${f.text}`)];
}

function factsOf(project: Project, table: Table): TableFacts {
  const query = factsQuery(project, table.name);
  if (!query) return new Map();
  const catalog = { tables: [table], inputs: {}, scope: scopeOf(project) };
  const [answer] = runQueries([querySchema.parse(query)], catalog);
  if (answer instanceof QueryError) throw answer;
  return readFacts(project, table.name, answer as Result);
}

/**
 * What is wrong with the first visuals of a table: of every measure that is proposed for it, in every kind,
 * in sentences. `keeps` says which measures are tried, by their place.
 */
export function wrongWithFirstVisuals(
  table: Table,
  info: TableInfo,
  keeps: (at: number) => boolean = () => true,
): { drawn: number; wrong: string[] } {
  const empty: Project = { ...emptyProject("P"), tables: [info] };
  const measures = proposedMeasures(empty);
  const project: Project = { ...empty, measures };
  const facts = factsOf(project, table);
  const wrong: string[] = [];
  let drawn = 0;
  for (const [at, measure] of measures.entries()) {
    if (!keeps(at)) continue;
    for (const kind of KINDS) {
      const visual = firstSetUp(kind, measure, project, facts);
      drawn++;
      const where = `${measure.formula} as ${kind.label}`;
      try {
        const data = answeredData(visual, project, [table]);
        wrong.push(...wrongIn(visual, data, measure, project).map((what) => `${where}: ${what}`));
      } catch (error) {
        wrong.push(`${where}: ${error instanceof Error ? error.message : error}`);
      }
    }
  }
  return { drawn, wrong };
}
