import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Handle, Mark, Scene, Text } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, wrap } from "../../scene/text";
import { ruleWords } from "./colours";
import { LABELS } from "./labels";
import type { SharedInput } from "./shared-parts";
import { textMark } from "./text-mark";
import { writtenSubtitle, writtenTitle } from "./titles";

/**
 * Lays out what surrounds a kind's drawing: background, title and subtitle. Small frames drop the subtitle,
 * then the title.
 */
export function layFrame(input: SharedInput): { marks: Mark[]; body: Box } {
  const { frame, style } = input;
  const { width, height } = frame;
  const padding = Math.min(style.number("frame.padding"), 0.08 * Math.min(width, height) + 2);
  const marks: Mark[] = [];
  let top = padding;
  if (style.toggle("heading.shown")) {
    const size = style.number("heading.size");
    const lines = headingLines(
      input,
      "title",
      writtenTitle(input),
      size,
      height >= 100 ? (height >= 220 ? 2 : 1) : 0,
    );
    const under = headingLines(input, "subtitle", writtenSubtitle(input), size * 0.83, height >= 160 ? 1 : 0);
    top = stack(lines, top, marks);
    if (under.length) top = stack(under, top + 3, marks);
    if (marks.length) top += Math.min(10, height * 0.03);
  }
  const body = {
    x: padding,
    y: top,
    width: width - 2 * padding,
    height: Math.max(1, height - padding - top),
  };
  if (!input.countsNames || body.height < UNNAMED_FROM) return { marks, body };
  const noted = footLine(body, input.theme, unnamedText(input, 1), UNNAMED);
  return { marks: [...marks, ...noted.marks], body: noted.body };
}

/** The mark that counts the names that are missing, and what it says. */
export const UNNAMED = "unnamed";
export const unnamedText = ({ data }: SharedInput, count: number): string => `${count} ${data.words.noNames}`;
/** A body of this height has room to say how many names are missing. */
const UNNAMED_FROM = 44;

/** The lines of a title or a subtitle, so many at most; each is placed when those before it are. */
function headingLines(
  { frame, style, theme }: SharedInput,
  part: "title" | "subtitle",
  text: string,
  wanted: number,
  most: number,
): Text[] {
  if (!text || most === 0) return [];
  const { width, height } = frame;
  const padding = Math.min(style.number("frame.padding"), 0.08 * Math.min(width, height) + 2);
  const size = Math.max(SMALLEST, Math.min(wanted, height * 0.09));
  const look =
    part === "title"
      ? ({ weight: 600, fill: theme.ink } as const)
      : ({ weight: 400, fill: theme.muted } as const);
  const isMiddle = style.choice("heading.align") === "middle";
  const place = { x: isMiddle ? width / 2 : padding, y: 0, align: isMiddle ? "middle" : "start" } as const;
  return wrap(text, width - 2 * padding, size, look.weight, most).map((line, i) =>
    textMark(`${part}${i}`, "heading", { ...place, text: line, size, ...look }),
  );
}

/** Puts lines under each other from a top edge; gives the edge under the last. */
function stack(lines: Text[], top: number, marks: Mark[]): number {
  let y = top;
  for (const line of lines) {
    marks.push({ ...line, y: y + (line.size * LINE_HEIGHT) / 2 });
    y += line.size * LINE_HEIGHT;
  }
  return y;
}

/**
 * How many rows have no mark, in words, where others have: what does not fit, or is too small to draw. Values
 * below zero count where the kind draws such.
 */
function unseenWords({ data, surface, downwards }: SharedInput, marks: Mark[]): string {
  const shown = surface.seen(marks).flatMap((m) => m.shows ?? []);
  const seen = new Set(shown.map((s) => s.row));
  const wanted = data.rows.filter((r) => (r.value ?? 0) > 0 || (downwards && (r.value ?? 0) < 0));
  const unseen = wanted.filter((r) => !seen.has(r.key)).length;
  return seen.size > 0 && unseen > 0 ? ` ${unseen} not shown.` : "";
}

/**
 * Puts a scene together from its frame and its marks. The description also says what rules mean, and how many
 * rows are not shown.
 */
export function frameScene(input: SharedInput, marks: Mark[], handles: Handle[], description: string): Scene {
  const rules = ruleWords(input);
  const { frame, theme, style } = input;
  return {
    theme: theme.name,
    ...frame,
    background: style.toggle("frame.filled") ? theme.sheet : null,
    border: style.toggle("frame.border")
      ? { color: theme.rule, radius: style.number("frame.radius") }
      : { color: "none", radius: style.number("frame.radius") },
    family: style.choice("type.family"),
    motion: { entry: style.number("motion.entry"), change: style.number("motion.change") },
    marks: input.surface.apply(
      labelsColoured(
        input,
        marks.filter((m) => m.type !== "text" || m.text !== ""),
      ),
    ),
    handles,
    description: description + (rules ? ` By rule: ${rules}.` : "") + unseenWords(input, marks),
  };
}

/** Labels in the colour that was set for them; without one each has the colour that reads where it stands. */
function labelsColoured({ style }: SharedInput, marks: Mark[]): Mark[] {
  const color = style.within(LABELS)?.colour("labels.colour", "") ?? "";
  return color
    ? marks.map((m) => (m.type === "text" && m.part === "labels" ? { ...m, fill: color } : m))
    : marks;
}

/** The scene of a visual that has nothing to draw: its heading and a sentence in the middle. */
export function emptyScene(input: SharedInput, sentence: string): Scene {
  const { marks, body } = layFrame(input);
  const size = Math.max(SMALLEST, Math.min(13, body.height / 5));
  const lines = wrap(
    sentence,
    body.width,
    size,
    500,
    Math.max(1, Math.min(3, Math.floor(body.height / (size * LINE_HEIGHT)))),
  );
  const top = body.y + body.height / 2 - ((lines.length - 1) * size * LINE_HEIGHT) / 2;
  for (const [i, line] of lines.entries())
    marks.push(
      textMark(`empty${i}`, "frame", {
        x: body.x + body.width / 2,
        y: top + i * size * LINE_HEIGHT,
        text: line,
        size,
        weight: 500,
        fill: input.theme.muted,
        align: "middle",
      }),
    );
  return frameScene(
    input,
    marks,
    [],
    [fillTemplate(input.data.title, input.data.names), sentence].filter(Boolean).join(": "),
  );
}

/** The scene of a visual that lacks something or has no rows; null when there is something to draw. */
export function blankScene(input: SharedInput): Scene | null {
  const { data, style } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  return data.rows.every((r) => r.value === null) ? emptyScene(input, style.template("frame.empty")) : null;
}

/** A small line at the foot of the body, for what the picture leaves out. Takes its room from the body. */
export function footNote(body: Box, theme: Theme, text: string, id = "note"): { marks: Mark[]; body: Box } {
  return !text || body.height < 110 ? { marks: [], body } : footLine(body, theme, text, id);
}

/** A line at the foot of a body, of any height; a tall body has room for two. */
function footLine(body: Box, theme: Theme, text: string, id: string): { marks: Mark[]; body: Box } {
  const size = Math.min(10, Math.max(SMALLEST, body.height * 0.1));
  const lines = wrap(text, body.width, size, 400, body.height >= 150 ? 2 : 1);
  const height = lines.length * size * LINE_HEIGHT;
  const top = body.y + body.height - height;
  const look = { size, weight: 400, fill: theme.muted, align: "middle" } as const;
  const marks = lines.map((line, i) => {
    const y = top + size * LINE_HEIGHT * (i + 0.5);
    return textMark(i === 0 ? id : `${id}${i}`, "labels", {
      x: body.x + body.width / 2,
      y,
      text: line,
      ...look,
    });
  });
  return { marks, body: { ...body, height: body.height - height - size * 0.4 } };
}

/**
 * As many rows as fit, of so many: what the foot says of the others, and the body that is left. `fits` is how
 * many a body has room for; the line at the foot takes of that room too.
 */
export function notedRows(
  { theme, data: { words } }: SharedInput,
  body: Box,
  count: number,
  fits: (body: Box) => number,
): { marks: Mark[]; body: Box; shown: number } {
  const whole = (box: Box) => Math.max(1, Math.floor(fits(box)));
  if (count <= whole(body)) return { marks: [], body, shown: count };
  const noted = (unfit: number) => footNote(body, theme, counted(words.unfit, unfit), "unfit");
  const shown = whole(noted(count).body);
  return { ...noted(count - shown), shown };
}
