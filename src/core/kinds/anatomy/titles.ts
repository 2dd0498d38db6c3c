import { fillTemplate } from "../../base/template";
import type { VisualData } from "../../rows/visual-data";
import type { SharedInput } from "./shared-parts";

/** The measures that a visual draws, in the order of its sentence: "Passengers and Seats". */
export function measuresNamed({ rows, series, second, valueLabel, words }: VisualData): string {
  const several = [series, rows].find((entries) => entries.some((e) => e.format));
  const own = several ? several.map((e) => e.label) : [valueLabel];
  const labels = [...own, ...(second ? [second.label] : [])];
  const last = labels.length > 1 ? ` ${words.and} ${labels[labels.length - 1]}` : "";
  return labels.slice(0, last ? -1 : undefined).join(", ") + last;
}

/** A text above the picture: it is about all that is drawn, so that it names every measure. */
const written = ({ data }: SharedInput, template: string): string =>
  fillTemplate(template, { ...data.names, measure: measuresNamed(data) }).trim();

/** The title as it is written; empty where there is none. */
export const writtenTitle = (input: SharedInput): string => written(input, input.data.title);

/** The subtitle as it is written; empty where there is none. */
export const writtenSubtitle = (input: SharedInput): string => written(input, input.data.subtitle);

/** The title as it is written, or what is shown. */
export const titleOf = (input: SharedInput): string => writtenTitle(input) || measuresNamed(input.data);
