import { AXIS_PART } from "../anatomy/bands";
import { coloursPart } from "../anatomy/colours";
import { choice, directionDial, number, type Part, toggle } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

export const CAPSULE_STACK_PARTS: Part[] = [
  {
    id: "bar",
    label: "Stack",
    dials: [
      directionDial("up"),
      choice(
        "as",
        "Length",
        [
          ["values", "values"],
          ["shares", "shares of 100 %"],
        ],
        "values",
      ),
      number("width", "Thickness", 4, 100, 1, "%", 40),
      number("corner", "Rounding", 0, 100, 1, "%", 100),
      number("gap", "Segment gap", 0, 12, 0.5, "px", 2),
    ],
  },
  labelsPart(["none", "value", "share"], "none", [], "", 11, [toggle("total", "Total at the end", true)]),
  AXIS_PART,
  legendPart("auto"),
  coloursPart("one"),
  ...sharedParts(),
];
