import { coloursPart } from "../anatomy/colours";
import { capsDial, choice, colour, number, part, pastDial, template, toggle } from "../anatomy/dial";
import { sharedParts } from "../anatomy/shared-parts";

/** The parts of a gauge with their dials, in the order in which they are offered. */
export const GAUGE_PARTS = [
  part("arc", "Arc", [
    choice(
      "preset",
      "Opening",
      [
        ["own", "as set below"],
        ["180", "half circle"],
        ["240", "240°"],
        ["270", "three quarters"],
      ],
      "own",
    ),
    number("start", "Start", [0, 359, 1], "°", 240),
    number("sweep", "Sweep", [60, 340, 1], "°", 240),
    number("thickness", "Thickness", [2, 80, 1], "px", 18),
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
    capsDial("flat"),
    pastDial("Past the end", "the end"),
  ]),
  part("zones", "Zones", [
    toggle("words", "Words", true),
    number("gap", "Gap", [0, 12, 0.5], "px", 0),
    choice(
      "edges",
      "Edges are",
      [
        ["value", "values"],
        ["share", "shares of the range"],
      ],
      "value",
    ),
    toggle("ramp", "Ramp inside", false),
  ]),
  part("needle", "Needle", [
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
    number("length", "Length", [20, 100, 1], "%", 90),
    number("width", "Width", [1, 24, 0.5], "px", 7),
    number("hub", "Hub", [0, 40, 1], "px", 9),
    colour("colour", "Colour"),
  ]),
  part("target", "Target", [toggle("shown", "Mark", true), number("size", "Size", [4, 30, 1], "px", 11)]),
  part("scale", "Scale", [toggle("ends", "End labels", true), number("ticks", "Ticks", [0, 20, 1], "", 0)]),
  part("reading", "Number and caption", [
    toggle("shown", "Shown", true),
    template("text", "Text", "{value}"),
    toggle("word", "Zone word", true),
    number("size", "Size", [9, 72, 1], "px", 28),
  ]),
  part("plate", "Title plate", [toggle("shown", "Shown", false), template("text", "Text", "{measure}")]),
  coloursPart("one"),
  ...sharedParts(),
];

/** One of the parts of a gauge: it types the names of its dials. */
export type GaugePart = (typeof GAUGE_PARTS)[number];
