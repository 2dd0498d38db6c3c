import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circleOf, type Link, linksProblem, pathsBetween, reachedFrom } from "./links";

const link = (table: string, to: string, column = `${to}_id`): Link => ({ table, column, to, key: "id" });

describe("links", () => {
  it("lead on through several tables, whatever the case of their names", () => {
    const links = [link("sailings", "Routes"), link("routes", "harbours")];
    expect(reachedFrom(links, "SAILINGS")).toEqual(["Routes", "harbours"]);
    expect(pathsBetween(links, "sailings", "Harbours")).toEqual([links]);
    expect(pathsBetween(links, "harbours", "sailings")).toEqual([]);
    expect(linksProblem(links)).toBeNull();
  });

  it("name the circle that they make", () => {
    const links = [link("a", "b"), link("b", "c"), link("c", "b")];
    expect(circleOf(links)).toEqual(["b", "c", "b"]);
    expect(linksProblem(links)).toContain("b → c → b");
    expect(circleOf([link("self", "self")])).toEqual(["self", "self"]);
  });

  it("name both ways where there are two", () => {
    const twice = [link("sailings", "harbours", "from_id"), link("sailings", "harbours", "to_id")];
    expect(linksProblem(twice)).toContain("sailings.from_id → harbours.id; or sailings.to_id → harbours.id");
    const around = [link("a", "b"), link("a", "c"), link("b", "d"), link("c", "d")];
    expect(pathsBetween(around, "a", "d")).toHaveLength(2);
    expect(linksProblem(around)).toContain("more than one way from a to d");
  });

  it("never run for ever and never pass a table twice, however tables are tied", () => {
    const table = fc.constantFrom("a", "b", "c", "d", "e");
    fc.assert(
      fc.property(fc.array(fc.tuple(table, table), { maxLength: 10 }), table, table, (pairs, from, to) => {
        const links = pairs.map(([a, b], i) => link(a, b, `k${i}`));
        for (const path of pathsBetween(links, from, to)) {
          const passed = [from, ...path.map((l) => l.to)];
          expect(new Set(passed).size).toBe(passed.length);
          expect(passed.at(-1)).toBe(to);
        }
        expect(pathsBetween(links, from, to).length > 0).toBe(
          reachedFrom(links, from).includes(to) && from !== to,
        );
        if (circleOf(links) === null)
          for (const t of reachedFrom(links, from)) expect(reachedFrom(links, t)).not.toContain(from);
      }),
      { numRuns: 300, seed: 7 },
    );
  });
});
