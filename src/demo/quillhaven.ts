import { bucketStart, civil, dayOf, isoDate, isoWeekday } from "@/core/base/calendar";
import { bell, seeded } from "./random";

/** A made-up table: its columns and its rows as the texts a file would hold. */
export interface DemoTable {
  name: string;
  columns: string[];
  rows: () => Generator<(string | null)[]>;
}

interface Route {
  name: string;
  landing: string;
  km: number;
  minutes: number;
  /** Sailings on a day of the middle season. */
  daily: number;
  /** The share of seats taken on such a day. */
  load: number;
  fare: number;
  /** Cost of a sailing per kilometre; two routes cost more than they earn. */
  cost: number;
  punctual: number;
  /** The mean answer of travellers, 1 to 5. */
  score: number;
}
interface Vessel {
  name: string;
  power: "electric" | "diesel";
  seats: number;
  battery: number | null;
  charge: number | null;
  sailingsTarget: number;
}

const ROUTES: Route[] = [
  {
    name: "Ferrow Isle",
    landing: "Ferrow Stairs",
    km: 6.2,
    minutes: 25,
    daily: 26,
    load: 0.66,
    fare: 6.4,
    cost: 21,
    punctual: 0.95,
    score: 4.4,
  },
  {
    name: "North Quay",
    landing: "North Quay Steps",
    km: 3.1,
    minutes: 14,
    daily: 24,
    load: 0.62,
    fare: 4.2,
    cost: 24,
    punctual: 0.92,
    score: 4.2,
  },
  {
    name: "Gannet Sound",
    landing: "Gannet Slip",
    km: 9.8,
    minutes: 38,
    daily: 17,
    load: 0.58,
    fare: 8.9,
    cost: 19,
    punctual: 0.89,
    score: 4.1,
  },
  {
    name: "Old Pier",
    landing: "Old Pier Head",
    km: 2.4,
    minutes: 11,
    daily: 19,
    load: 0.5,
    fare: 3.6,
    cost: 26,
    punctual: 0.86,
    score: 3.8,
  },
  {
    name: "Marl Point",
    landing: "Marl Ramp",
    km: 12.5,
    minutes: 48,
    daily: 11,
    load: 0.47,
    fare: 10.5,
    cost: 17,
    punctual: 0.79,
    score: 3.6,
  },
  {
    name: "Skerry Light",
    landing: "Skerry Jetty",
    km: 18.4,
    minutes: 70,
    daily: 7,
    load: 0.34,
    fare: 11.8,
    cost: 21,
    punctual: 0.68,
    score: 3.3,
  },
  {
    name: "Tamsin Reach",
    landing: "Tamsin Hard",
    km: 7.7,
    minutes: 31,
    daily: 9,
    load: 0.29,
    fare: 5.6,
    cost: 22,
    punctual: 0.83,
    score: 3.9,
  },
  {
    name: "Upper Lanthorne Landing",
    landing: "Upper Lanthorne Public Landing Stage",
    km: 4.9,
    minutes: 21,
    daily: 14,
    load: 0.53,
    fare: 5.1,
    cost: 18,
    punctual: 0.9,
    score: 4.3,
  },
];
const VESSELS: Vessel[] = [
  { name: "Halyard", power: "electric", seats: 96, battery: 1200, charge: 0.91, sailingsTarget: 14000 },
  { name: "Kittiwake", power: "electric", seats: 96, battery: 1200, charge: 0.74, sailingsTarget: 14000 },
  { name: "Lantern", power: "electric", seats: 64, battery: 800, charge: 0.58, sailingsTarget: 11000 },
  { name: "Marram", power: "electric", seats: 64, battery: 800, charge: 0.33, sailingsTarget: 15000 },
  { name: "Old Bess", power: "diesel", seats: 120, battery: null, charge: null, sailingsTarget: 15000 },
  { name: "Petrel", power: "diesel", seats: 80, battery: null, charge: null, sailingsTarget: 15000 },
  { name: "Sandpiper", power: "diesel", seats: 80, battery: null, charge: null, sailingsTarget: 15000 },
  { name: "Tern", power: "diesel", seats: 48, battery: null, charge: null, sailingsTarget: 15000 },
  {
    name: "Warden of the Lanthorne Narrows",
    power: "diesel",
    seats: 120,
    battery: null,
    charge: null,
    sailingsTarget: 15000,
  },
];
const FIRST = dayOf(2024, 1, 1) as number;
const LAST = dayOf(2026, 6, 30) as number;
const FARES: [string, number][] = [
  ["single", 0.46],
  ["return", 0.27],
  ["season", 0.16],
  ["child", 0.08],
  ["island resident", 0.03],
];

/** How busy a day is: summers and weekends are, winters are not, and each year a little more. */
function season(day: number): number {
  const { year, month, day: d } = civil(day);
  const yearPart = (month - 1 + d / 31) / 12;
  const summer = 0.82 + 0.4 * Math.exp(-(((yearPart - 0.55) / 0.16) ** 2));
  return summer * (isoWeekday(day) >= 6 ? 1.12 : 0.97) * (1 + 0.05 * (year - 2024));
}

/** No sailing of Old Pier was recorded in November 2025: the pier was closed. */
function closed(route: Route, day: number): boolean {
  const { year, month } = civil(day);
  return route.name === "Old Pier" && year === 2025 && month === 11;
}

const cents = (x: number) => x.toFixed(2);

function* sailings(): Generator<string[]> {
  const random = seeded(20240101);
  for (let day = FIRST; day <= LAST; day++) {
    const busy = season(day);
    for (const route of ROUTES) {
      if (closed(route, day)) continue;
      const count = Math.max(2, Math.round(route.daily * (0.72 + 0.28 * busy) + bell(random) * 0.8));
      for (let n = 0; n < count; n++) {
        const electricShare = 0.22 + 0.12 * ((day - FIRST) / (LAST - FIRST));
        const electric = random() < electricShare;
        const fleet = VESSELS.filter((v) => (v.power === "electric") === electric);
        const vessel = fleet[Math.floor(random() ** 1.15 * fleet.length)];
        const cancelled = random() < 0.014 + (1 - route.punctual) * 0.03;
        const late = random() > route.punctual - (busy > 1.15 ? 0.03 : 0);
        const delay = cancelled
          ? 0
          : late
            ? Math.round(4 + Math.abs(bell(random)) * 9)
            : Math.max(-2, Math.round(bell(random) * 1.2));
        const taken = cancelled
          ? 0
          : Math.max(
              0,
              Math.min(
                vessel.seats,
                Math.round(vessel.seats * route.load * busy * (1 + bell(random) * 0.22)),
              ),
            );
        const revenue = taken * route.fare * (0.86 + random() * 0.1);
        const cost = cancelled
          ? route.km * 4
          : route.km * route.cost * (electric ? 0.82 : 1.04) * (0.92 + random() * 0.16) + 34;
        const energy = cancelled
          ? 0
          : route.km * (electric ? 11.5 : 34) * (0.9 + random() * 0.2) * (vessel.seats / 90);
        yield [
          isoDate(day),
          route.name,
          vessel.name,
          String(vessel.seats),
          String(taken),
          String(delay),
          cancelled ? "true" : "false",
          cents(revenue),
          cents(cost),
          energy.toFixed(1),
          vessel.power,
        ];
      }
    }
  }
}

function* fares(): Generator<string[]> {
  const random = seeded(77);
  for (let day = FIRST; day <= LAST; day += 1) {
    if (civil(day).day !== 1) continue;
    for (const [type, share] of FARES)
      yield [
        isoDate(day),
        type,
        String(Math.round(118_000 * season(day + 14) * share * (1 + bell(random) * 0.03))),
      ];
  }
}

function* seasonPlan(): Generator<string[]> {
  const random = seeded(4711);
  for (let week = bucketStart(FIRST, "week"); week <= LAST; week += 7) {
    for (const route of ROUTES) {
      const passengers =
        Math.round(
          (route.daily * 7 * 84 * route.load * season(week + 3) * (1.03 + bell(random) * 0.03)) / 10,
        ) * 10;
      yield [isoDate(week), route.name, String(passengers), cents(passengers * route.fare * 0.93)];
    }
  }
}

function* survey(): Generator<(string | null)[]> {
  const random = seeded(555);
  for (let n = 0; n < 6200; n++) {
    const route = ROUTES[Math.floor(random() ** 1.2 * ROUTES.length)];
    const score = Math.max(1, Math.min(5, Math.round(route.score + bell(random) * 0.8)));
    yield [
      isoDate(FIRST + Math.floor(random() * (LAST - FIRST))),
      route.name,
      random() < 0.03 ? null : String(score),
    ];
  }
}

function* each<T>(items: T[], row: (item: T) => (string | null)[]): Generator<(string | null)[]> {
  for (const item of items) yield row(item);
}
const text = (n: number | null) => (n === null ? null : String(n));

/** The six tables of Quillhaven Ferries. Every run gives the same bytes. */
export const QUILLHAVEN: DemoTable[] = [
  {
    name: "sailings",
    columns: [
      "date",
      "route",
      "vessel",
      "seats",
      "passengers",
      "delay_minutes",
      "cancelled",
      "fare_revenue",
      "operating_cost",
      "energy_kwh",
      "powered_by",
    ],
    rows: sailings,
  },
  {
    name: "routes",
    columns: ["route", "landing", "distance_km", "crossing_minutes"],
    rows: () => each(ROUTES, (r) => [r.name, r.landing, String(r.km), String(r.minutes)]),
  },
  {
    name: "vessels",
    columns: ["vessel", "powered_by", "seats", "battery_kwh", "charge", "sailings_target"],
    rows: () =>
      each(VESSELS, (v) => [
        v.name,
        v.power,
        String(v.seats),
        text(v.battery),
        text(v.charge),
        String(v.sailingsTarget),
      ]),
  },
  { name: "fares", columns: ["month", "fare_type", "passengers"], rows: fares },
  { name: "season_plan", columns: ["week", "route", "passenger_target", "revenue_target"], rows: seasonPlan },
  { name: "survey", columns: ["answered_on", "route", "score"], rows: survey },
];
