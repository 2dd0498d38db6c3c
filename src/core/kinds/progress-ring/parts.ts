import { coloursPart } from "../anatomy/colours";
import { againstDial, capsDial, choice, colour, number, part, pastDial, toggle } from "../anatomy/dial";
import { legendPart } from "../anatomy/legend";
import { RING_PLACES } from "../anatomy/ring-names";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of a progress ring with their dials, in the order in which they are offered. */
export const PROGRESS_RING_PARTS = [
  part("ring", "Ring", [
    number("thickness", "Thickness", [2, 60, 1], "px", 18),
    number("start", "Start", [0, 359, 1], "°", 0),
    number("sweep", "Sweep", [60, 360, 1], "°", 360),
    number("gap", "Ring gap", [0, 30, 1], "px", 5),
    capsDial("round"),
    pastDial("Past the target", "full"),
    againstDial(),
  ]),
  part("track", "Track", [toggle("shown", "Shown", true), colour("colour", "Colour")]),
  part("labels", "Labels", [
    choice("place", "Names", [...RING_PLACES, ["none", "none"]], "auto"),
    number("size", "Size", [9, 24, 0.5], "px", 11.5),
  ]),
  legendPart("auto"),
  readingPart("{share}", "of {target}", 40),
  coloursPart("category"),
  ...sharedParts(),
];

/** One of the parts of a progress ring: it types the names of its dials. */
export type ProgressRingPart = (typeof PROGRESS_RING_PARTS)[number];
