import { findNamed } from "../base/names";
import { fixedDecimals, formatNumber } from "../base/number-format";
import type { Value } from "../base/value";
import { checkFormula } from "../formula/check";
import type { QueryInput, Result } from "../plan/query";
import { homeTableOf } from "../project/home-table";
import { type Named, scopeOf } from "../project/names";
import { measuresOf } from "../project/roles";
import type { Measure, Proof, Visual } from "../project/schema";
import { groupLabel, type Wording, wordingOf } from "../rows/key-labels";

/** Whether a proof holds, and why, in words. `holds` is null while it lacks a part or its answer. */
export interface ProofOutcome {
  holds: boolean | null;
  text: string;
}

const otherOf = (proof: Proof, project: Named) =>
  proof.type === "same total" ? project.measures.find((m) => m.id === proof.measure) : undefined;

/** The query that settles a proof, or null while the proof lacks a part. */
export function proofQuery(measure: Measure, proof: Proof, project: Named): QueryInput | null {
  const table = homeTableOf(measure, project);
  const base: QueryInput = {
    ...(table === null ? {} : { table }),
    measures: [{ id: measure.name, as: "value" }],
  };
  if (proof.type === "between") return { ...base, splits: proof.split ? [proof.split] : [] };
  if (proof.type === "equals") return { ...base, filters: proof.filters };
  const other = otherOf(proof, project);
  return other ? { ...base, measures: [...base.measures, { id: other.name, as: "other" }] } : null;
}

const isNumber = (value: Value | undefined): value is number => typeof value === "number";

function betweenOutcome(
  measure: Measure,
  proof: Extract<Proof, { type: "between" }>,
  result: Result,
  wording: Wording,
): ProofOutcome {
  const write = (n: number) => formatNumber(n, measure.format);
  const { from, to, split } = proof;
  if (from === null && to === null) return { holds: null, text: "Give it a limit." };
  const column = result.columns.find((c) => c.name === "value");
  const keys = split ? result.columns[0].values : [null];
  const label = (i: number) =>
    split ? groupLabel(keys[i], result.noMatch?.row === i, split.by, wording) : measure.label;
  let [outside, counted] = [0, 0];
  let worst: { text: string; by: number } | null = null;
  for (const [i, value] of (column?.values ?? []).entries()) {
    if (value === null) continue;
    if (!isNumber(value)) return { holds: false, text: `${measure.label} is no number.` };
    counted++;
    const by = Math.max(from === null ? 0 : from - value, to === null ? 0 : value - to);
    if (by <= 0) continue;
    outside++;
    if (!worst || by > worst.by)
      worst = {
        by,
        text: `${label(i)} is ${write(value)}, ${from !== null && value < from ? `below ${write(from)}` : `above ${write(to as number)}`}`,
      };
  }
  if (worst)
    return {
      holds: false,
      text: outside > 1 ? `${worst.text}; ${outside} of ${counted} are outside` : worst.text,
    };
  return {
    holds: true,
    text: split
      ? `passes for all ${counted}`
      : `passes: ${counted ? write(result.totals.value as number) : "no value"}`,
  };
}

/** Settles a proof by the answer to its query. A value that is missing proves nothing and fails. */
export function proofOutcome(
  measure: Measure,
  proof: Proof,
  answer: Result | { error: string } | null,
  project: Named,
): ProofOutcome {
  if (proof.type === "same total" && !otherOf(proof, project))
    return { holds: null, text: "Choose the other measure." };
  if (answer === null) return { holds: null, text: "…" };
  if ("error" in answer) return { holds: false, text: answer.error };
  if (proof.type === "between") return betweenOutcome(measure, proof, answer, wordingOf(project));
  const write = (n: number) =>
    formatNumber(n, {
      ...measure.format,
      units: "none",
      decimals: Math.max(fixedDecimals(measure.format), 2),
    });
  const { value } = answer.totals;
  const expected = proof.type === "equals" ? proof.value : answer.totals.other;
  const what = proof.type === "equals" ? "" : `${otherOf(proof, project)?.label} `;
  const why = answer.unanswered.length ? `: ${answer.unanswered[0]}` : "";
  if (!isNumber(value)) return { holds: false, text: `${measure.label} has no value here${why}` };
  if (!isNumber(expected)) return { holds: false, text: `${what}has no value here` };
  if (Math.abs(value - expected) <= proof.tolerance) return { holds: true, text: `passes: ${write(value)}` };
  return {
    holds: false,
    text: `is ${write(value)}, not ${what}${write(expected)}; off by ${write(Math.abs(value - expected))}`,
  };
}

/** The measures that a visual shows or that stand behind those, by id. */
export function measuresBehind(visual: Visual, project: Named): Set<string> {
  const scope = scopeOf(project);
  const found = new Set<string>();
  const queue = measuresOf(visual);
  for (let id = queue.shift(); id !== undefined; id = queue.shift()) {
    const measure = project.measures.find((m) => m.id === id);
    if (!measure || found.has(measure.id)) continue;
    found.add(measure.id);
    const { uses } = checkFormula(measure.formula, scope, measure.table, "group", measure.name);
    queue.push(...uses.measures.flatMap((name) => findNamed(project.measures, name)?.id ?? []));
  }
  return found;
}
