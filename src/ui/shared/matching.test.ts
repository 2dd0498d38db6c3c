import fc from "fast-check";
import { expect, it } from "vitest";
import { matching } from "./matching";

const names = ["Total riders", "Riders", "Late riders share", "constructor", "Ärger", ""];
const found = (find: string) => matching(names, find, (n) => n);

it("finds names with every word of what is typed, those that begin with it first", () => {
  expect(found("riders")).toEqual(["Riders", "Total riders", "Late riders share"]);
  expect(found("share LATE")).toEqual(["Late riders share"]);
  expect(found("ärg")).toEqual(["Ärger"]);
  expect(found("constr")).toEqual(["constructor"]);
  expect(found("  ")).toBe(names);
  expect(found("toString")).toEqual([]);
});

it("never finds anything twice, and nothing that is not there", () => {
  fc.assert(
    fc.property(fc.array(fc.string()), fc.string(), (all, find) => {
      const some = matching(all, find, (n) => n);
      const left = [...all];
      for (const one of some) {
        expect(left).toContain(one);
        left.splice(left.indexOf(one), 1);
      }
    }),
  );
});
