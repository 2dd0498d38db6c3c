import { coloursPart } from "../anatomy/colours";
import { colour, directionDial, number, type Part, pastDial, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { readingPart } from "../anatomy/reading";
import { sharedParts } from "../anatomy/shared-parts";

export const PROGRESS_BAR_PARTS: Part[] = [
  {
    id: "bar",
    label: "Bar",
    dials: [
      directionDial("right"),
      number("thickness", "Thickness", 3, 60, 1, "px", 18),
      number("corner", "Rounding", 0, 100, 1, "%", 100),
      pastDial("Past the goal", "full"),
    ],
  },
  { id: "track", label: "Track", dials: [toggle("shown", "Shown", true), colour("colour", "Colour")] },
  { id: "target", label: "Target", dials: [toggle("shown", "Tick", true)] },
  labelsPart(
    ["none", "share", "value", "value target", "gap", "text"],
    "share",
    [
      ["auto", "where it fits"],
      ["inside", "inside"],
      ["outside", "at the end"],
    ],
    "auto",
    12,
    [toggle("remaining", "What remains", false)],
  ),
  readingPart("{share}", "{value} of {target}", 34),
  coloursPart("one"),
  ...sharedParts(),
];
