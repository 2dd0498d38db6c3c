import { AXIS_PART } from "../anatomy/axis";
import { coloursPart } from "../anatomy/colours";
import { choice, directionDial, number, part, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of a capsule stack with their dials, in the order in which they are offered. */
export const CAPSULE_STACK_PARTS = [
  part("bar", "Stack", [
    directionDial("up"),
    choice(
      "as",
      "Length",
      [
        ["values", "values"],
        ["shares", "shares of 100 %"],
      ],
      "values",
    ),
    number("width", "Thickness", [4, 100, 1], "%", 40),
    number("corner", "Rounding", [0, 100, 1], "%", 100),
    number("gap", "Segment gap", [0, 12, 0.5], "px", 2),
  ]),
  labelsPart({
    says: ["none", "value", "share"],
    say: "none",
    size: 11,
    more: [toggle("total", "Total at the end", true)],
  }),
  AXIS_PART,
  legendPart("auto"),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of a capsule stack: it types the names of its dials. */
export type CapsuleStackPart = (typeof CAPSULE_STACK_PARTS)[number];
