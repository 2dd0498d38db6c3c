import { newMeasure } from "../core/project/defaults";
import { emptyProject, type Project, tableSchema, type Visual } from "../core/project/schema";
import { madeTable } from "./made-table";

const ROUTES = ["Ferrow", "Gull Bay", "Ferrow", "Orrin", "Gull Bay", "Ferrow"];
/** The class of each. */
export const CLASSES = ["day", "day", "night", "night", "night", "day"];

/** Six trips with their routes, classes and seats. */
export const TRIPS = madeTable("trips", {
  route: ["text", ROUTES],
  class: ["text", CLASSES],
  seats: ["number", [10, 20, 30, 40, 50, 60]],
});

/** A project over these, with the measure `seats` (m) and some visuals. */
export const tripsProject = (visuals: Visual[]): Project => ({
  ...emptyProject("Trips"),
  tables: [
    tableSchema.parse({
      id: "t",
      name: "trips",
      rows: ROUTES.length,
      source: { file: "trips.csv" },
      columns: [
        { name: "route", reading: { type: "text" } },
        { name: "class", reading: { type: "text" } },
        { name: "seats", reading: { type: "number", decimal: "." } },
      ],
    }),
  ],
  measures: [newMeasure({ id: "m", name: "seats", label: "Seats", table: "trips", formula: "sum(seats)" })],
  visuals,
});
