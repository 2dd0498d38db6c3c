import { coloursPart } from "../anatomy/colours";
import { againstDial, colour, directionDial, number, part, pastDial, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of a progress bar with their dials, in the order in which they are offered. */
export const PROGRESS_BAR_PARTS = [
  part("bar", "Bar", [
    directionDial("right"),
    number("thickness", "Thickness", [3, 60, 1], "px", 18),
    number("corner", "Rounding", [0, 100, 1], "%", 100),
    pastDial("Past the target", "full"),
    againstDial(),
  ]),
  part("track", "Track", [toggle("shown", "Shown", true), colour("colour", "Colour")]),
  part("target", "Target", [toggle("shown", "Tick", true)]),
  labelsPart({
    says: ["none", "share", "value", "value target", "gap", "text"],
    say: "share",
    places: [
      ["auto", "where it fits"],
      ["inside", "inside"],
      ["outside", "at the end"],
    ],
    place: "auto",
    size: 12,
    more: [toggle("remaining", "What remains", false)],
  }),
  readingPart("{share}", "{value} of {target}", 34),
  legendPart("rules"),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of a progress bar: it types the names of its dials. */
export type ProgressBarPart = (typeof PROGRESS_BAR_PARTS)[number];
