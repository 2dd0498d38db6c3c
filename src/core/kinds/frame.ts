import type { NumberFormat } from "../project/schema";
import type { Theme } from "../scene/colour";
import { FAMILIES } from "../scene/families";
import type { Datum, Handle, Mark, Scene, Text } from "../scene/marks";
import { formatNumber } from "../scene/number-format";
import { fillTemplate } from "../scene/template";
import { fittingSize, LINE_HEIGHT, SMALLEST, shorten, type Weight, wrap } from "../scene/text";
import { ruleWords } from "./colours";
import { choice, colour, number, type Part, type SceneInput, template, toggle } from "./kind";
import { surfacePart } from "./surface";
import type { VisualRow } from "./visual-data";

/** A region of the frame in pixels. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Parts that every kind has. */
export const sharedParts = (dashes = true): Part[] => [
  surfacePart(dashes),
  {
    id: "type",
    label: "Type",
    dials: [
      choice(
        "family",
        "Family",
        FAMILIES.map((f) => [f.id, f.name]),
        "archivo",
      ),
    ],
  },
  {
    id: "heading",
    label: "Heading",
    dials: [
      toggle("shown", "Shown", true),
      number("size", "Size", 9, 32, 1, "px", 15),
      choice(
        "align",
        "Place",
        [
          ["start", "left"],
          ["middle", "centre"],
        ],
        "start",
      ),
    ],
  },
  {
    id: "frame",
    label: "Frame",
    dials: [
      number("padding", "Padding", 0, 48, 1, "px", 16),
      number("radius", "Corners", 0, 32, 1, "px", 12),
      toggle("border", "Border", true),
      toggle("filled", "Background", true),
      colour("background", "Its colour"),
      choice(
        "sheet",
        "Sheet",
        [
          ["page", "as the page"],
          ["light", "light"],
          ["night", "night"],
        ],
        "page",
      ),
      template("empty", "When empty", "No rows here"),
    ],
  },
  {
    id: "figures",
    label: "Numbers",
    dials: [
      choice(
        "units",
        "Units",
        [
          ["measure", "as the measure"],
          ["none", "in full"],
          ["thousand", "thousands"],
          ["million", "millions"],
          ["billion", "billions"],
          ["automatic", "by size"],
        ],
        "measure",
      ),
      choice("decimals", "Decimals", [["measure", "as the measure"], ...["0", "1", "2", "3", "4"].map((n): [string, string] => [n, n])], "measure"),
    ],
  },
  { id: "tooltip", label: "Tooltip", dials: [template("text", "Text", "")] },
  {
    id: "motion",
    label: "Motion",
    dials: [number("entry", "Entry", 0, 1500, 20, "ms", 420), number("change", "Change", 0, 1500, 20, "ms", 220)],
  },
];

export function textMark(id: string, part: string, x: number, y: number, text: string, size: number, weight: Weight, fill: string, align: Text["align"] = "start"): Text {
  return { type: "text", id, part, x, y, text, size, weight, fill, align };
}

/** Lays out what surrounds a kind's drawing: background, title and subtitle. Small frames drop the subtitle, then the title. */
export function layFrame({ frame, theme, style, data }: SceneInput): { marks: Mark[]; body: Box } {
  const { width, height } = frame;
  const padding = Math.min(style.number("frame.padding"), 0.08 * Math.min(width, height) + 2);
  const inner = width - 2 * padding;
  const marks: Mark[] = [];
  let top = padding;
  const heading = (key: string, text: string, wanted: number, weight: Weight, fill: string, lines: number) => {
    const size = Math.max(SMALLEST, Math.min(wanted, height * 0.09));
    const middle = style.choice("heading.align") === "middle";
    for (const [i, line] of wrap(text, inner, size, weight, lines).entries()) {
      const x = middle ? width / 2 : padding;
      marks.push(textMark(`${key}${i}`, "heading", x, top + (size * LINE_HEIGHT) / 2, line, size, weight, fill, middle ? "middle" : "start"));
      top += size * LINE_HEIGHT;
    }
  };
  const title = fillTemplate(data.title, data.names).trim();
  const subtitle = fillTemplate(data.subtitle, data.names).trim();
  if (style.toggle("heading.shown")) {
    const size = style.number("heading.size");
    if (title && height >= 100) heading("title", title, size, 600, theme.ink, height >= 220 ? 2 : 1);
    if (subtitle && height >= 160) {
      top += 3;
      heading("subtitle", subtitle, size * 0.83, 400, theme.muted, 1);
    }
    if (marks.length) top += Math.min(10, height * 0.03);
  }
  return { marks, body: { x: padding, y: top, width: inner, height: Math.max(1, height - padding - top) } };
}

/** Puts a scene together from its frame and its marks. The words of rules are added to the description. */
export function frameScene(input: SceneInput, marks: Mark[], handles: Handle[], description: string): Scene {
  const rules = ruleWords(input);
  const { frame, theme, style } = input;
  return {
    theme: theme.name,
    ...frame,
    background: style.toggle("frame.filled") ? theme.sheet : null,
    border: style.toggle("frame.border") ? { color: theme.rule, radius: style.number("frame.radius") } : { color: "none", radius: style.number("frame.radius") },
    family: style.choice("type.family"),
    motion: { entry: style.number("motion.entry"), change: style.number("motion.change") },
    marks: input.surface.apply(labelsColoured(input, marks)),
    handles,
    description: rules ? `${description} By rule: ${rules}.` : description,
  };
}

/** Labels in the colour that was set for them; without one each has the colour that reads where it stands. */
function labelsColoured({ style }: SceneInput, marks: Mark[]): Mark[] {
  const color = style.has("labels.colour") ? style.colour("labels.colour", "") : "";
  return color ? marks.map((m) => (m.type === "text" && m.part === "labels" ? { ...m, fill: color } : m)) : marks;
}

/** The scene of a visual that has nothing to draw: its heading and a sentence in the middle. */
export function emptyScene(input: SceneInput, sentence: string): Scene {
  const { marks, body } = layFrame(input);
  const size = Math.max(SMALLEST, Math.min(13, body.height / 5));
  const lines = wrap(sentence, body.width, size, 500, Math.max(1, Math.min(3, Math.floor(body.height / (size * LINE_HEIGHT)))));
  const top = body.y + body.height / 2 - ((lines.length - 1) * size * LINE_HEIGHT) / 2;
  for (const [i, line] of lines.entries())
    marks.push(textMark(`empty${i}`, "frame", body.x + body.width / 2, top + i * size * LINE_HEIGHT, line, size, 500, input.theme.muted, "middle"));
  return frameScene(input, marks, [], [fillTemplate(input.data.title, input.data.names), sentence].filter(Boolean).join(": "));
}

/** The scene of a visual that lacks something or has no rows; null when there is something to draw. */
export function blankScene(input: SceneInput): Scene | null {
  const { data, style } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  return data.rows.every((r) => r.value === null) ? emptyScene(input, style.template("frame.empty")) : null;
}

/** The title as it is written, or what is shown. */
export const titleOf = ({ data }: SceneInput): string => fillTemplate(data.title, data.names).trim() || data.valueLabel;

/** How strongly a row is drawn: those beside the one under the pointer step back. */
export function strength({ focus, data }: SceneInput, key: string, weak = 0.45): number {
  return focus === null || focus === key || !data.rows.some((r) => r.key === focus) ? 1 : weak;
}

/** The tooltip's own text for a row. */
export function ownTooltip({ data }: SceneInput, text: string, row: Pick<VisualRow, "label" | "value" | "format">): string {
  const format = row.format ?? data.format;
  const whole = data.target ?? data.total;
  const share = whole && row.value !== null ? row.value / whole : null;
  return fillTemplate(text, {
    ...data.names,
    category: row.label,
    value: { value: row.value, format },
    share: { value: share, format: { ...format, style: "percent", units: "none", prefix: "", suffix: "", decimals: 0 } },
  });
}

/** What the pointer finds on a row; `measure` is the one whose value it is, where that is not the visual's own. */
export function rowDatum(input: SceneInput, row: VisualRow, more: Datum["lines"] = [], measure?: { label: string; format: NumberFormat }): Datum {
  const title = row.groups > 0 ? `Other (${row.groups} together)` : row.label;
  const own = input.style.template("tooltip.text");
  if (own) return { key: row.key, title, lines: [{ label: ownTooltip(input, own, row), value: "" }] };
  return {
    key: row.key,
    title,
    lines: [
      { label: measure?.label ?? (row.format ? row.label : input.data.valueLabel), value: formatNumber(row.value, measure?.format ?? row.format ?? input.data.format) },
      ...more,
    ],
  };
}

/** The first rows of a picture in words, and how many more there are. */
export function leadingRows(input: SceneInput, write: (row: VisualRow) => string = (r) => formatNumber(r.value, r.format ?? input.data.format)): string {
  const { rows } = input.data;
  const said = rows.slice(0, 3).map((r) => (rows.length === 1 ? write(r) : `${r.label} ${write(r)}`));
  return said.join(", ") + (rows.length > 3 ? ` and ${rows.length - 3} more` : "");
}

/**
 * A text at the largest size that fits: the first of the candidates that fits without shrinking below `keep` of the size,
 * else the last one, shrunk to the floor and then shortened.
 */
export function fitText(candidates: string[], width: number, size: number, weight: Weight, keep = 0.7): { text: string; size: number } {
  for (const text of candidates) {
    const fitting = fittingSize(text, width, size, weight);
    if (fitting !== null && fitting >= size * keep) return { text, size: fitting };
  }
  const last = candidates[candidates.length - 1];
  const fitting = fittingSize(last, width, size, weight);
  return fitting !== null ? { text: last, size: fitting } : { text: shorten(last, width, SMALLEST, weight), size: SMALLEST };
}

/** A small line at the foot of the body, for what the picture leaves out. Takes its room from the body. */
export function footNote(body: Box, theme: Theme, text: string): { marks: Mark[]; body: Box } {
  if (!text || body.height < 110) return { marks: [], body };
  const size = 10;
  const y = body.y + body.height - size * 0.6;
  return {
    marks: [textMark("note", "labels", body.x + body.width / 2, y, shorten(text, body.width, size, 400), size, 400, theme.muted, "middle")],
    body: { ...body, height: body.height - size * 1.6 },
  };
}
