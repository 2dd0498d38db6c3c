import { FORMAT_VERSION, type Project, projectSchema, type TableInput } from "@/core/project/schema";

const percent = { style: "percent" as const, decimals: 1 };
const whole = { style: "number" as const, decimals: 0 };
const money = { style: "currency" as const, decimals: 2, units: "automatic" as const };
interface MeasureMore {
  format?: object;
  note?: string;
  table?: string;
  betterWhen?: "higher" | "lower" | "neither";
}
const measure = (name: string, label: string, formula: string, more: MeasureMore = {}) => ({
  id: name,
  name,
  label,
  formula,
  format: whole,
  note: "",
  table: "sailings",
  betterWhen: "higher",
  ...more,
});

const MEASURES = [
  measure("passengers_total", "Passengers", "sum(passengers)", { note: "Everybody carried." }),
  measure("seats_total", "Seats", "sum(seats) filter (where not cancelled)", {
    note: "Seats of the sailings that ran.",
    betterWhen: "neither",
  }),
  measure("load_factor", "Load factor", "passengers_total / seats_total", {
    format: percent,
    note: "Seats taken, out of the seats that sailed.",
  }),
  measure(
    "on_time_rate",
    "On-time rate",
    "count(*) filter (where delay_minutes <= 3 and not cancelled)\n  / nullif(count(*) filter (where not cancelled), 0)",
    { format: percent, note: "Sailings that left no more than three minutes late, out of all sailings run." },
  ),
  measure("revenue", "Fare revenue", "sum(fare_revenue)", { format: money }),
  measure("operating_cost", "Operating cost", "sum(operating_cost)", {
    format: money,
    note: "What it cost to sail.",
    betterWhen: "lower",
  }),
  measure("sailings_total", "Sailings", "count(*)", {
    note: "All sailings of the timetable, cancelled ones too.",
    betterWhen: "neither",
  }),
  measure("margin", "Route margin", "sum(fare_revenue) - sum(operating_cost)", {
    format: money,
    note: "What fares leave after the cost of sailing; below zero on routes that lose money.",
  }),
  measure("passenger_share", "Share of passengers", "passengers_total / total(passengers_total)", {
    format: percent,
    note: "Out of all passengers that the filters keep.",
  }),
  measure("vessels_in_service", "Vessels in service", "count(distinct vessel) filter (where not cancelled)"),
  measure(
    "electric_share",
    "Electric sailings",
    "count(*) filter (where powered_by = 'electric') / nullif(count(*), 0)",
    { format: percent },
  ),
  measure("sailings_run", "Sailings run", "count(*) filter (where not cancelled)"),
  measure(
    "remaining_to_target",
    "Remaining to the target",
    "greatest(:passenger_target - passengers_total, 0)",
    {
      note: "Passengers still to carry.",
      betterWhen: "lower",
    },
  ),
  measure(
    "punctuality_class",
    "Punctuality class",
    "case when on_time_rate >= :punctuality_target then 'good'\n     when on_time_rate >= 0.75 then 'watch' else 'poor' end",
    { note: "Good, watch or poor against the punctuality target." },
  ),
  measure("planned_passengers", "Planned passengers", "sum(passenger_target)", {
    note: "What the season plan asks for, by route and week.",
    table: "season_plan",
    betterWhen: "neither",
  }),
  measure("plan_attainment", "Plan attainment", "passengers_total / planned_passengers", {
    format: percent,
    note: "Passengers carried, out of those planned.",
  }),
  measure("passenger_km", "Passenger kilometres", "sum(passengers * routes.distance_km)", {
    format: { style: "number", decimals: 1, units: "automatic" },
    note: "Each passenger counted by the length of the crossing.",
  }),
  measure(
    "traveller_score",
    "Traveller score",
    "count(*) filter (where score >= 4) / nullif(count(score), 0)",
    { format: percent, note: "Share of answers 4 or 5.", table: "survey" },
  ),
  measure("average_charge", "Battery charge", "avg(charge)", {
    format: { style: "percent", decimals: 0 },
    note: "Mean charge of the electric vessels.",
    table: "vessels",
  }),
];

/** What is expected of measures whatever the data. */
const PROOFS: Record<string, object[]> = {
  load_factor: [{ id: "load-within", type: "between", from: 0, to: 1, split: { column: "route" } }],
  sailings_run: [
    {
      id: "old-pier-closed",
      type: "equals",
      value: 0,
      tolerance: 0,
      filters: [
        { column: "route", in: ["Old Pier"] },
        { column: "date", from: "2025-11-01", to: "2025-11-30" },
      ],
    },
  ],
};

const VISUALS = [
  {
    id: "passengers-by-route",
    name: "Passengers by route",
    kind: "donut",
    title: "{measure} by {split}",
    subtitle: "{total} carried",
    value: "passengers_total",
    split: { column: "route" },
    steps: [{ column: "vessel" }, { column: "date", by: "year" }],
    keep: { first: 6, others: true },
    size: { width: 440, height: 330 },
    dials: { "reading.caption": "passengers" },
  },
  {
    id: "on-time-departures",
    name: "On-time departures",
    kind: "gauge",
    title: "On-time departures",
    subtitle: "Target {target}",
    value: "on_time_rate",
    target: { input: "punctuality_target" },
    minimum: { number: 0 },
    maximum: { number: 1 },
    zones: [
      { to: 0.75, word: "poor", tone: "poor" },
      { to: 0.9, word: "watch", tone: "watch" },
      { to: null, word: "good", tone: "good" },
    ],
    size: { width: 400, height: 330 },
  },
  {
    id: "passengers-to-target",
    name: "Passengers against the target",
    kind: "progress bar",
    title: "Passengers against the target",
    subtitle: "",
    value: "passengers_total",
    target: { input: "passenger_target" },
    size: { width: 400, height: 180 },
  },
  {
    id: "load-by-route",
    name: "Seats taken by route",
    kind: "progress bar",
    title: "Seats taken by route",
    subtitle: "Share of the seats that sailed",
    value: "load_factor",
    split: { column: "route" },
    size: { width: 440, height: 330 },
    dials: { "labels.content": "value" },
  },
  {
    id: "energy-mix",
    name: "Sailings by power",
    kind: "donut",
    title: "Sailings by power",
    subtitle: "{electric_share} electric",
    value: "sailings_run",
    split: { column: "powered_by" },
    size: { width: 400, height: 330 },
    dials: { "arc.start": 270, "arc.sweep": 180, "reading.caption": "sailings" },
  },
  {
    id: "season-progress",
    name: "Season progress",
    kind: "progress ring",
    title: "Season progress",
    subtitle: "{value} of {target}",
    value: "passengers_total",
    target: { input: "passenger_target" },
    size: { width: 340, height: 330 },
    dials: { "reading.caption": "of the target", "heading.align": "middle" },
  },
  {
    id: "on-time-by-route",
    name: "On time by route",
    kind: "lollipop",
    title: "On time by route",
    subtitle: "Share of sailings that left on time",
    value: "on_time_rate",
    split: { column: "route" },
    size: { width: 480, height: 330 },
    dials: {
      "colours.by": "rule",
      "legend.place": "top",
      "labels.content": "text",
      "labels.text": "{value:percent.1}",
      "head.diameter": 44,
    },
    rules: [
      { measure: null, when: "from", than: 0.85, word: "good", color: "#1f7a6d", symbol: "circle" },
      { measure: null, when: "from", than: 0.75, word: "watch", color: "#b57a12", symbol: "diamond" },
      { measure: null, when: "below", than: 0.75, word: "poor", color: "#c4452d", symbol: "triangle down" },
    ],
  },
  {
    id: "passengers-by-month",
    name: "Passengers by month",
    kind: "rounded bars",
    title: "{measure} by {split}",
    subtitle: "Summer carries the year",
    value: "passengers_total",
    split: { column: "date", by: "month" },
    order: { by: "split", order: "asc" },
    filters: [{ column: "date", by: "year", in: [2025] }],
    size: { width: 480, height: 300 },
    dials: { "axis.line": false },
  },
  {
    id: "margin-by-route",
    name: "Margin by route",
    kind: "rounded bars",
    title: "Margin by route",
    subtitle: "What fares leave after the cost of sailing",
    value: "margin",
    split: { column: "route" },
    finish: "night",
    size: { width: 440, height: 320 },
    dials: {
      "bar.direction": "right",
      "colours.by": "rule",
      "legend.place": "none",
    },
    rules: [
      { measure: null, when: "from", than: 0, word: "profit", color: "#dba543", symbol: "triangle" },
      { measure: null, when: "below", than: 0, word: "loss", color: "#f0785f", symbol: "triangle down" },
    ],
  },
  {
    id: "punctuality-by-quarter",
    name: "Departures by quarter",
    kind: "capsule stack",
    title: "How sailings left",
    subtitle: "By quarter of 2025",
    value: "sailings_total",
    split: { column: "date", by: "quarter" },
    series: { column: "departure" },
    order: { by: "split", order: "asc" },
    filters: [{ column: "date", by: "year", in: [2025] }],
    size: { width: 440, height: 330 },
    dials: { "legend.values": false },
  },
  {
    id: "seats-and-passengers",
    name: "Seats and passengers",
    kind: "nested bars",
    title: "Seats and passengers",
    subtitle: "What sailed, and who was on board",
    value: "passengers_total",
    second: "seats_total",
    split: { column: "route" },
    keep: { first: 6, others: false },
    size: { width: 460, height: 330 },
  },
  {
    id: "load-radial",
    name: "Load factor, bent",
    kind: "radial bars",
    title: "{measure} by {split}",
    subtitle: "A full sweep is every seat taken",
    value: "load_factor",
    split: { column: "route" },
    keep: { first: 6, others: false },
    size: { width: 380, height: 330 },
    dials: { "reading.shown": false },
  },
  {
    id: "revenue-rose",
    name: "Revenue by route",
    kind: "rose",
    title: "{measure} by {split}",
    subtitle: "The area of a petal is its revenue",
    value: "revenue",
    split: { column: "route" },
    size: { width: 400, height: 360 },
  },
  {
    id: "electric-waffle",
    name: "Electric sailings",
    kind: "waffle",
    title: "Electric sailings",
    subtitle: "Each cell is one sailing in a hundred",
    value: "electric_share",
    size: { width: 380, height: 300 },
    dials: { "reading.caption": "under battery" },
  },
  {
    id: "revenue-card",
    name: "Fare revenue",
    kind: "number",
    title: "{measure}",
    subtitle: "",
    value: "revenue",
    comparison: { measure: "operating_cost" },
    split: { column: "date", by: "month" },
    order: { by: "split", order: "asc" },
    size: { width: 340, height: 230 },
  },
];

const BOARD = {
  id: "season-at-a-glance",
  name: "Season at a glance",
  controls: [
    { id: "year", type: "filter", label: "Year", table: "sailings", column: "date", by: "year", many: false },
    { id: "route", type: "filter", label: "Route", table: "sailings", column: "route" },
    { id: "target", type: "input", input: "punctuality_target" },
    { id: "passengers", type: "input", input: "passenger_target" },
  ],
  tiles: [
    { id: "t1", type: "visual", visual: "passengers-by-route", x: 0, y: 0, w: 5, h: 42 },
    { id: "t2", type: "visual", visual: "on-time-departures", x: 5, y: 0, w: 4, h: 42 },
    { id: "t3", type: "visual", visual: "passengers-to-target", x: 9, y: 0, w: 3, h: 21 },
    { id: "t4", type: "visual", visual: "energy-mix", x: 9, y: 21, w: 3, h: 35 },
    { id: "t5", type: "visual", visual: "load-by-route", x: 0, y: 42, w: 9, h: 35 },
    {
      id: "t6",
      type: "text",
      text: "Quillhaven Ferries is an invented operator; every figure here comes from a seeded generator.",
      x: 9,
      y: 56,
      w: 3,
      h: 21,
    },
  ],
};

const ROUTES_BOARD = {
  id: "routes",
  name: "Routes compared",
  controls: [
    {
      id: "routes-year",
      type: "filter",
      label: "Year",
      table: "sailings",
      column: "date",
      by: "year",
      many: false,
    },
    { id: "routes-target", type: "input", input: "passenger_target" },
  ],
  tiles: [
    { id: "r1", type: "visual", visual: "season-progress", x: 0, y: 0, w: 3, h: 42 },
    { id: "r2", type: "visual", visual: "on-time-by-route", x: 3, y: 0, w: 5, h: 42 },
    { id: "r3", type: "visual", visual: "revenue-card", x: 8, y: 0, w: 4, h: 21 },
    { id: "r4", type: "visual", visual: "electric-waffle", x: 8, y: 21, w: 4, h: 28 },
    { id: "r5", type: "visual", visual: "margin-by-route", x: 0, y: 42, w: 4, h: 42 },
    { id: "r6", type: "visual", visual: "seats-and-passengers", x: 4, y: 42, w: 4, h: 42 },
    { id: "r7", type: "visual", visual: "revenue-rose", x: 8, y: 49, w: 4, h: 42 },
  ],
};

const LINKS = [
  { id: "sailing-route", table: "sailings", column: "route", to: "routes", key: "route" },
  { id: "sailing-vessel", table: "sailings", column: "vessel", to: "vessels", key: "vessel" },
  { id: "plan-route", table: "season_plan", column: "route", to: "routes", key: "route" },
  { id: "survey-route", table: "survey", column: "route", to: "routes", key: "route" },
];

const DERIVED: Record<string, { name: string; formula: string }[]> = {
  sailings: [
    {
      name: "departure",
      formula:
        "case when cancelled then 'cancelled'\n     when delay_minutes <= 3 then 'on time'\n     when delay_minutes <= 10 then 'up to 10 minutes late'\n     else 'over 10 minutes late' end",
    },
  ],
};

/** The demo project over its tables, as they were stored. */
export function demoProject(tables: TableInput[]): Project {
  return projectSchema.parse({
    format: "cavlo-project",
    version: FORMAT_VERSION,
    name: "Quillhaven Ferries",
    tables: tables.map((t) => ({ ...t, derived: DERIVED[t.name] ?? [] })),
    links: LINKS,
    measures: MEASURES.map((m) => ({ ...m, proofs: PROOFS[m.name] ?? [] })),
    inputs: [
      {
        id: "punctuality_target",
        name: "punctuality_target",
        label: "Punctuality target",
        type: "number",
        value: 0.92,
        minimum: 0,
        maximum: 1,
        step: 0.01,
        format: { style: "percent", decimals: 0 },
      },
      {
        id: "passenger_target",
        name: "passenger_target",
        label: "Passenger target",
        type: "number",
        value: 6_000_000,
        minimum: 500_000,
        maximum: 12_000_000,
        step: 250_000,
        format: { style: "number", decimals: 2, units: "automatic" },
      },
    ],
    visuals: VISUALS,
    boards: [BOARD, ROUTES_BOARD],
  });
}
