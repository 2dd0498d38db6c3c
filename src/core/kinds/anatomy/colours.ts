import { sameName } from "../../base/names";
import { own } from "../../base/own";
import type { Value } from "../../base/value";
import type { DrawnRule, VisualRow } from "../../rows/visual-data";
import { mix } from "../../scene/colour";
import { paletteColour, paletteOf, rampColour } from "../../scene/palettes";
import { choice, colour, palette, part } from "./dial";
import type { SceneInput } from "./kind";
import type { LegendEntry } from "./legend-entry";
import type { SharedInput, SharedPart } from "./shared-parts";
import type { Style } from "./style";

/** The colours of a kind: what a shape's colour says where nothing else was chosen. */
export const coloursPart = (by: "category" | "one" | "ramp") =>
  part("colours", "Colours", [
    choice(
      "by",
      "Coloured by",
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
  ]);

type ColoursPart = ReturnType<typeof coloursPart>;
const COLOURS = coloursPart("one");
type ColoursInput = SceneInput<ColoursPart | SharedPart>;

/**
 * Whether a rule holds for a value against its limit, of all rows or of one; what is none fulfils no rule.
 */
export function ruleHolds(rule: Pick<DrawnRule, "when">, value: Value, limit: Value): boolean {
  if (value === null || limit === null) return false;
  if (rule.when === "is") return sameName(String(value), String(limit));
  const [x, than] = [Number(value), Number(limit)];
  return rule.when === "below" ? x < than : x >= than;
}

/** The rule that gives a row its colour, if rules do and one holds. */
export function ruleOf({ style, data }: SharedInput, row: VisualRow): DrawnRule | null {
  if (style.within(COLOURS)?.choice("colours.by") !== "rule") return null;
  return (
    data.rules.find((rule) =>
      ruleHolds(
        rule,
        rule.measure === null ? row.value : (own(row.also, rule.measure) ?? null),
        row.limits?.[rule.at] ?? rule.than,
      ),
    ) ?? null
  );
}

/**
 * The words of the rules with the rows that they hold for: "good: Ferrow Isle, North Quay; poor: 4". Empty
 * without rules.
 */
export function ruleWords(input: SharedInput): string {
  const { rows, rules } = input.data;
  if (rules.length === 0) return "";
  const found = rows.map((row) => ({ row, rule: ruleOf(input, row) }));
  return rules
    .flatMap((rule) => {
      const mine = found.filter((f) => f.rule === rule).map((f) => f.row.label);
      if (mine.length === 0) return [];
      return [
        rows.length === 1 ? rule.word : `${rule.word}: ${mine.length > 3 ? mine.length : mine.join(", ")}`,
      ];
    })
    .join("; ");
}

/**
 * What a ramp runs over: from zero on, so that near values have near colours; below zero too where values lie
 * there, and as far to both sides of it where its two halves are two colours.
 */
function spanOf(values: readonly number[], isDiverging: boolean): { low: number; high: number } {
  const [low, high] = [Math.min(0, ...values), Math.max(0, ...values)];
  if (!isDiverging || low === 0) return { low, high };
  const most = Math.max(-low, high);
  return { low: -most, high: most };
}

/** What colour each row and each series has, and the rule behind it. */
export class Colours {
  private readonly by: ReturnType<Style<ColoursPart>["choice"]>;
  private readonly palette;
  private readonly span: { low: number; high: number };

  constructor(private readonly input: ColoursInput) {
    const { style, look, data } = input;
    this.by = style.choice("colours.by");
    this.palette = paletteOf(style.palette("colours.palette"), look.palettes);
    const values = data.rows.flatMap((r) => (r.value === null || r.groups > 0 ? [] : [r.value]));
    this.span = spanOf([...values, ...(data.atRest?.values ?? [])], this.palette.type === "diverging");
  }

  /** The single colour of kinds that need no more. */
  get one(): string {
    return this.input.style.colour("colours.one", this.step(0, 1));
  }

  private step(index: number, count: number): string {
    return paletteColour(this.palette, this.input.theme.name, index, count, this.input.theme.sheet);
  }

  ruleOf(row: VisualRow): DrawnRule | null {
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
    if (this.by === "category" && row.color) return row.color;
    if (this.by === "one") return this.one;
    if (this.by === "ramp") {
      const { low, high } = this.span;
      return rampColour(
        this.palette,
        theme.name,
        row.value === null ? 0 : high > low ? 0.12 + (0.88 * (row.value - low)) / (high - low) : 0.7,
      );
    }
    // A category keeps its colour over filters and orders: it goes by its place among all of its column.
    return row.place === null
      ? this.step(index, data.rows.length)
      : this.step(row.place, data.categories.split || data.rows.length);
  }

  /** The colour of a series: one that every row has. */
  series(index: number): string {
    const { theme, look, data } = this.input;
    const entry = data.series[index];
    const chosen = entry && own(look.categoryColours, entry.label);
    if (chosen) return chosen;
    if (entry?.groups) return theme.other;
    if (this.by === "category" && entry?.color) return entry.color;
    // Series of one thing are shades of one colour where no more was asked for.
    if (this.by === "one")
      return mix(this.one, theme.sheet, (0.78 * index) / Math.max(1, data.series.length));
    return this.by === "ramp"
      ? rampColour(this.palette, theme.name, 1 - index / Math.max(1, data.series.length - 1))
      : this.step(entry?.place ?? index, data.categories.series || data.series.length);
  }

  /** The words of the rules that hold for some row, for a legend; empty where rules give no colours. */
  ruleLegend(): LegendEntry[] {
    if (this.by !== "rule") return [];
    const used = new Set(this.input.data.rows.map((r) => this.ruleOf(r)));
    return this.input.data.rules
      .filter((r) => used.has(r))
      .map((r, i) => ({ key: `rule${i}`, color: r.color, label: r.word, value: "", symbol: r.symbol }));
  }
}
