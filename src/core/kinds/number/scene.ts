import { formatNumber } from "../../base/number-format";
import { fillTemplate, type TemplateValue } from "../../base/template";
import { rowKey } from "../../rows/row-key";
import type { DrawnRule } from "../../rows/visual-data";
import { plainRow, type VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark, Scene, Text } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, shorten, textWidth, type Weight } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { rowDatum } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { emptyScene, layFrame } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { symbolMark } from "../anatomy/symbol";
import { textMark } from "../anatomy/text-mark";
import { titleOf } from "../anatomy/titles";
import { namesFor } from "../anatomy/visual-reading";
import { type Change, changeOf } from "./change";
import type { NumberCardPart } from "./parts";
import { sparkMarks } from "./spark";

type Input = SceneInput<NumberCardPart>;

/** The lines under a number are so many times their size apart. */
const LEADING = 1.4;

interface Laid {
  marks: Mark[];
  colours: Colours;
  value: number;
  row: VisualRow;
  /** The box of the number and its lines, and where they stand in it. */
  box: Box;
  align: Text["align"];
  x: number;
  top: number;
  main: { text: string; size: number };
  /** The lines under it, as far as there is room, and their size. */
  small: number;
  change: Change | null;
  rule: DrawnRule | null;
  caption: string;
  /** Where the course over time stands; null where it has no place. */
  course: Box | null;
}

/** The course stands beside the number or under it, where the body has room. */
function layCourse({ data, style }: Input, body: Box): { box: Box; course: Box | null } {
  const isOver = data.splitLabel !== null && data.rows.length > 1;
  if (!isOver || style.choice("spark.form") === "none" || body.width < 90) return { box: body, course: null };
  const { x, y, width, height } = body;
  if (style.choice("layout.of") === "right" && width >= 180)
    return {
      box: { ...body, width: width * 0.52 },
      course: { x: x + width * 0.56, y: y + height * 0.15, width: width * 0.44, height: height * 0.7 },
    };
  if (height < 84) return { box: body, course: null };
  const tall = Math.min(height * 0.42, 90);
  return {
    box: { ...body, height: height - tall },
    course: { x, y: y + height - tall + 6, width, height: tall - 6 },
  };
}

/** The number itself: as large as the lines under it leave room for. */
function layNumber({ style }: Input, names: Record<string, TemplateValue>[], box: Box, lines: number) {
  const wanted = Math.max(SMALLEST, Math.min(style.number("reading.size"), (box.height - lines) * 0.82));
  const texts = names.map((n) => fillTemplate(style.template("reading.text"), n));
  return fitText(texts, box.width, wanted, 700, 0.6);
}

function lay(input: Input): Laid {
  const { data, style } = input;
  const value = data.total ?? 0;
  const { marks, body } = layFrame(input);
  const colours = new Colours(input);
  const row = { ...(data.rows[0] ?? plainRow(rowKey({ type: "whole" }), data.valueLabel, value)), value };
  const { box, course } = layCourse(input, body);
  const now = { value, format: data.format };
  const names = namesFor(input, { value: now, total: now });
  const small = Math.max(SMALLEST, Math.min(style.number("change.size"), box.height * 0.22));
  const change = box.height >= 44 ? changeOf(input, value) : null;
  const rule = box.height >= 60 ? colours.ruleOf(row) : null;
  const caption = box.height >= 70 ? fillTemplate(style.template("reading.caption"), names[0]).trim() : "";
  const lines = [change, rule, caption].filter(Boolean).length * small * LEADING;
  const main = layNumber(input, names, box, lines);
  const top = box.y + Math.max(0, (box.height - main.size * LINE_HEIGHT - lines) / 2);
  const align = style.choice("layout.align") === "middle" ? "middle" : "start";
  const x = align === "middle" ? box.x + box.width / 2 : box.x;
  return { marks, colours, value, row, box, align, x, top, main, small, change, rule, caption, course };
}

function numberMark(input: Input, { main, x, top, align, row }: Laid): Mark {
  const y = top + (main.size * LINE_HEIGHT) / 2;
  const line = { x, y, ...main, weight: 700, fill: input.theme.ink, align } as const;
  const whole = { ...row, key: rowKey({ type: "whole" }), label: input.data.valueLabel };
  return { ...textMark("reading", "reading", line), datum: rowDatum(input, whole) };
}

/** A line of text under the number; `indent` leaves room for a symbol before it. */
function lineMark(
  { box, x, align, small }: Laid,
  id: string,
  y: number,
  { text, weight, fill }: { text: string; weight: Weight; fill: string },
  indent = 0,
): Mark[] {
  const fitted = fitText([text], box.width - indent, small, weight);
  const left = x + (align === "middle" ? 0 : indent);
  return fitted.text ? [textMark(id, "reading", { x: left, y, ...fitted, weight, fill, align })] : [];
}

const ARROWS = { up: "triangle", down: "triangle down", level: "square" } as const;

/** An arrow, the change, and what it is against, as far as the line has room. */
function changeMarks(
  { style, theme }: Input,
  { box, x, align, small }: Laid,
  change: Change,
  y: number,
): Mark[] {
  const { direction, text, tone } = change;
  const said = textWidth(text, small, 600);
  const [size, arrow] = [small * 0.88, small * 0.34];
  const named = style.toggle("change.name") ? change.against : "";
  const against = shorten(named, box.width - said - small * 1.9, size, 400);
  const isSaid = said + small * 1.1 <= box.width;
  const beyond = against ? small * 0.5 + textWidth(against, size, 400) : 0;
  const width = isSaid ? small * 1.1 + said + beyond : 2 * arrow;
  const left = align === "middle" ? x - width / 2 : x;
  const r = direction === "level" ? arrow * 0.6 : arrow;
  const symbol = symbolMark("direction", "change", ARROWS[direction], { x: left + arrow, y, r, fill: tone });
  const line = { x: left + small * 1.1, y, text, size: small, weight: 600, fill: tone } as const;
  const beside = { x: left + small * 1.6 + said, y, text: against, size, weight: 400, fill: theme.muted };
  return [
    ...(symbol ? [symbol] : []),
    ...(isSaid ? [textMark("change", "change", line)] : []),
    ...(isSaid && against && size >= SMALLEST
      ? [textMark("against", "change", { ...beside, weight: 400 })]
      : []),
  ];
}

/** The symbol and the word of the rule that holds. */
function ruleMarks({ theme }: Input, laid: Laid, rule: DrawnRule, y: number): Mark[] {
  const { x, align, small } = laid;
  const left = align === "middle" ? x - textWidth(rule.word, small, 600) / 2 - small * 0.6 : x + small * 0.36;
  const form = rule.symbol === "none" ? "circle" : rule.symbol;
  const place = { x: left, y, r: small * 0.36, fill: rule.color };
  const symbol = symbolMark("rulesymbol", "reading", form, place);
  const line = { text: rule.word, weight: 600, fill: theme.ink } as const;
  return [...(symbol ? [symbol] : []), ...lineMark(laid, "ruleword", y, line, small * 1.1)];
}

function draw(input: Input, laid: Laid): Mark[] {
  const { style, theme } = input;
  const { change, rule, caption, small, course } = laid;
  const under = [
    change && ((y: number) => changeMarks(input, laid, change, y)),
    rule && ((y: number) => ruleMarks(input, laid, rule, y)),
    caption &&
      ((y: number) => lineMark(laid, "caption", y, { text: caption, weight: 400, fill: theme.muted })),
  ].filter((line) => typeof line === "function");
  const first = laid.top + laid.main.size * LINE_HEIGHT + small * 0.7;
  return [
    ...laid.marks,
    ...(style.toggle("reading.shown") ? [numberMark(input, laid)] : []),
    ...under.flatMap((line, k) => line(first + k * small * LEADING)),
    ...(course ? sparkMarks(input, course, laid.colours) : []),
  ];
}

function say(input: Input, { value }: Laid): string {
  const { data } = input;
  const write = (n: number | null) => formatNumber(n, data.format);
  const [first, last] = [data.rows[0], data.rows[data.rows.length - 1]];
  const isOver = data.splitLabel !== null && data.rows.length > 1;
  const course = isOver
    ? `, over ${data.rows.length} steps from ${write(first.value)} to ${write(last.value)}`
    : "";
  const change = changeOf(input, value);
  return `${titleOf(input)}: ${data.valueLabel} ${write(value)}${change ? `, ${change.text} ${change.against}` : ""}${course}.`;
}

/** The scene of a number that is none. */
function blank(input: Input): Scene | null {
  const { data, style } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  return data.total === null ? emptyScene(input, style.template("frame.empty")) : null;
}

/** One number, how it changed, and its course. */
export const numberCardScene = drawing<Input, Laid>({ blank, lay, draw, handles: () => [], say });
