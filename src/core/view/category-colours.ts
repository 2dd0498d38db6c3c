import { Colours } from "../kinds/anatomy/colours";
import type { Visual } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import { type Design, sceneInput, styleOf } from "./picture";

/**
 * The colours that the categories of a visual's split and series have in it now, by label; what was put
 * together has none of its own.
 */
export function categoryColoursOf(
  visual: Visual,
  data: VisualData,
  design: Design,
): { label: string; color: string }[] {
  if (data.problem !== null) return [];
  if (!styleOf(visual, design).has("colours.by")) return [];
  const input = sceneInput(visual, data, design);
  const colours = new Colours(input as unknown as ConstructorParameters<typeof Colours>[0]);
  const all = [
    ...data.rows.map((row, i) => ({ ...row, color: colours.of(row, i) })),
    ...data.series.map((entry, i) => ({ ...entry, color: colours.series(i) })),
  ];
  const named = new Map(all.filter((one) => one.groups === 0).map(({ label, color }) => [label, color]));
  return [...named].map(([label, color]) => ({ label, color }));
}
