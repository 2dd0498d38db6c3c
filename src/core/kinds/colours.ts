import { own } from "../data/own";
import type { Value } from "../formula/value";
import type { Rule } from "../project/schema";
import { mix } from "../scene/colour";
import type { Mark } from "../scene/marks";
import { paletteColour, paletteOf, rampColour } from "../scene/palettes";
import { choice, colour, type Part, palette, type SceneInput } from "./kind";
import type { LegendEntry } from "./legend";
import type { VisualRow } from "./visual-data";

/** The colours of a kind: what a shape's colour says where nothing else was chosen. */
export const coloursPart = (by: "category" | "one" | "ramp"): Part => ({
  id: "colours",
  label: "Colours",
  dials: [
    choice(
      "by",
      "By",
      [
        ["category", "category"],
        ["one", "one colour"],
        ["ramp", "value, as a ramp"],
        ["rule", "rule"],
      ],
      by,
    ),
    palette("palette", "Palette"),
    colour("one", "One colour"),
  ],
});

/** Whether a rule holds for a value; a value that is none fulfils no rule. */
export function ruleHolds(rule: Rule, value: Value): boolean {
  if (value === null) return false;
  if (rule.when === "is") return String(value).toLowerCase() === String(rule.than).toLowerCase();
  const [x, than] = [Number(value), Number(rule.than)];
  return rule.when === "below" ? x < than : x >= than;
}

/** The rule that gives a row its colour, if rules do and one holds. */
export function ruleOf({ style, look }: SceneInput, row: VisualRow): Rule | null {
  if (!style.has("colours.by") || style.choice("colours.by") !== "rule") return null;
  return look.rules.find((rule) => ruleHolds(rule, rule.measure === null ? row.value : (own(row.also, rule.measure) ?? null))) ?? null;
}

/** The words of the rules with the rows that they hold for: "good: Ferrow Isle, North Quay; poor: 4". Empty without rules. */
export function ruleWords(input: SceneInput): string {
  const { rows } = input.data;
  const found = rows.map((row) => ({ row, rule: ruleOf(input, row) }));
  return input.look.rules
    .flatMap((rule) => {
      const mine = found.filter((f) => f.rule === rule).map((f) => f.row.label);
      if (mine.length === 0) return [];
      return [rows.length === 1 ? rule.word : `${rule.word}: ${mine.length > 3 ? mine.length : mine.join(", ")}`];
    })
    .join("; ");
}

/** What colour each row and each series has, and the rule behind it. */
export class Colours {
  private readonly by: string;
  private readonly palette;
  private readonly span: { low: number; high: number };

  constructor(private readonly input: SceneInput) {
    const { style, look, data } = input;
    this.by = style.choice("colours.by");
    this.palette = paletteOf(style.palette("colours.palette"), look.palettes);
    const values = data.rows.flatMap((r) => (r.value === null || r.groups > 0 ? [] : [r.value]));
    this.span = { low: Math.min(...values), high: Math.max(...values) };
  }

  /** The single colour of kinds that need no more. */
  get one(): string {
    return this.input.style.colour("colours.one", this.step(0, 1));
  }

  private step(index: number, count: number): string {
    return paletteColour(this.palette, this.input.theme.name, index, count, this.input.theme.sheet);
  }

  ruleOf(row: VisualRow): Rule | null {
    return ruleOf(this.input, row);
  }

  of(row: VisualRow, index: number): string {
    const { theme, look, data } = this.input;
    const rule = this.ruleOf(row);
    if (rule) return rule.color;
    if (this.by === "rule") return theme.other;
    const chosen = own(look.categoryColours, row.label);
    if (chosen) return chosen;
    if (row.groups > 0) return theme.other;
    if (this.by === "one") return this.one;
    if (this.by === "ramp") {
      const { low, high } = this.span;
      return rampColour(this.palette, theme.name, row.value === null ? 0 : high > low ? 0.12 + (0.88 * (row.value - low)) / (high - low) : 0.7);
    }
    return this.step(index, data.rows.length);
  }

  /** The colour of a series: one that every row has. */
  series(index: number): string {
    const { theme, look, data } = this.input;
    const entry = data.series[index];
    const chosen = entry && own(look.categoryColours, entry.label);
    if (chosen) return chosen;
    if (entry?.groups) return theme.other;
    // Series of one thing are shades of one colour where no more was asked for.
    if (this.by === "one") return mix(this.one, theme.sheet, (0.78 * index) / Math.max(1, data.series.length));
    return this.by === "ramp" ? rampColour(this.palette, theme.name, 1 - index / Math.max(1, data.series.length - 1)) : this.step(index, data.series.length);
  }

  /** The words of the rules that hold for some row, for a legend; empty where rules give no colours. */
  ruleLegend(): LegendEntry[] {
    if (this.by !== "rule") return [];
    const used = new Set(this.input.data.rows.map((r) => this.ruleOf(r)));
    return this.input.look.rules.filter((r) => used.has(r)).map((r, i) => ({ key: `rule${i}`, color: r.color, label: r.word, value: "", symbol: r.symbol }));
  }
}

/** A rule's symbol, drawn so that it needs no font: within a circle of radius `r` around (x, y). */
export function symbolMark(id: string, part: string, symbol: Rule["symbol"], x: number, y: number, r: number, fill: string): Mark | null {
  const polygon = (points: [number, number][], rotate = 0): Mark => ({ type: "polygon", id, part, x, y, rotate, points: points.map(([a, b]) => [a * r, b * r]), fill });
  const triangle: [number, number][] = [
    [0, -1],
    [0.92, 0.65],
    [-0.92, 0.65],
  ];
  const square: [number, number][] = [
    [-0.8, -0.8],
    [0.8, -0.8],
    [0.8, 0.8],
    [-0.8, 0.8],
  ];
  const arm = 0.3;
  switch (symbol) {
    case "none":
      return null;
    case "circle":
      return { type: "circle", id, part, cx: x, cy: y, r: r * 0.9, fill };
    case "triangle":
      return polygon(triangle);
    case "triangle down":
      return polygon(triangle, 180);
    case "square":
      return polygon(square);
    case "diamond":
      return polygon(square, 45);
    case "cross":
      return polygon(
        [
          [-arm, -1],
          [arm, -1],
          [arm, -arm],
          [1, -arm],
          [1, arm],
          [arm, arm],
          [arm, 1],
          [-arm, 1],
          [-arm, arm],
          [-1, arm],
          [-1, -arm],
          [-arm, -arm],
        ],
        45,
      );
  }
}
