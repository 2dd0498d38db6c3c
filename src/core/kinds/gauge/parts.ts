import { SHARED_PARTS } from "../frame";
import { choice, colour, number, type Part, template, toggle } from "../kind";

export const GAUGE_PARTS: Part[] = [
  {
    id: "arc",
    label: "Arc",
    dials: [
      number("start", "Start", 0, 359, 1, "°", 240),
      number("sweep", "Sweep", 60, 340, 1, "°", 240),
      number("thickness", "Thickness", 2, 80, 1, "px", 18),
      choice(
        "fill",
        "Fill",
        [
          ["zones", "zones"],
          ["progress", "progress"],
          ["both", "both"],
        ],
        "zones",
      ),
      choice(
        "caps",
        "Ends",
        [
          ["flat", "flat"],
          ["round", "round"],
        ],
        "flat",
      ),
      choice(
        "past",
        "Past the end",
        [
          ["hold", "hold at the end"],
          ["lap", "second lap"],
          ["extend", "extend the scale"],
        ],
        "hold",
      ),
    ],
  },
  { id: "zones", label: "Zones", dials: [toggle("words", "Words", true), number("gap", "Gap", 0, 12, 0.5, "px", 0)] },
  {
    id: "needle",
    label: "Needle",
    dials: [
      choice(
        "form",
        "Form",
        [
          ["taper", "taper"],
          ["line", "line"],
          ["wedge", "wedge"],
          ["none", "none"],
        ],
        "taper",
      ),
      number("length", "Length", 20, 100, 1, "%", 72),
      number("width", "Width", 1, 24, 0.5, "px", 7),
      number("hub", "Hub", 0, 40, 1, "px", 9),
      colour("colour", "Colour"),
    ],
  },
  { id: "target", label: "Target", dials: [toggle("shown", "Mark", true), number("size", "Size", 4, 30, 1, "px", 11)] },
  { id: "scale", label: "Scale", dials: [toggle("ends", "End labels", true), number("ticks", "Ticks", 0, 20, 1, "", 0)] },
  {
    id: "reading",
    label: "Reading",
    dials: [toggle("shown", "Shown", true), template("text", "Text", "{value}"), toggle("word", "Zone word", true), number("size", "Size", 9, 72, 1, "px", 28)],
  },
  ...SHARED_PARTS,
];
