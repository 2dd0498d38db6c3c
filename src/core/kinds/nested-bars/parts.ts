import { AXIS_PART } from "../anatomy/axis";
import { coloursPart } from "../anatomy/colours";
import { choice, colour, directionDial, number, part } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of nested bars with their dials, in the order in which they are offered. */
export const NESTED_BARS_PARTS = [
  part("bar", "Outer bar", [
    directionDial("right"),
    choice(
      "holds",
      "Shows",
      [
        ["second", "the second value"],
        ["value", "the value"],
      ],
      "second",
    ),
    number("width", "Thickness", [10, 100, 1], "%", 56),
    number("corner", "Rounding", [0, 100, 1], "%", 30),
    colour("colour", "Colour"),
  ]),
  part("inner", "Inner bar", [
    number("width", "Thickness", [4, 100, 1], "%", 22),
    number("corner", "Rounding", [0, 100, 1], "%", 100),
  ]),
  part("scale", "Scale", [
    choice(
      "of",
      "Bars share",
      [
        ["one", "one scale"],
        ["two", "a scale each"],
      ],
      "one",
    ),
  ]),
  labelsPart({
    says: ["none", "value", "share"],
    say: "value",
    more: [
      choice(
        "of",
        "Of",
        [
          ["value", "the value"],
          ["second", "the second value"],
          ["both", "both"],
        ],
        "both",
      ),
    ],
  }),
  AXIS_PART,
  legendPart("auto"),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of nested bars: it types the names of its dials. */
export type NestedBarsPart = (typeof NESTED_BARS_PARTS)[number];
