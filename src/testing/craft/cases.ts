import { PERCENT_FORMAT, PLAIN_FORMAT } from "../../core/base/number-format";
import { hasRole, type KindId } from "../../core/kinds";
import { type Visual, visualSchema } from "../../core/project/schema";
import { categoryKey } from "../../core/rows/row-key";
import { plainRow, type VisualData } from "../../core/rows/visual-data";
import { CATEGORIES, drawnZones, sampleData, seriesData, VALUES } from "./sample-data";

export const ZONES = drawnZones([
  { to: 0.7, word: "poor", tone: "poor" },
  { to: 0.9, word: "watch", tone: "watch" },
  { to: null, word: "good", tone: "good" },
]);

export const visualOf = (kind: KindId, dials: Visual["dials"] = {}, more: Partial<Visual> = {}): Visual =>
  visualSchema.parse({ id: "v", name: "v", kind, value: "m", dials, split: { column: "route" }, ...more });

/** The kinds that show one value against a goal, and those that show one for each category. */
export const ONE_VALUE: KindId[] = ["progress ring", "gauge", "progress bar", "waffle", "number"];
export const MANY_VALUES: KindId[] = [
  "donut",
  "progress ring",
  "progress bar",
  "lollipop",
  "rounded bars",
  "capsule stack",
  "nested bars",
  "radial bars",
  "rose",
  "waffle",
  "number",
];
export const WITH_SERIES: KindId[] = ["donut", "rounded bars", "capsule stack"];

export interface HardCase {
  name: string;
  data: VisualData;
  dials?: Visual["dials"];
  look?: Partial<Visual>;
}

/** A picture for every category. */
const SHIPS = Object.fromEntries(CATEGORIES.map((c) => [c, "icon:ship"]));

const one = (value: number | null, more: Partial<VisualData> = {}) =>
  sampleData([value], { target: 100, title: "On-time departures", subtitle: "Target {target}", ...more });
const rate = (value: number, more: Partial<VisualData> = {}) =>
  one(value, {
    format: { ...PERCENT_FORMAT, decimals: 1 },
    target: 0.92,
    minimum: 0,
    maximum: 1,
    zones: ZONES,
    ...more,
  });

/** Hard values for kinds that show one value. */
export const ONE_CASES: HardCase[] = [
  { name: "a plain value", data: rate(0.864) },
  { name: "past the goal, held", data: rate(1.12) },
  {
    name: "past the goal, a second lap",
    data: rate(1.12),
    dials: { "arc.past": "lap", "ring.past": "lap", "bar.past": "lap", "cell.past": "lap" },
  },
  {
    name: "past the goal, extended",
    data: rate(1.12),
    dials: { "arc.past": "extend", "ring.past": "extend", "bar.past": "extend", "cell.past": "extend" },
  },
  { name: "just under the goal", data: one(99.7) },
  { name: "on the goal", data: one(100) },
  { name: "zero", data: one(0) },
  { name: "below zero", data: one(-20) },
  { name: "nothing", data: one(null) },
  { name: "no rows", data: { ...one(null), rows: [], total: null } },
  { name: "huge", data: one(1_284_930_112, { target: 1_500_000_000 }) },
  { name: "tiny", data: one(0.00042, { target: 0.0005 }) },
  { name: "a target of zero", data: one(57, { target: 0 }) },
  { name: "no target", data: one(57, { target: null }) },
  { name: "a picture", data: rate(0.864), look: { pictures: SHIPS } },
  { name: "compared", data: one(64, { comparison: { value: 71, label: "last season" } }) },
  {
    name: "a very long title",
    data: one(64, {
      title:
        "Share of departures that left no more than three minutes after the time in the published timetable",
      subtitle: "All landings, all vessels, every day of the season",
    }),
  },
  {
    name: "other scripts",
    data: one(64, { title: "הפלגות בזמן — 定時出航の割合", subtitle: "مغادرة في الموعد" }),
  },
  { name: "a sheet of its own colour", data: rate(0.864), dials: { "frame.background": "#7d8c55" } },
  {
    name: "in millions with two decimals",
    data: one(1_284_930, { target: 1_500_000 }),
    dials: { "figures.units": "million", "figures.decimals": "2" },
  },
  {
    name: "money",
    data: one(934_120.5, { target: 1_200_000, format: { ...PLAIN_FORMAT, style: "currency", decimals: 2 } }),
  },
];

const many = (values: (number | null)[], more: Partial<VisualData> = {}) => {
  const data = sampleData(values, { target: 280_000, ...more });
  return {
    ...data,
    second: { label: "Seats", format: PLAIN_FORMAT, total: 1_204_000 },
    headSize: { label: "Revenue", format: PLAIN_FORMAT },
    rows: data.rows.map((r, i) => ({
      ...r,
      second: r.value === null ? null : r.value * (i % 2 ? 0.6 : 1.1),
      headSize: r.value === null ? null : 100 - i * 9,
    })),
  };
};
const crowd = Array.from({ length: 40 }, (_, i) => Math.round(300_000 / (i + 1)));

/** Hard values for kinds that show a value for each category. */
export const MANY_CASES: HardCase[] = [
  { name: "six categories", data: many(VALUES) },
  { name: "one category", data: { ...many([310_200]), splitLabel: "route" } },
  { name: "two categories", data: many([310_200, 12_000]) },
  { name: "forty categories", data: many(crowd) },
  { name: "all zero", data: many(VALUES.map(() => 0)) },
  { name: "some below zero", data: many([310_200, -120_400, 150_400, -20_000, 80_000, 43_420]) },
  { name: "all below zero", data: many(VALUES.map((v) => -v)) },
  { name: "some nothing", data: many([310_200, null, 150_400, null, 80_000, 0]) },
  { name: "nothing at all", data: many(VALUES.map(() => null)) },
  { name: "no rows", data: { ...many([]), total: null } },
  { name: "one far ahead", data: many([9_000_000, 1200, 900, 420, 80, 3]) },
  { name: "huge and tiny", data: many([1_284_930_112, 0.00042, 12, 3_000_000, 0.5, 7]) },
  {
    name: "two decimals over mixed sizes",
    data: many([16_809_400, 40_523_118, 2_449, 988_120, 1_020, 62_000], {
      format: { ...PLAIN_FORMAT, style: "currency" },
      target: 50_000_000,
    }),
    dials: { "figures.decimals": "2", "labels.content": "value" },
  },
  {
    name: "in full over mixed sizes",
    data: many([16_809_400, 40_523_118, 2_449, 988_120, 1_020, 62_000], { target: 50_000_000 }),
    dials: { "figures.units": "none", "labels.content": "category value" },
  },
  {
    name: "rates under one",
    data: {
      ...many([0.67, 0.64, 0.58, 0.52, 0.49, 0.46], {
        format: { ...PLAIN_FORMAT, decimals: 2 },
        target: null,
      }),
      addsUp: false,
      total: 0.56,
    },
    dials: { "labels.content": "value" },
  },
  {
    name: "long numbers in captions",
    data: many([6_025_418, 4_470_221], {
      target: 6_500_000,
      subtitle: "{total} of {target}, which is {share} of what was planned",
    }),
    dials: { "reading.caption": "{value} of {target}", "labels.content": "value target" },
  },
  {
    name: "near values",
    data: many([0.8641, 0.8642, 0.8643, 0.8644], { format: PERCENT_FORMAT, target: 0.9 }),
    dials: { "figures.decimals": "automatic" },
  },
  {
    name: "rates",
    data: many([0.41, 0.88, 0.64, 1.12, 0.07, 0.95], { format: PERCENT_FORMAT, target: null }),
  },
  {
    name: "past the goal, a second lap",
    data: many(VALUES),
    dials: { "ring.past": "lap", "bar.past": "lap", "cell.past": "lap" },
  },
  {
    name: "past the goal, extended",
    data: many(VALUES),
    dials: { "ring.past": "extend", "bar.past": "extend", "cell.past": "extend" },
  },
  {
    name: "the other way",
    data: many(VALUES),
    dials: {
      "bar.direction": "right",
      "stem.direction": "right",
      "arc.direction": "counter",
      "axis.grid": 4,
    },
  },
  { name: "standing", data: many(VALUES), dials: { "bar.direction": "up", "axis.grid": 4 } },
  { name: "a dark sheet of its own", data: many(VALUES), dials: { "frame.background": "#3b1f5b" } },
  {
    name: "in full with one decimal",
    data: many(VALUES),
    dials: { "figures.units": "none", "figures.decimals": "1", "labels.content": "value" },
  },
  {
    name: "labels outside",
    data: many(VALUES),
    dials: { "labels.place": "outside", "labels.content": "category share" },
  },
  {
    name: "names in the track, past the goal",
    data: many(VALUES.slice(0, 4)),
    dials: { "labels.place": "track", "ring.start": 170, "ring.thickness": 24, "ring.past": "extend" },
  },
  {
    name: "labels inside",
    data: many(VALUES),
    dials: { "labels.place": "inside", "labels.content": "value" },
  },
  {
    name: "long names",
    data: {
      ...many(VALUES),
      rows: many(VALUES).rows.map((r) => ({ ...r, label: `${CATEGORIES[5]} and its approaches` })),
    },
  },
  {
    name: "other scripts",
    data: {
      ...many(VALUES),
      rows: many(VALUES).rows.map((r, i) => ({
        ...r,
        label: ["北の桟橋前停留所", "رصيف الشمال", "רציף הצפון", "Østre brygge", "Ελλάδα", "Причал"][i],
      })),
    },
  },
  {
    name: "colours by rule",
    data: {
      ...many(VALUES),
      rules: [
        {
          measure: null,
          when: "below",
          than: 100_000,
          word: "weak",
          color: "#c4452d",
          symbol: "triangle down",
          at: 0,
        },
        {
          measure: null,
          when: "from",
          than: 200_000,
          word: "strong",
          color: "#1f7a6d",
          symbol: "triangle",
          at: 1,
        },
      ],
    },
    dials: { "colours.by": "rule" },
  },
  {
    name: "pictures in heads and cells",
    data: many(VALUES),
    look: { pictures: SHIPS },
  },
  {
    name: "pictures in place of heads and cells",
    data: many(VALUES),
    dials: { "cell.picture": "above", "head.picture": "above" },
    look: { pictures: SHIPS },
  },
  {
    name: "a ramp of a diverging palette",
    data: many(VALUES),
    dials: { "colours.by": "ramp", "colours.palette": "shoal" },
  },
  {
    name: "averages",
    data: {
      ...many([0.64, 0.61, 0.57, 0.52, 0.49, 0.46], { format: PERCENT_FORMAT, target: null }),
      addsUp: false,
      total: 0.56,
    },
  },
  {
    name: "averages against no whole",
    data: { ...many(VALUES, { target: null }), addsUp: false, total: 150_000 },
  },
  {
    name: "targets and starts of their own",
    data: {
      ...many(VALUES),
      own: { target: "Planned passengers", baseline: "Last year" },
      rows: many(VALUES).rows.map((r, i) => ({
        ...r,
        target: [300_000, 250_000, null, 0, 60_000, 44_000][i],
        baseline: [280_000, 260_000, null, 0, 60_000, 44_000][i],
      })),
    },
  },
  ...(["lap", "extend"] as const).map((past) => ({
    name: `targets of their own, ${past}`,
    data: {
      ...many(VALUES),
      own: { target: "Planned passengers", baseline: null },
      rows: many(VALUES).rows.map((r, i) => ({ ...r, target: (VALUES[i] ?? 0) / (0.6 + i * 0.25) })),
    },
    dials: { "ring.past": past, "bar.past": past, "cell.past": past },
  })),
  {
    name: "targets of their own on one scale",
    data: {
      ...many(VALUES),
      own: { target: "Planned passengers", baseline: null },
      rows: many(VALUES).rows.map((r, i) => ({ ...r, target: (VALUES[i] ?? 0) * (0.8 + i * 0.1) })),
    },
    dials: { "ring.against": "one", "bar.against": "one" },
  },
  {
    name: "the first of many shares",
    data: {
      ...many([0.152, 0.131, 0.118, 0.113, 0.107, 0.091], { format: PERCENT_FORMAT, target: null }),
      isCut: true,
      total: 1,
    },
    dials: { "labels.content": "category share" },
  },
  {
    name: "a plan by month under weeks",
    data: {
      ...many(VALUES),
      splitLabel: "week",
      own: { target: "Planned passengers", baseline: null },
      coarse: [{ table: "plan", column: "month", grain: "month", by: "week" }],
      notes: ["plan.month has one date a month: split by week, all of a month stands in its first week."],
      rows: many(VALUES).rows.map((r, i) => ({
        ...r,
        label: `Week ${i + 9}`,
        target: i % 4 === 0 ? 800_000 : null,
      })),
    },
  },
  { name: "forty averages", data: { ...many(crowd), addsUp: false, total: 42 } },
  {
    name: "measures as rows",
    data: {
      ...many([310_200, 240_100, 150_400]),
      splitLabel: null,
      rows: many([310_200, 240_100, 150_400]).rows.map((r) => ({ ...r, format: PLAIN_FORMAT })),
    },
  },
];

const grid = [
  [120, 90, 40, 30],
  [80, 110, 60, 20],
  [60, 70, 90, 10],
  [40, 30, 20, 50],
];

/** Hard values for kinds whose rows are divided among series. */
export const SERIES_CASES: HardCase[] = [
  { name: "four by four", data: seriesData(grid) },
  { name: "zero at the end of a stack", data: seriesData(grid.map((r) => [...r.slice(0, 3), 0])) },
  {
    name: "below zero in a stack",
    data: seriesData(grid.map((r, i) => r.map((v, k) => ((i + k) % 3 === 0 ? -v : v)))),
  },
  { name: "nothing in cells", data: seriesData(grid.map((r, i) => r.map((v, k) => (i === k ? null : v)))) },
  { name: "all zero", data: seriesData(grid.map((r) => r.map(() => 0))) },
  {
    name: "names beside several rings",
    data: seriesData(grid),
    dials: { "labels.place": "outside", "labels.content": "share" },
  },
  { name: "averages in series", data: { ...seriesData(grid), addsUp: false } },
  {
    name: "the first of many in series",
    data: {
      ...seriesData(grid),
      isCut: true,
      total: 1500,
      series: seriesData(grid).series.map((s) => ({ ...s, total: (s.total ?? 0) * 1.4 })),
    },
  },
  { name: "as shares", data: seriesData(grid), dials: { "bar.as": "shares" } },
  {
    name: "with labels",
    data: seriesData(grid),
    dials: { "labels.content": "value", "labels.place": "inside" },
  },
  { name: "lying", data: seriesData(grid), dials: { "bar.direction": "right" } },
  { name: "many series", data: seriesData(grid.map((r) => [...r, ...r])) },
  {
    name: "a long crowd",
    data: seriesData(Array.from({ length: 30 }, (_, i) => grid[i % 4].map((v) => v + i))),
  },
  { name: "legend above", data: seriesData(grid), dials: { "legend.place": "top" } },
  { name: "one row", data: { ...seriesData([grid[0]]), splitLabel: "route" } },
];

const ofMeasures = seriesData(grid);
/** Several measures of each row, for kinds that draw a ring for each. */
const MEASURES_CASE: HardCase = {
  name: "several measures of each row",
  data: {
    ...ofMeasures,
    rows: ofMeasures.rows.map((r) => ({ ...r, value: r.cells[0] })),
    total: ofMeasures.series[0].total,
    series: ofMeasures.series.map((s, k) => ({
      ...s,
      label: ["Passengers", "Seats", "Load factor", "Vehicles carried on deck"][k],
      format: k === 2 ? PERCENT_FORMAT : PLAIN_FORMAT,
      addsUp: k !== 2,
    })),
  },
};

/** A spark line's rows: a year of months. */
export const COURSE: VisualData = {
  ...sampleData([1_284_930]),
  splitLabel: "date",
  comparison: { value: 1_190_000, label: "last season" },
  rows: Array.from({ length: 24 }, (_, i) =>
    plainRow(categoryKey(`m${i}`), `Month ${i + 1}`, 60_000 + Math.round(40_000 * Math.sin(i / 3)) + i * 900),
  ),
};

/** The cases of a kind. */
export function casesOf(kind: KindId): HardCase[] {
  const course: HardCase[] =
    kind === "number"
      ? ["line", "area", "bars"].map((form) => ({
          name: `spark ${form}`,
          data: COURSE,
          dials: { "spark.form": form, "layout.of": form === "bars" ? "right" : "below" },
        }))
      : [];
  return [
    ...(ONE_VALUE.includes(kind) ? ONE_CASES : []),
    ...(MANY_VALUES.includes(kind)
      ? MANY_CASES.filter((c) => c.data.splitLabel || hasRole(kind, "more"))
      : []),
    ...(WITH_SERIES.includes(kind) ? SERIES_CASES : []),
    ...(hasRole(kind, "more") && WITH_SERIES.includes(kind) ? [MEASURES_CASE] : []),
    ...course,
  ];
}
