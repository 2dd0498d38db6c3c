import type { Setting } from "@/core/project/schema";
import { binsIn, binsQuery, extentIn, extentQuery, niceStep } from "@/core/view/column-extent";
import { element } from "./elements";
import type { FilterView, FilterWishes } from "./filter-view";
import { heldThumb } from "./held-thumb";
import { numberText } from "./number-text";

const SVG = "http://www.w3.org/2000/svg";

/** The ends of a setting; those of another form have none. */
const endsOf = (setting: Setting) => ("from" in setting ? setting : { from: null, to: null });

/** A filter of numbers: two thumbs over a small histogram. */
export function stretchView({ control, set }: FilterWishes): FilterView {
  let extent: { least: number; most: number } | null = null;
  /** The bars that are drawn, and the scale that the thumbs have. */
  let [drawn, scaled] = ["", ""];
  const bars = document.createElementNS(SVG, "svg");
  bars.setAttribute("class", "stretch-bars");
  bars.setAttribute("viewBox", "0 0 100 100");
  bars.setAttribute("preserveAspectRatio", "none");
  bars.setAttribute("aria-hidden", "true");
  const said = element("output", { class: "stretch-said" });
  const thumb = (end: "from" | "to") =>
    element("input", {
      type: "range",
      "aria-label": `${control.label} ${end}`,
      oninput: () => turn(end, true),
      onchange: () => turn(end, false),
    });
  const [from, to] = [thumb("from"), thumb("to")];
  const [isFromHeld, isToHeld] = [heldThumb(from), heldThumb(to)];
  const text = () => {
    const ends = [Number(from.value), Number(to.value)].map(numberText);
    for (const [i, one] of [from, to].entries()) one.setAttribute("aria-valuetext", ends[i]);
    said.textContent = ends.join(" – ");
  };
  /** Neither thumb passes the other; at its end of the scale it keeps all on that side. */
  const turn = (end: "from" | "to", live: boolean) => {
    if (!extent) return;
    if (Number(from.value) > Number(to.value))
      (end === "from" ? from : to).value = (end === "from" ? to : from).value;
    text();
    const [low, high] = [Number(from.value), Number(to.value)];
    set({ from: low <= extent.least ? null : low, to: high >= extent.most ? null : high }, live);
  };
  const drawBars = (counts: number[], { least, most }: NonNullable<typeof extent>) => {
    const key = JSON.stringify([counts, least, most]);
    if (key === drawn) return;
    drawn = key;
    const highest = Math.max(1, ...counts);
    bars.replaceChildren(
      ...counts.map((count, i) => {
        const bar = document.createElementNS(SVG, "rect");
        const [start, width] = [(100 * i) / counts.length, 100 / counts.length];
        // The root shows small counts beside large ones.
        const height = 100 * Math.sqrt(count / highest);
        for (const [name, value] of Object.entries({
          x: start + 0.5,
          width: width - 1,
          y: 100 - height,
          height,
        }))
          bar.setAttribute(name, String(value));
        return bar;
      }),
    );
  };
  const root = element("div", { class: "board-stretch" }, bars, from, to, said);
  return {
    root,
    show(setting, ground) {
      const answer = ground.answer(extentQuery(control));
      // While it is asked anew, what is known stands.
      if (answer) extent = extentIn(answer);
      root.toggleAttribute("data-empty", extent === null);
      for (const one of [from, to]) one.disabled = extent === null || extent.least === extent.most;
      if (!extent) {
        said.textContent = answer ? "no numbers" : "";
        return;
      }
      const { least, most } = extent;
      const step = niceStep(extent);
      // The last step reaches the greatest value, wherever it lies.
      const top = least + Math.ceil((most - least) / step - 1e-9) * step;
      const scale = JSON.stringify([least, top, step]);
      if (scale !== scaled)
        for (const one of [from, to])
          Object.assign(one, { min: String(least), max: String(top), step: String(step) });
      scaled = scale;
      const ends = endsOf(setting);
      if (!isFromHeld()) from.value = String(ends.from ?? least);
      if (!isToHeld()) to.value = String(ends.to ?? top);
      text();
      const counts = binsIn(ground.later(binsQuery(control, extent)));
      drawBars(counts, extent);
      for (const [i, bar] of [...bars.children].entries()) {
        const middle = least + ((most - least) * (i + 0.5)) / counts.length;
        const isKept = middle >= Number(ends.from ?? least) && middle <= Number(ends.to ?? most);
        bar.classList.toggle("stretch-kept", isKept);
      }
    },
  };
}
