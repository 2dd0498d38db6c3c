import { FAMILIES } from "../../scene/families";
import { choice, colour, number, part, template, toggle } from "./dial";
import type { SceneInput } from "./kind";
import { surfacePart } from "./surface";

/** Parts that every kind has. */
export const sharedParts = (dashes = true) => [
  surfacePart(dashes),
  part("type", "Lettering", [
    choice(
      "family",
      "Typeface",
      FAMILIES.map((f) => [f.id, f.name]),
      "archivo",
    ),
  ]),
  part("heading", "Title", [
    toggle("shown", "Shown", true),
    number("size", "Size", [9, 32, 1], "px", 15),
    choice(
      "align",
      "Place",
      [
        ["start", "left"],
        ["middle", "centre"],
      ],
      "start",
    ),
  ]),
  part("frame", "Frame", [
    choice(
      "grow",
      "Larger tile",
      [
        ["fixed", "stay as set"],
        ["grow", "grow with a tile"],
      ],
      "fixed",
    ),
    number("padding", "Padding", [0, 48, 1], "px", 16),
    number("radius", "Corners", [0, 32, 1], "px", 12),
    toggle("border", "Border", true),
    toggle("filled", "Background", true),
    colour("background", "Background colour"),
    choice(
      "sheet",
      "Drawn for",
      [
        ["page", "as the page"],
        ["light", "light"],
        ["night", "night"],
      ],
      "page",
    ),
    template("empty", "When empty", "No rows here"),
  ]),
  part(
    "figures",
    "Numbers",
    [
      choice(
        "units",
        "Units",
        [
          ["measure", "as the measure"],
          ["none", "in full"],
          ["thousand", "thousands"],
          ["million", "millions"],
          ["billion", "billions"],
          ["automatic", "by size"],
        ],
        "measure",
      ),
      choice(
        "decimals",
        "Decimals",
        [
          ["measure", "as the measure"],
          ["automatic", "as told apart"],
          ...["0", "1", "2", "3", "4"].map((n): [string, string] => [n, n]),
        ],
        "measure",
      ),
    ],
    { says: true },
  ),
  part("tooltip", "Tooltip", [template("text", "Text", "")]),
  part("motion", "Motion", [
    number("entry", "At first", [0, 1500, 20], "ms", 420),
    number("change", "On a change", [0, 1500, 20], "ms", 220),
  ]),
];

/** The parts that every kind has. */
export type SharedPart = ReturnType<typeof sharedParts>[number];

/** What a kind needs to draw, of which only the dials that every kind has are read. */
export type SharedInput = SceneInput<SharedPart>;
