import { coloursPart } from "../anatomy/colours";
import { choice, colour, number, part, toggle } from "../anatomy/dial";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of a number card with their dials, in the order in which they are offered. */
export const NUMBER_CARD_PARTS = [
  readingPart("{value}", "", 48),
  part("change", "Change", [
    toggle("shown", "Shown", true),
    choice(
      "as",
      "Written as",
      [
        ["percent", "percent"],
        ["value", "value"],
      ],
      "percent",
    ),
    toggle("name", "Compared with", true),
    number("size", "Size", [9, 32, 0.5], "px", 14),
  ]),
  part("spark", "Spark line", [
    choice(
      "form",
      "Form",
      [
        ["line", "line"],
        ["area", "line over an area"],
        ["bars", "bars"],
        ["none", "none"],
      ],
      "area",
    ),
    number("width", "Width", [0.5, 6, 0.25], "px", 2),
    toggle("last", "Mark the last", true),
    colour("colour", "Colour"),
  ]),
  part("layout", "Layout", [
    choice(
      "of",
      "Spark line",
      [
        ["below", "below"],
        ["right", "at the right"],
      ],
      "below",
    ),
    choice(
      "align",
      "Place",
      [
        ["start", "left"],
        ["middle", "centre"],
      ],
      "start",
    ),
  ]),
  coloursPart("one"),
  ...sharedParts(false),
];

/** One of the parts of a number card: it types the names of its dials. */
export type NumberCardPart = (typeof NUMBER_CARD_PARTS)[number];
