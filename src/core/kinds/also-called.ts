import type { Visual } from "../project/schema";
import type { KindId } from "./index";

/** What people call a kind, or a form that some of its dials give it. */
export interface Called {
  name: string;
  dials?: Visual["dials"];
}

/** What kinds are called besides their own names; each leads to the kind, with the dials that make it. */
export const ALSO_CALLED: Record<KindId, readonly Called[]> = {
  donut: [
    { name: "Pie", dials: { "arc.hole": 0, "arc.gap": 1.5, "reading.shown": false } },
    { name: "Half donut", dials: { "arc.sweep": 180, "arc.start": 270 } },
    { name: "Thin ring of parts", dials: { "arc.hole": 84 } },
    { name: "Share of the whole" },
  ],
  "progress ring": [
    { name: "Progress circle" },
    { name: "Circular progress" },
    { name: "Activity rings" },
    { name: "Percentage ring" },
    { name: "Completion" },
  ],
  gauge: [
    { name: "Meter" },
    { name: "Speedometer", dials: { "arc.preset": "240", "scale.ticks": 10 } },
    { name: "Half-circle gauge", dials: { "arc.preset": "180" } },
    { name: "Arc without a needle", dials: { "needle.form": "none", "arc.fill": "progress" } },
    { name: "Pointer" },
  ],
  "progress bar": [
    { name: "Thermometer", dials: { "bar.direction": "up", "bar.thickness": 26 } },
    { name: "Bullet" },
    { name: "Level" },
    { name: "Target bar" },
  ],
  lollipop: [
    { name: "Dot plot", dials: { "stem.width": 0.5, "head.diameter": 16, "stem.direction": "right" } },
    { name: "Stem plot" },
    { name: "Pins" },
  ],
  "rounded bars": [
    { name: "Bar chart" },
    { name: "Column chart", dials: { "bar.direction": "up" } },
    { name: "Gradient bars", dials: { "surface.shade": "ramp" } },
    { name: "Grouped bars" },
  ],
  "capsule stack": [
    { name: "Stacked bars" },
    { name: "Stacked columns", dials: { "bar.direction": "up" } },
    { name: "Segmented bar" },
  ],
  "nested bars": [{ name: "Bar in a bar" }, { name: "Overlapping bars" }, { name: "Actual against plan" }],
  "radial bars": [{ name: "Circular bars" }, { name: "Bars around a circle" }, { name: "Race track" }],
  rose: [{ name: "Polar area" }, { name: "Petals" }, { name: "Wind rose" }],
  waffle: [{ name: "Pictogram" }, { name: "Icon array" }, { name: "Dot matrix" }, { name: "Square pie" }],
  number: [
    { name: "Number card" },
    { name: "KPI card" },
    { name: "Big number" },
    { name: "Single value" },
    { name: "Spark line" },
    { name: "Change" },
  ],
};

/** A kind, or a form of one, that a search found: what it is called, and the dials that make it. */
export interface Found {
  kind: KindId;
  name: string;
  dials: NonNullable<Called["dials"]>;
}

/**
 * The kinds whose own name, purpose or other names hold a text, and the forms that do: a form has dials of
 * its own, and stands beside its kind. All kinds, and no forms, where the text is empty.
 */
export function kindsCalled(
  text: string,
  kinds: readonly { id: KindId; label: string; purpose: string }[],
): Found[] {
  const wanted = text.trim().toLowerCase();
  const holds = (...texts: string[]) => texts.some((t) => t.toLowerCase().includes(wanted));
  return kinds.flatMap(({ id, label, purpose }) => {
    const forms = ALSO_CALLED[id].filter(({ name }) => wanted !== "" && holds(name));
    const made = forms.flatMap(({ name, dials }): Found[] => (dials ? [{ kind: id, name, dials }] : []));
    const isPlain = holds(label, purpose) || forms.some(({ dials }) => !dials);
    return [...(isPlain ? [{ kind: id, name: label, dials: {} }] : []), ...made];
  });
}
