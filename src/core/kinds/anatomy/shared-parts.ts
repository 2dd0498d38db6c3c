import { FAMILIES } from "../../scene/families";
import { choice, colour, number, type Part, template, toggle } from "./dial";
import { surfacePart } from "./surface";

/** Parts that every kind has. */
export const sharedParts = (dashes = true): Part[] => [
  surfacePart(dashes),
  {
    id: "type",
    label: "Type",
    dials: [
      choice(
        "family",
        "Family",
        FAMILIES.map((f) => [f.id, f.name]),
        "archivo",
      ),
    ],
  },
  {
    id: "heading",
    label: "Heading",
    dials: [
      toggle("shown", "Shown", true),
      number("size", "Size", 9, 32, 1, "px", 15),
      choice(
        "align",
        "Place",
        [
          ["start", "left"],
          ["middle", "centre"],
        ],
        "start",
      ),
    ],
  },
  {
    id: "frame",
    label: "Frame",
    dials: [
      number("padding", "Padding", 0, 48, 1, "px", 16),
      number("radius", "Corners", 0, 32, 1, "px", 12),
      toggle("border", "Border", true),
      toggle("filled", "Background", true),
      colour("background", "Its colour"),
      choice(
        "sheet",
        "Sheet",
        [
          ["page", "as the page"],
          ["light", "light"],
          ["night", "night"],
        ],
        "page",
      ),
      template("empty", "When empty", "No rows here"),
    ],
  },
  {
    id: "figures",
    label: "Numbers",
    dials: [
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
        [["measure", "as the measure"], ...["0", "1", "2", "3", "4"].map((n): [string, string] => [n, n])],
        "measure",
      ),
    ],
  },
  { id: "tooltip", label: "Tooltip", dials: [template("text", "Text", "")] },
  {
    id: "motion",
    label: "Motion",
    dials: [
      number("entry", "Entry", 0, 1500, 20, "ms", 420),
      number("change", "Change", 0, 1500, 20, "ms", 220),
    ],
  },
];
