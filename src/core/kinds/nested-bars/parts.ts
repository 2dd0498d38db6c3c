import { AXIS_PART } from "../anatomy/bands";
import { coloursPart } from "../anatomy/colours";
import { choice, colour, directionDial, number, type Part } from "../anatomy/dial";
import { labelsPart } from "../anatomy/labels";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";

export const NESTED_BARS_PARTS: Part[] = [
  {
    id: "bar",
    label: "Outer bar",
    dials: [
      directionDial("right"),
      number("width", "Thickness", 10, 100, 1, "%", 56),
      number("corner", "Rounding", 0, 100, 1, "%", 30),
      colour("colour", "Colour"),
    ],
  },
  {
    id: "inner",
    label: "Inner bar",
    dials: [
      number("width", "Thickness", 4, 100, 1, "%", 22),
      number("corner", "Rounding", 0, 100, 1, "%", 100),
    ],
  },
  {
    id: "scale",
    label: "Scale",
    dials: [
      choice(
        "of",
        "Bars share",
        [
          ["one", "one scale"],
          ["two", "a scale each"],
        ],
        "one",
      ),
    ],
  },
  labelsPart(["none", "value", "share"], "value", [], "", 11.5),
  AXIS_PART,
  legendPart("auto", false),
  coloursPart("one"),
  ...sharedParts(),
];
