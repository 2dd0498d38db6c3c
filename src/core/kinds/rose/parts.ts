import { coloursPart } from "../anatomy/colours";
import { choice, number, type Part } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

export const ROSE_PARTS: Part[] = [
  {
    id: "petal",
    label: "Petals",
    dials: [
      number("start", "Start", 0, 359, 1, "°", 0),
      number("hole", "Hole", 0, 70, 1, "%", 16),
      choice(
        "by",
        "Value is",
        [
          ["area", "the area"],
          ["length", "the length"],
        ],
        "area",
      ),
      number("gap", "Gap", 0, 12, 0.5, "px", 2.5),
      number("corner", "Rounding", 0, 24, 0.5, "px", 5),
    ],
  },
  labelsPart(
    ["none", "category", "value", "share", "category value", "category share", "text"],
    "category value",
    [
      ["inside", "inside"],
      ["outside", "outside"],
    ],
    "outside",
  ),
  { id: "rings", label: "Rings", dials: [number("count", "Rings", 0, 6, 1, "", 0)] },
  legendPart("none"),
  coloursPart("ramp"),
  ...sharedParts(),
];
