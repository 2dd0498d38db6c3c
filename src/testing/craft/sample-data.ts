import { PERCENT_FORMAT, PLAIN_FORMAT } from "../../core/base/number-format";
import { WORDS } from "../../core/project/fixed-words";
import { categoryKey } from "../../core/rows/row-key";
import { type DrawnZone, plainRow, type VisualData } from "../../core/rows/visual-data";

export const CATEGORIES = [
  "Ferrow Isle",
  "North Quay",
  "Gannet Sound",
  "Old Pier",
  "Marl Point",
  "Upper Lanthorne Public Landing Stage",
];
export const VALUES = [310_200, 240_100, 150_400, 110_000, 80_000, 43_420];

/** The keys of the rows of made data, and of their series. */
export const keyAt = (row: number) => categoryKey(`k${row}`);
export const seriesKeyAt = (series: number) => categoryKey(`s${series}`);

/** Zones as they are drawn, out of what a sentence says of them. */
export const drawnZones = (zones: Pick<DrawnZone, "to" | "word" | "tone">[]): DrawnZone[] =>
  zones.map((zone, at) => ({ ...zone, at, isMovable: true }));

/** Data for a visual without a project: a row for each value, and what else is given. */
export function sampleData(values: (number | null)[], more: Partial<VisualData> = {}): VisualData {
  const present = values.filter((v) => v !== null);
  const total = present.length ? present.reduce((a, b) => a + b, 0) : null;
  const format = more.format ?? PLAIN_FORMAT;
  const target = more.target ?? null;
  const write = (value: number | null, f = format) => ({ value, format: f });
  return {
    rows: values.map((value, i) => plainRow(keyAt(i), CATEGORIES[i] ?? `Category ${i + 1}`, value)),
    series: [],
    categories: { split: 0, series: 0 },
    comparison: null,
    second: null,
    headSize: null,
    betterWhen: "higher",
    total,
    addsUp: true,
    atRest: null,
    isCut: false,
    target,
    own: { target: null, baseline: null },
    outOfReach: null,
    minimum: null,
    maximum: null,
    baseline: null,
    zones: [],
    rules: [],
    format,
    valueLabel: "Passengers",
    splitLabel: values.length > 1 ? "route" : null,
    title: "Passengers by route",
    subtitle: "{total} carried",
    coarse: [],
    notes: [],
    problem: null,
    splitInTemplates: null,
    words: WORDS,
    names: {
      value: write(total),
      total: write(total),
      target: write(target),
      measure: "Passengers",
      category: "",
      share: write(target && total !== null ? total / target : null, PERCENT_FORMAT),
    },
    ...more,
  };
}

/** Data whose rows are divided among series: `cells[row][series]`. */
export function seriesData(cells: (number | null)[][], more: Partial<VisualData> = {}): VisualData {
  const sum = (list: (number | null)[]) => list.reduce<number>((total, v) => total + (v ?? 0), 0);
  const base = sampleData(cells.map(sum), more);
  const count = Math.max(...cells.map((c) => c.length));
  return {
    ...base,
    rows: base.rows.map((row, i) => ({ ...row, cells: cells[i] })),
    series: Array.from({ length: count }, (_, k) => ({
      key: seriesKeyAt(k),
      label: `Quarter ${k + 1}`,
      total: sum(cells.map((c) => c[k] ?? 0)),
      groups: 0,
      place: null,
      color: null,
    })),
  };
}
