import { SHARED_PARTS } from "../frame";
import { choice, colour, number, type Part, template, toggle } from "../kind";

export const DONUT_PARTS: Part[] = [
  {
    id: "arc",
    label: "Ring",
    dials: [
      number("hole", "Hole", 0, 95, 1, "%", 62),
      number("start", "Start", 0, 359, 1, "°", 0),
      number("sweep", "Sweep", 30, 360, 1, "°", 360),
      choice(
        "direction",
        "Direction",
        [
          ["clockwise", "clockwise"],
          ["counter", "the other way"],
        ],
        "clockwise",
      ),
      number("gap", "Gap", 0, 16, 0.5, "px", 3),
      number("corner", "Rounding", 0, 30, 0.5, "px", 5),
    ],
  },
  {
    id: "labels",
    label: "Labels",
    dials: [
      choice(
        "content",
        "Say",
        [
          ["none", "nothing"],
          ["category", "category"],
          ["value", "value"],
          ["share", "share"],
          ["category share", "category and share"],
          ["category value", "category and value"],
        ],
        "share",
      ),
      choice(
        "place",
        "Place",
        [
          ["inside", "inside"],
          ["outside", "outside"],
        ],
        "inside",
      ),
      number("size", "Size", 9, 20, 0.5, "px", 11.5),
      number("least", "Least share", 0, 20, 0.5, "%", 3),
    ],
  },
  {
    id: "legend",
    label: "Legend",
    dials: [
      choice(
        "place",
        "Place",
        [
          ["auto", "where it fits"],
          ["none", "none"],
          ["right", "right"],
          ["bottom", "below"],
        ],
        "auto",
      ),
      toggle("values", "With values", true),
    ],
  },
  {
    id: "reading",
    label: "Reading",
    dials: [toggle("shown", "Shown", true), template("text", "Text", "{total}"), template("caption", "Caption", "{measure}"), number("size", "Size", 9, 72, 1, "px", 34)],
  },
  { id: "colours", label: "Colours", dials: [colour("first", "First segment")] },
  ...SHARED_PARTS,
];
