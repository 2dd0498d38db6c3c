import { coloursPart } from "../anatomy/colours";
import { capsDial, colour, number, type Part, pastDial, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { readingPart } from "../anatomy/reading";
import { sharedParts } from "../anatomy/shared-parts";

export const RADIAL_BARS_PARTS: Part[] = [
  {
    id: "ring",
    label: "Bars",
    dials: [
      number("start", "Start", 0, 359, 1, "°", 0),
      number("sweep", "Sweep", 90, 360, 1, "°", 270),
      number("hole", "Hole", 10, 80, 1, "%", 30),
      number("gap", "Gap", 0, 30, 1, "px", 6),
      number("thickness", "Thickness", 2, 60, 1, "px", 14),
      capsDial("round"),
      pastDial("Past the goal", "the end"),
    ],
  },
  {
    id: "track",
    label: "Track",
    dials: [
      toggle("shown", "Shown", true),
      colour("colour", "Colour"),
      number("opacity", "Strength", 10, 100, 5, "%", 100),
    ],
  },
  labelsPart(["none", "category", "value", "share", "category value"], "category value", [], "", 11.5),
  legendPart("none"),
  readingPart("{total}", "", 24),
  coloursPart("category"),
  ...sharedParts(),
];
