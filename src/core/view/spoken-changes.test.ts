import { describe, expect, it } from "vitest";
import { changesSaid, type Headline } from "./spoken-changes";

const board = (...values: (string | null)[]) =>
  new Map<string, Headline | null>(
    values.map((value, i) => [`t${i}`, value === null ? null : { label: `M${i}`, value }]),
  );

describe("what is said of changed numbers", () => {
  it("is two of them with those before, and how many others", () => {
    expect(changesSaid(board("1", "2", "3", "4", "5"), board("9", "2", "8", "7", "6"))).toBe(
      "M0 9, before 1; M2 8, before 3; 2 others changed.",
    );
    expect(changesSaid(board("1", "2", "3"), board("4", "5", "6"))).toBe(
      "M0 4, before 1; M1 5, before 2; 1 other changed.",
    );
  });

  it("says the number of two visuals once, and another measure by its name", () => {
    const same = (value: string) =>
      new Map([
        ["a", { label: "Passengers", value }],
        ["b", { label: "Passengers", value }],
      ]);
    expect(changesSaid(same("5"), same("3"))).toBe("Passengers 3, before 5.");
    expect(
      changesSaid(
        new Map([["a", { label: "Passengers", value: "5" }]]),
        new Map([["a", { label: "Seats", value: "9" }]]),
      ),
    ).toBe("Seats 9, before Passengers 5.");
  });

  it("says so where nothing changed, and nothing where there is nothing to compare", () => {
    expect(changesSaid(board("1", "2"), board("1", "2"))).toBe("No number changed.");
    expect(changesSaid(board(null), board("1"))).toBe("");
    expect(changesSaid(new Map(), board("1"))).toBe("");
  });
});
