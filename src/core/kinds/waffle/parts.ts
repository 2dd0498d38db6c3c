import { coloursPart } from "../anatomy/colours";
import { choice, colour, number, part, pastDial, toggle } from "../anatomy/dial";
import { legendPart } from "../anatomy/legend";
import { sharedParts } from "../anatomy/shared-parts";
import { readingPart } from "../anatomy/visual-reading";

/** The parts of a waffle with their dials, in the order in which they are offered. */
export const WAFFLE_PARTS = [
  part("cell", "Cells", [
    number("rows", "Rows", [1, 25, 1], "", 10),
    number("columns", "Columns", [1, 40, 1], "", 10),
    choice(
      "shape",
      "Shape",
      [
        ["square", "square"],
        ["rounded", "rounded"],
        ["circle", "circle"],
        ["diamond", "diamond"],
      ],
      "rounded",
    ),
    choice(
      "picture",
      "Picture",
      [
        ["inside", "in the cell"],
        ["above", "in place of the cell"],
      ],
      "inside",
    ),
    number("gap", "Gap", [0, 60, 1], "%", 20),
    choice(
      "order",
      "Filled by",
      [
        ["row", "rows"],
        ["column", "columns"],
      ],
      "row",
    ),
    choice(
      "corner",
      "From",
      [
        ["bottom left", "bottom left"],
        ["top left", "top left"],
        ["bottom right", "bottom right"],
        ["top right", "top right"],
      ],
      "bottom left",
    ),
    toggle("part", "Part-filled cell", true),
    choice(
      "grids",
      "Grids",
      [
        ["auto", "as the parts add up"],
        ["one", "one for all parts"],
        ["each", "one for each part"],
      ],
      "auto",
    ),
    pastDial("Past the target", "full"),
  ]),
  part("track", "Empty cells", [toggle("shown", "Shown", true), colour("colour", "Colour")]),
  readingPart("{share}", "{measure}", 30),
  part(
    "readingplace",
    "Place of the number",
    [
      choice(
        "place",
        "Place",
        [
          ["beside", "beside the grid"],
          ["over", "over the grid"],
        ],
        "beside",
      ),
    ],
    { says: true },
  ),
  legendPart("auto"),
  coloursPart("category"),
  ...sharedParts(false),
];

/** One of the parts of a waffle: it types the names of its dials. */
export type WafflePart = (typeof WAFFLE_PARTS)[number];
