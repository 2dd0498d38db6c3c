import { describe, expect, it } from "vitest";
import { madeTable } from "../../testing/made-table";
import { cellText } from "../data/profile";
import { factsOf, proposeLinks } from "./link-facts";

const sailings = madeTable("sailings", {
  route: ["text", ["a", "b", "a", "x", null]],
  vessel: ["text", ["V1", "V2", "V9", "V1", "V2"]],
  seats: ["number", [1, 2, 1, 2, 1]],
});
const routes = madeTable("routes", { route: ["text", ["a", "b"]], seats: ["number", [1, 2]] });
const vessels = madeTable("vessels", { name: ["text", ["V1", "V2", "V3"]] });

describe("link facts", () => {
  it("count rows with a value, those that match, and name values that do not", () => {
    const link = { table: "sailings", column: "route", to: "routes", key: "route" };
    const facts = factsOf(link, sailings.columns[0].data, routes.columns[0].data, (row) =>
      cellText(sailings.columns[0], row),
    );
    expect(facts).toEqual({ link, filled: 4, matched: 3, missing: ["x"], problem: null });
    expect(factsOf(link, routes.columns[0].data, sailings.columns[0].data, String).problem).toContain(
      '"a" stands in its rows 1 and 3',
    );
  });

  it("are proposed by name or by value, never by numbers that merely overlap", () => {
    const proposed = proposeLinks([sailings, routes, vessels], [], cellText).map(
      ({ link, matched, filled }) => [link.column, link.to, link.key, matched / filled],
    );
    expect(proposed).toEqual([
      ["vessel", "vessels", "name", 0.8],
      ["route", "routes", "route", 0.75],
    ]);
  });

  it("are not proposed again, nor where they would close a circle", () => {
    const links = [{ table: "sailings", column: "route", to: "routes", key: "route" }];
    expect(proposeLinks([sailings, routes, vessels], links, cellText).map((f) => f.link.to)).toEqual([
      "vessels",
    ]);
    const mirror = madeTable("mirror", { route: ["text", ["a", "b"]] });
    expect(proposeLinks([routes, mirror], [], cellText)).toHaveLength(1);
  });
});
