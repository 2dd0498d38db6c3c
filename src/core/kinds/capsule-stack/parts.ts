import { AXIS_PART } from "../bands";
import { coloursPart } from "../colours";
import { sharedParts } from "../frame";
import { choice, directionDial, number, type Part, toggle } from "../kind";
import { labelsPart } from "../labels";
import { legendPart } from "../legend";

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
