import { kindOf } from "../kinds";
import { contrast } from "../scene/colour";
import { paletteOf } from "../scene/palettes";
import { change, type ReviewRule, turn } from "./finding";
import { wholeAs } from "./parts-of-a-whole";

/** A ramp of colours on bars: their length says the same, and the colour is read as something else. */
export const rampOnBars: ReviewRule = {
  id: "ramp on bars",
  look: (facts) => {
    const { visual, style, data } = facts;
    if (!kindOf(visual.kind).byLength || style.value("colours.by") !== "ramp" || data.rows.length < 2)
      return null;
    return {
      text: "The colour of each bar says again what its length says.",
      why: "A ramp is read as a second variable, which there is none of.",
      mend: turn("Use one colour", facts, "colours.by", "one"),
    };
  },
};

/** A ramp between colours of one's own along each bar: it is read as what changes along the scale. */
export const rampWithinBars: ReviewRule = {
  id: "ramp within bars",
  look: (facts) => {
    const { visual, style, data } = facts;
    const isOwn = ["surface.from", "surface.middle"].some((dial) => style.value(dial) !== "");
    if (!kindOf(visual.kind).byLength || style.value("surface.shade") !== "ramp" || !isOwn) return null;
    if (data.rows.length < 2) return null;
    const { "surface.from": _from, "surface.middle": _middle, ...dials } = visual.dials;
    return {
      text: "The colour changes along each bar, where its length alone has a meaning.",
      why: "Who sees a colour change looks for what it stands for: zones, or a second value.",
      mend: change("Paint each bar in its own colour", facts, {
        dials: { ...dials, "surface.shade": "flat" },
      }),
    };
  },
};

/** Red and green without a word: one reader in twelve cannot tell them apart. */
export const redAndGreenAlone: ReviewRule = {
  id: "red and green alone",
  look: (facts) => {
    const { visual, style } = facts;
    const tones = new Set(visual.zones.map((z) => z.tone));
    const isAlone =
      tones.has("poor") &&
      tones.has("good") &&
      style.has("zones.words") &&
      style.value("zones.words") === false;
    if (!isAlone) return null;
    return {
      text: "Good and poor are told by their colours alone.",
      why: "Who cannot tell red from green does not see on which side the value lies.",
      mend: turn("Write the words of the zones", facts, "zones.words", true),
    };
  },
};

/** Labels in a colour that does not stand out from the sheet. */
export const paleLabels: ReviewRule = {
  id: "pale labels",
  look: (facts) => {
    const { style, visual } = facts;
    const ink = style.has("labels.colour") ? String(style.value("labels.colour")) : "";
    const sheet = String(style.value("frame.background"));
    if (!ink || !sheet || visual.dials["labels.colour"] === undefined) return null;
    const ratio = contrast(ink, sheet);
    if (ratio >= 4.5) return null;
    return {
      text: `Labels stand out from their sheet by ${ratio.toFixed(1)} to 1.`,
      why: "Below 4.5 to 1 small type cannot be read by many.",
      mend: turn("Give them the colour that reads", facts, "labels.colour", null),
    };
  },
};

/** More categories than the palette has colours. */
export const moreThanColours: ReviewRule = {
  id: "more categories than colours",
  look: (facts) => {
    const { style, data, design } = facts;
    // Of too many slices that is said already.
    if (wholeAs(facts) === "slices") return null;
    if (!style.has("colours.by") || style.value("colours.by") !== "category" || data.series.length > 0)
      return null;
    const palette = paletteOf(String(style.value("colours.palette")), design.palettes);
    const own = data.rows.filter((r) => r.groups === 0).length;
    if (palette.type !== "categorical" || own <= palette.light.length) return null;
    const first = palette.light.length - 1;
    return {
      text: `${own} categories share ${palette.light.length} colours.`,
      why: "The same colour then stands for several of them.",
      mend: change(`Keep the first ${first} and Other`, facts, {
        keep: { first, others: true },
      }),
    };
  },
};
