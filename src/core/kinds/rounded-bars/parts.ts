import { AXIS_PART } from "../anatomy/axis";
import { coloursPart } from "../anatomy/colours";
import { choice, colour, directionDial, number, part, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of rounded bars with their dials, in the order in which they are offered. */
export const ROUNDED_BARS_PARTS = [
  part("bar", "Bar", [
    directionDial("up"),
    number("width", "Thickness", [4, 100, 1], "%", 44),
    number("corner", "Rounding", [0, 100, 1], "%", 100),
    choice(
      "ends",
      "Rounded",
      [
        ["both", "both ends"],
        ["far", "the far end"],
      ],
      "both",
    ),
    number("gap", "Gap in a group", [0, 20, 0.5], "px", 3),
  ]),
  part("track", "Track", [toggle("shown", "Shown", false), colour("colour", "Colour")]),
  labelsPart({
    says: ["none", "category", "value", "share", "text"],
    say: "value",
    places: [
      ["end", "at the end"],
      ["inside", "inside"],
    ],
    place: "end",
  }),
  AXIS_PART,
  legendPart("auto"),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of rounded bars: it types the names of its dials. */
export type RoundedBarsPart = (typeof ROUNDED_BARS_PARTS)[number];
