import { AXIS_PART } from "../anatomy/axis";
import { coloursPart } from "../anatomy/colours";
import { choice, colour, directionDial, number, part } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of lollipops with their dials, in the order in which they are offered. */
export const LOLLIPOP_PARTS = [
  part("stem", "Stem", [
    directionDial("up"),
    number("width", "Width", [0.5, 16, 0.5], "px", 3),
    colour("colour", "Colour"),
  ]),
  part("head", "Head", [
    number("diameter", "Diameter", [4, 80, 1], "px", 34),
    number("least", "Smallest", [2, 60, 1], "px", 10),
    number("border", "Border", [0, 6, 0.5], "px", 0),
    colour("borderColour", "Border colour"),
    choice(
      "picture",
      "Picture",
      [
        ["inside", "in the head"],
        ["above", "in place of the head"],
      ],
      "inside",
    ),
  ]),
  labelsPart({
    says: ["none", "category", "value", "share", "text"],
    say: "value",
    places: [
      ["auto", "where it fits"],
      ["head", "in the head"],
      ["end", "at the end"],
    ],
    place: "auto",
  }),
  part(
    "domain",
    "Scale",
    [
      choice(
        "start",
        "Starts",
        [
          ["zero", "at zero, or the baseline"],
          ["near", "near the lowest, unless from a baseline"],
        ],
        "zero",
      ),
    ],
    { says: true },
  ),
  AXIS_PART,
  legendPart("rules"),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of lollipops: it types the names of its dials. */
export type LollipopPart = (typeof LOLLIPOP_PARTS)[number];
