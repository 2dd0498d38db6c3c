import { expect, it } from "vitest";
import type { Scope } from "../formula/expr";
import { noMeeting } from "./no-meeting";

const column = (name: string, type: Scope["tables"][number]["columns"][number]["type"]) => ({ name, type });
const scope: Scope = {
  tables: [
    {
      name: "trips",
      columns: [
        column("route", "text"),
        column("crew", "text"),
        column("day", "date"),
        column("people", "number"),
      ],
    },
    {
      name: "orders",
      columns: [
        column("placed", "date"),
        column("paid", "date"),
        column("crew", "number"),
        column("people", "number"),
      ],
    },
    { name: "plan", columns: [column("route", "text"), column("wanted", "number")] },
    { name: "notes", columns: [column("text", "text")] },
  ],
  measures: [],
  inputs: [],
};
const met = (table: string, name: string) => noMeeting(scope, table, { table: "trips", column: name });
const why = (table: string, name: string) => met(table, name).why;

it("a table that cannot be split says why, and what would do", () => {
  expect(why("orders", "day")).toBe(
    "orders cannot be split by trips.day: it has several dates, placed and paid, and none is called day. Give the one that is meant that name on the Data step.",
  );
  expect(why("orders", "crew")).toBe(
    "orders cannot be split by trips.crew: its own crew holds numbers, the other texts. Read both alike on the Data step.",
  );
  expect(why("plan", "day")).toBe(
    "plan cannot be split by trips.day: it has no date. Both can be split by route.",
  );
  expect(why("plan", "crew")).toBe(
    "plan cannot be split by trips.crew: it has no column of that name, and no link leads there. Both can be split by route.",
  );
  expect(why("notes", "crew")).toBe(
    "notes cannot be split by trips.crew: it has no column of that name, and no link leads there. If a column of it names rows of the other table, link the two on the Data step.",
  );
});
