import type { z } from "zod";
import { type Project, projectSchema, type tableSchema } from "@/core/project/schema";

const percent = { style: "percent" as const, decimals: 1 };
const whole = { style: "number" as const, decimals: 0 };
const money = { style: "currency" as const, decimals: 2, units: "automatic" as const };
const measure = (name: string, label: string, formula: string, format: object = whole, note = "", table = "sailings", betterWhen = "higher") => ({
  id: name,
  name,
  label,
  note,
  table,
  formula,
  format,
  betterWhen,
});

const MEASURES = [
  measure("passengers_total", "Passengers", "sum(passengers)", whole, "Everybody carried."),
  measure("seats_total", "Seats", "sum(seats) filter (where not cancelled)", whole, "Seats of the sailings that ran.", "sailings", "neither"),
  measure("load_factor", "Load factor", "passengers_total / seats_total", percent, "Seats taken, out of the seats that sailed."),
  measure(
    "on_time_rate",
    "On-time rate",
    "count(*) filter (where delay_minutes <= 3 and not cancelled)\n  / nullif(count(*) filter (where not cancelled), 0)",
    percent,
    "Sailings that left no more than three minutes late, out of all sailings run.",
  ),
  measure("revenue", "Fare revenue", "sum(fare_revenue)", money),
  measure("margin", "Route margin", "sum(fare_revenue) - sum(operating_cost)", money, "What fares leave after the cost of sailing; below zero on routes that lose money."),
  measure("passenger_share", "Share of passengers", "passengers_total / total(passengers_total)", percent, "Out of all passengers that the filters keep."),
  measure("vessels_in_service", "Vessels in service", "count(distinct vessel) filter (where not cancelled)"),
  measure("electric_share", "Electric sailings", "count(*) filter (where powered_by = 'electric') / nullif(count(*), 0)", percent),
  measure("sailings_run", "Sailings run", "count(*) filter (where not cancelled)"),
  measure("remaining_to_goal", "Remaining to the goal", "greatest(:passenger_goal - passengers_total, 0)", whole, "Passengers still to carry.", "sailings", "lower"),
  measure(
    "punctuality_class",
    "Punctuality class",
    "case when on_time_rate >= :punctuality_goal then 'good'\n     when on_time_rate >= 0.75 then 'watch' else 'poor' end",
    whole,
    "Good, watch or poor against the punctuality goal.",
  ),
  measure("planned_passengers", "Planned passengers", "sum(passenger_target)", whole, "What the season plan asks for, by route and week.", "season_plan", "neither"),
  measure("plan_attainment", "Plan attainment", "passengers_total / planned_passengers", percent, "Passengers carried, out of those planned."),
  measure(
    "passenger_km",
    "Passenger kilometres",
    "sum(passengers * routes.distance_km)",
    { style: "number", decimals: 1, units: "automatic" },
    "Each passenger counted by the length of the crossing.",
  ),
  measure("traveller_score", "Traveller score", "count(*) filter (where score >= 4) / nullif(count(score), 0)", percent, "Share of answers 4 or 5.", "survey"),
  measure("average_charge", "Battery charge", "avg(charge)", { style: "percent", decimals: 0 }, "Mean charge of the electric vessels.", "vessels"),
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
    title: "Passengers by route",
    subtitle: "{total} carried",
    value: "passengers_total",
    split: { column: "route" },
    keep: { first: 6, others: true },
    size: { width: 440, height: 330 },
    dials: { "reading.caption": "passengers" },
  },
  {
    id: "on-time-departures",
    name: "On-time departures",
    kind: "gauge",
    title: "On-time departures",
    subtitle: "Goal {target}",
    value: "on_time_rate",
    target: { input: "punctuality_goal" },
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
    id: "passengers-to-goal",
    name: "Passengers against the goal",
    kind: "progress bar",
    title: "Passengers against the goal",
    subtitle: "",
    value: "passengers_total",
    target: { input: "passenger_goal" },
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
];

const BOARD = {
  id: "season-at-a-glance",
  name: "Season at a glance",
  controls: [
    { id: "year", type: "filter", label: "Year", table: "sailings", column: "date", by: "year", chosen: [] },
    { id: "route", type: "filter", label: "Route", table: "sailings", column: "route", chosen: [] },
    { id: "goal", type: "input", input: "punctuality_goal" },
    { id: "passengers", type: "input", input: "passenger_goal" },
  ],
  tiles: [
    { id: "t1", type: "visual", visual: "passengers-by-route", x: 0, y: 0, w: 5, h: 6 },
    { id: "t2", type: "visual", visual: "on-time-departures", x: 5, y: 0, w: 4, h: 6 },
    { id: "t3", type: "visual", visual: "passengers-to-goal", x: 9, y: 0, w: 3, h: 3 },
    { id: "t4", type: "visual", visual: "energy-mix", x: 9, y: 3, w: 3, h: 5 },
    { id: "t5", type: "visual", visual: "load-by-route", x: 0, y: 6, w: 9, h: 5 },
    { id: "t6", type: "text", text: "Quillhaven Ferries is an invented operator; every figure here comes from a seeded generator.", x: 9, y: 8, w: 3, h: 3 },
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
export function demoProject(tables: z.input<typeof tableSchema>[]): Project {
  return projectSchema.parse({
    format: "cavlo-project",
    version: 1,
    name: "Quillhaven Ferries",
    tables: tables.map((t) => ({ ...t, derived: DERIVED[t.name] ?? [] })),
    links: LINKS,
    measures: MEASURES.map((m) => ({ ...m, proofs: PROOFS[m.name] ?? [] })),
    inputs: [
      {
        id: "punctuality_goal",
        name: "punctuality_goal",
        label: "Punctuality goal",
        type: "number",
        value: 0.92,
        minimum: 0,
        maximum: 1,
        step: 0.01,
        format: { style: "percent", decimals: 0 },
      },
      {
        id: "passenger_goal",
        name: "passenger_goal",
        label: "Passenger goal",
        type: "number",
        value: 6_000_000,
        minimum: 500_000,
        maximum: 12_000_000,
        step: 250_000,
        format: { style: "number", decimals: 2, units: "automatic" },
      },
    ],
    visuals: VISUALS,
    boards: [BOARD],
  });
}
