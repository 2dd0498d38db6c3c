import { coloursPart } from "../anatomy/colours";
import { choice, number, part } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of a rose with their dials, in the order in which they are offered. */
export const ROSE_PARTS = [
  part("petal", "Petals", [
    number("start", "Start", [0, 359, 1], "°", 0),
    number("hole", "Hole", [0, 70, 1], "%", 16),
    choice(
      "by",
      "Value is",
      [
        ["area", "the area"],
        ["length", "the length"],
      ],
      "area",
    ),
    number("gap", "Gap", [0, 12, 0.5], "px", 2.5),
    number("corner", "Rounding", [0, 24, 0.5], "px", 5),
  ]),
  labelsPart({
    says: ["none", "category", "value", "share", "category value", "category share", "text"],
    say: "category value",
    places: [
      ["inside", "inside"],
      ["outside", "outside"],
    ],
    place: "outside",
  }),
  part("rings", "Rings", [number("count", "Rings", [0, 6, 1], "", 0)]),
  legendPart("auto"),
  coloursPart("ramp"),
  ...sharedParts(),
];

/** One of the parts of a rose: it types the names of its dials. */
export type RosePart = (typeof ROSE_PARTS)[number];
