import { expect, test } from "vitest";
import { call } from "../core/formula/checking";
import { choice, number, part } from "../core/kinds/anatomy/dial";
import { type Style, styleFrom } from "../core/kinds/anatomy/style";
import { DONUT_PARTS, type DonutPart } from "../core/kinds/donut/parts";
import type { Edit } from "../core/project/edits";

/** What must not build: each line below a mark fails the check of types where it does build. */
function misspelt(style: Style<DonutPart>): unknown[] {
  return [
    style.number("arc.hole"),
    style.choice("arc.direction") === "counter",
    // @ts-expect-error a dial that the kind has not
    style.number("arc.hol"),
    // @ts-expect-error a dial of another type
    style.toggle("arc.hole"),
    // @ts-expect-error a choice that the dial has not
    style.choice("arc.direction") === "contra",
    // @ts-expect-error a handle on a dial that is no number
    style.handle("arc.direction", { x: 0, y: 0, track: () => null as never }),
    // @ts-expect-error a function that is not declared
    call("uper", "text", []),
    // @ts-expect-error an edit that does not exist
    { type: "rename bord", id: "b", name: "x" } satisfies Edit,
    // @ts-expect-error an edit that lacks what it needs
    { type: "rename board", id: "b" } satisfies Edit,
  ];
}

test("what is spelt right builds, and reads what it names", () => {
  expect(() => misspelt(styleFrom(DONUT_PARTS) as Style<DonutPart>)).toThrow("arc.hol is no number dial");
});

test("dials are read by name within a part that a kind has whole, and not else", () => {
  const ring = part("ring", "Ring", [number("gap", "Gap", [0, 9, 1], "px", 4)]);
  const more = part("ring", "Ring", [...ring.dials, choice("caps", "Ends", [["flat", "flat"]], "flat")]);
  const style = styleFrom([ring], { "ring.gap": 20 });
  expect(style.within(ring)?.number("ring.gap")).toBe(9);
  expect(style.within(more)).toBeNull();
  expect(() => style.number("ring.caps")).toThrow("ring.caps is no number dial of this kind");
});
