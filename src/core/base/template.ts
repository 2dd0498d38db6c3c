import { cutText } from "./cut-text";
import { writeByPattern, writesDays } from "./date-pattern";
import { nearestName } from "./nearest";
import type { NumberFormat } from "./number-format";
import { formatFromText, formatNumber, PLAIN_FORMAT } from "./number-format";

/** A day, or a stretch from one to another (ISO 8601), with how it is written where no format is asked for. */
export interface DaySpan {
  from: string;
  to: string;
  text: string;
}
/** What a name in a template stands for: a text, a number with the format it is written in, or days. */
export type TemplateValue = string | { value: number | null; format: NumberFormat } | DaySpan;
/** The names that a template can write, with what they stand for. */
export type TemplateNames = Readonly<Record<string, TemplateValue>>;

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

/** Why a format does not fit what a name stands for, and what would; null where it fits. */
function formatProblem(format: string, value: TemplateValue): string | null {
  if (typeof value === "string")
    return "It is a text, which has no format. Leave out the colon and what follows.";
  if ("from" in value)
    return writesDays(format)
      ? null
      : `“${format}” is no way to write a date. Use for example dd MMM yyyy, MMM yyyy or YYYY-'W'ww.`;
  // What has no value yet may turn out to be a day.
  const canBe = formatFromText(format, PLAIN_FORMAT) || (value.value === null && writesDays(format));
  return canBe
    ? null
    : `“${format}” is no format. Use for example percent.1, number.0, million.1 or automatic.1.`;
}

/** Finds unknown names, unknown formats and unclosed braces in a template, with their places. */
export function checkTemplate(template: string, known: TemplateNames): TemplateProblem[] {
  const names = Object.keys(known);
  const byName = new Map(Object.entries(known).map(([name, value]) => [name.toLowerCase(), value]));
  const problems: TemplateProblem[] = [];
  for (const { start, end, name, format } of placesIn(template)) {
    const value = byName.get(name.toLowerCase());
    const wrong = value !== undefined && format !== undefined ? formatProblem(format, value) : null;
    if (value === undefined) {
      const near = nearestName(name, names);
      const advice = near
        ? `Did you mean {${near}}?`
        : `You can use ${names
            .slice(0, 5)
            .map((n) => `{${n}}`)
            .join(", ")}.`;
      problems.push({ start, end, message: `There is nothing called “${name}” to write here. ${advice}` });
    } else if (wrong) problems.push({ start, end, message: wrong });
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

/** What a name stands for, as a format has it written; as it is without one, and where the format is none. */
function writtenAs(value: TemplateValue, format: string | undefined): string {
  if (typeof value === "string") return value;
  if ("from" in value) {
    const days = format === undefined ? [] : [value.from, value.to].map((d) => writeByPattern(d, format));
    const written = days.filter((d) => d !== null);
    return written.length === 2 ? [...new Set(written)].join(" – ") : value.text;
  }
  const wanted = format === undefined ? null : formatFromText(format, value.format);
  return formatNumber(value.value, wanted ?? value.format);
}

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
    out += writtenAs(value, format);
    at = end;
    if (out.length > LONGEST) return `${cutText(out, LONGEST)} …`;
  }
  return out + template.slice(at);
}

/** The names a template uses. */
export function namesInTemplate(template: string): string[] {
  return placesIn(template).map((p) => p.name);
}

/** The place that is being written before a caret: where its name or its format begins, and what is there. */
export function openPlace(
  template: string,
  caret: number,
): { from: number; typed: string; name: string | null } | null {
  const before = template.slice(0, caret);
  const open = before.lastIndexOf("{");
  if (open < 0 || before.indexOf("}", open) >= 0) return null;
  const colon = before.indexOf(":", open);
  const from = (colon < 0 ? open : colon) + 1;
  return {
    from,
    typed: before.slice(from),
    name: colon < 0 ? null : before.slice(open + 1, colon).trim(),
  };
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
