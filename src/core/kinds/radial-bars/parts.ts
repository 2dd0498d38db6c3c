import { coloursPart } from "../anatomy/colours";
import { againstDial, capsDial, colour, number, part, pastDial, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { TRACK_STRENGTH } from "../anatomy/progress-arcs";
import { RING_PLACES } from "../anatomy/ring-names";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of radial bars with their dials, in the order in which they are offered. */
export const RADIAL_BARS_PARTS = [
  part("ring", "Bars", [
    number("start", "Start", [0, 359, 1], "°", 0),
    number("sweep", "Sweep", [90, 360, 1], "°", 270),
    number("hole", "Hole", [10, 80, 1], "%", 30),
    number("gap", "Gap", [0, 30, 1], "px", 6),
    number("thickness", "Thickness", [2, 60, 1], "px", 14),
    capsDial("round"),
    pastDial("Past the target", "the end"),
    againstDial(),
  ]),
  part("track", "Track", [
    toggle("shown", "Shown", true),
    colour("colour", "Colour"),
    ...TRACK_STRENGTH.dials,
  ]),
  labelsPart({
    says: ["none", "category", "value", "share", "category value"],
    say: "category value",
    places: RING_PLACES,
    place: "auto",
  }),
  legendPart("auto"),
  readingPart("{total}", "", 24),
  coloursPart("category"),
  ...sharedParts(),
];

/** One of the parts of radial bars: it types the names of its dials. */
export type RadialBarsPart = (typeof RADIAL_BARS_PARTS)[number];
