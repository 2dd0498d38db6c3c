import { nearestName } from "../formula/nearest";
import type { NumberFormat } from "../project/schema";
import { formatFromText, formatNumber } from "./number-format";

/** What a name in a template stands for: a text, or a number with the format it is written in. */
export type TemplateValue = string | { value: number | null; format: NumberFormat };

export interface TemplateProblem {
  start: number;
  end: number;
  message: string;
}

const PLACE = /\{\s*([^{}:]*?)\s*(?::([^{}]*))?\}/g;

/** Finds unknown names, unknown formats and unclosed braces in a template, with their places. */
export function checkTemplate(template: string, known: Iterable<string>): TemplateProblem[] {
  const names = [...known];
  const problems: TemplateProblem[] = [];
  for (const m of template.matchAll(PLACE)) {
    const span = { start: m.index, end: m.index + m[0].length };
    if (!names.some((n) => n.toLowerCase() === m[1].toLowerCase())) {
      const near = nearestName(m[1], names);
      problems.push({
        ...span,
        message: `There is nothing called “${m[1]}” to write here.${
          near
            ? ` Did you mean {${near}}?`
            : ` You can use ${names
                .slice(0, 5)
                .map((n) => `{${n}}`)
                .join(", ")}.`
        }`,
      });
    } else if (m[2] !== undefined && !formatFromText(m[2], { style: "number", decimals: 0, units: "none", currency: "EUR", prefix: "", suffix: "", locale: "plain" })) {
      problems.push({ ...span, message: `“${m[2]}” is no format. Use for example percent.1, number.0, million.1 or automatic.1.` });
    }
  }
  const rest = template.replace(PLACE, (whole) => " ".repeat(whole.length));
  const brace = rest.search(/[{}]/);
  if (brace >= 0) problems.push({ start: brace, end: brace + 1, message: "This brace has no partner. A name stands between { and }." });
  return problems;
}

/** Fills a template in; a place whose name is unknown stays as it is written, so that it is seen. */
export function fillTemplate(template: string, values: Record<string, TemplateValue>): string {
  return template.replace(PLACE, (whole, name: string, format: string | undefined) => {
    const key = Object.keys(values).find((k) => k.toLowerCase() === name.toLowerCase());
    if (key === undefined) return whole;
    const value = values[key];
    if (typeof value === "string") return value;
    return formatNumber(value.value, (format === undefined ? null : formatFromText(format, value.format)) ?? value.format);
  });
}

/** The names a template uses. */
export function namesInTemplate(template: string): string[] {
  return [...template.matchAll(PLACE)].map((m) => m[1]);
}
