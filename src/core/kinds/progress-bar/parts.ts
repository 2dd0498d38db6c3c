import { SHARED_PARTS } from "../frame";
import { choice, colour, number, type Part, template, toggle } from "../kind";

export const PROGRESS_BAR_PARTS: Part[] = [
  {
    id: "bar",
    label: "Bar",
    dials: [
      number("thickness", "Thickness", 3, 60, 1, "px", 18),
      number("corner", "Rounding", 0, 100, 1, "%", 100),
      colour("colour", "Colour"),
      choice(
        "past",
        "Past the goal",
        [
          ["hold", "hold at full"],
          ["lap", "second lap"],
          ["extend", "extend the scale"],
        ],
        "hold",
      ),
    ],
  },
  { id: "track", label: "Track", dials: [toggle("shown", "Shown", true), colour("colour", "Colour")] },
  { id: "target", label: "Target", dials: [toggle("shown", "Tick", true)] },
  {
    id: "labels",
    label: "Labels",
    dials: [
      choice(
        "content",
        "Say",
        [
          ["none", "nothing"],
          ["share", "share"],
          ["value", "value"],
          ["value target", "value of target"],
        ],
        "share",
      ),
      number("size", "Size", 9, 20, 0.5, "px", 12),
      toggle("remaining", "What remains", false),
    ],
  },
  {
    id: "reading",
    label: "Reading",
    dials: [toggle("shown", "Shown", true), template("text", "Text", "{share}"), template("caption", "Caption", "{value} of {target}"), number("size", "Size", 9, 72, 1, "px", 34)],
  },
  ...SHARED_PARTS,
];
