import { coloursPart } from "../anatomy/colours";
import { choice, colour, number, part, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of a donut with their dials, in the order in which they are offered. */
export const DONUT_PARTS = [
  part("arc", "Ring", [
    number("hole", "Hole", [0, 95, 1], "%", 62),
    number("start", "Start", [0, 359, 1], "°", 0),
    number("sweep", "Sweep", [30, 360, 1], "°", 360),
    choice(
      "direction",
      "Direction",
      [
        ["clockwise", "clockwise"],
        ["counter", "the other way"],
      ],
      "clockwise",
    ),
    number("gap", "Gap", [0, 16, 0.5], "px", 3),
    number("corner", "Rounding", [0, 30, 0.5], "px", 5),
    number("border", "Border", [0, 6, 0.5], "px", 0),
    colour("borderColour", "Border colour"),
    number("ringGap", "Ring gap", [0, 24, 1], "px", 4),
  ]),
  labelsPart({
    says: ["none", "category", "value", "share", "category share", "category value", "value share", "text"],
    say: "share",
    places: [
      ["inside", "inside"],
      ["outside", "outside"],
    ],
    place: "inside",
    more: [number("least", "Leave out below", [0, 20, 0.5], "%", 3), toggle("leaders", "Leader lines", true)],
  }),
  legendPart("auto"),
  readingPart("{total}", "{measure}", 34),
  coloursPart("category"),
  ...sharedParts(),
];

/** One of the parts of a donut: it types the names of its dials. */
export type DonutPart = (typeof DONUT_PARTS)[number];
