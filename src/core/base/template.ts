import { nearestName } from "./nearest";
import type { NumberFormat } from "./number-format";
import { formatFromText, formatNumber, PLAIN_FORMAT } from "./number-format";

/** What a name in a template stands for: a text, or a number with the format it is written in. */
export type TemplateValue = string | { value: number | null; format: NumberFormat };

/** What is wrong in a template, from one character to before another. */
export interface TemplateProblem {
  start: number;
  end: number;
  message: string;
}

const PLACE = /\{([^{}]*)\}/g;

interface Place {
  start: number;
  end: number;
  name: string;
  format: string | undefined;
}

/** The places of a template, {name} or {name:format}, found in time that grows with its length. */
function placesIn(template: string): Place[] {
  return [...template.matchAll(PLACE)].map((m) => {
    const colon = m[1].indexOf(":");
    const [name, format] = colon < 0 ? [m[1], undefined] : [m[1].slice(0, colon), m[1].slice(colon + 1)];
    return { start: m.index, end: m.index + m[0].length, name: name.trim(), format };
  });
}

/** Finds unknown names, unknown formats and unclosed braces in a template, with their places. */
export function checkTemplate(template: string, known: Iterable<string>): TemplateProblem[] {
  const names = [...known];
  const lower = new Set(names.map((n) => n.toLowerCase()));
  const problems: TemplateProblem[] = [];
  for (const { start, end, name, format } of placesIn(template)) {
    if (!lower.has(name.toLowerCase())) {
      const near = nearestName(name, names);
      const advice = near
        ? `Did you mean {${near}}?`
        : `You can use ${names
            .slice(0, 5)
            .map((n) => `{${n}}`)
            .join(", ")}.`;
      problems.push({ start, end, message: `There is nothing called “${name}” to write here. ${advice}` });
    } else if (format !== undefined && !formatFromText(format, PLAIN_FORMAT)) {
      problems.push({
        start,
        end,
        message: `“${format}” is no format. Use for example percent.1, number.0, million.1 or automatic.1.`,
      });
    }
  }
  const rest = template.replace(PLACE, (whole) => " ".repeat(whole.length));
  const brace = rest.search(/[{}]/);
  if (brace >= 0)
    problems.push({
      start: brace,
      end: brace + 1,
      message: "This brace has no partner. A name stands between { and }.",
    });
  return problems;
}

/** The longest text that a template is filled to: long texts in many places would make one without end. */
const LONGEST = 5000;

/** Fills a template in; a place whose name is unknown is a dash: no braces reach a reader. */
export function fillTemplate(template: string, values: Record<string, TemplateValue>): string {
  const places = placesIn(template);
  if (places.length === 0) return template;
  const byName = new Map(Object.entries(values).map(([name, value]) => [name.toLowerCase(), value]));
  let out = "";
  let at = 0;
  for (const { start, end, name, format } of places) {
    const value = byName.get(name.toLowerCase()) ?? "—";
    out += template.slice(at, start);
    out +=
      typeof value === "string"
        ? value
        : formatNumber(
            value.value,
            (format === undefined ? null : formatFromText(format, value.format)) ?? value.format,
          );
    at = end;
    if (out.length > LONGEST) return `${out.slice(0, LONGEST)} …`;
  }
  return out + template.slice(at);
}

/** The names a template uses. */
export function namesInTemplate(template: string): string[] {
  return placesIn(template).map((p) => p.name);
}

/** The template with a name changed. */
export function renameInTemplate(template: string, from: string, to: string): string {
  let out = "";
  let at = 0;
  for (const { start, end, name, format } of placesIn(template)) {
    if (name.toLowerCase() !== from.toLowerCase()) continue;
    out += `${template.slice(at, start)}{${to}${format === undefined ? "" : `:${format}`}}`;
    at = end;
  }
  return out + template.slice(at);
}
