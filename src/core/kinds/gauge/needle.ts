import type { Datum, Mark } from "../../scene/marks";
import type { SceneInput } from "../anatomy/kind";
import { clamp, type Scale, shareOf } from "../anatomy/scale";
import type { Face } from "./face";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** The outline of a needle that points upwards from its hub. */
function needlePoints(form: "taper" | "line" | "wedge", length: number, width: number): [number, number][] {
  switch (form) {
    case "line":
      return [
        [-width / 4, 0],
        [-width / 4, -length],
        [width / 4, -length],
        [width / 4, 0],
      ];
    case "wedge":
      return [
        [-width, -length * 0.78],
        [width, -length * 0.78],
        [0, -length],
      ];
    case "taper":
      return [
        [-width / 2, 0],
        [-0.4, -length],
        [0.4, -length],
        [width / 2, 0],
      ];
  }
}

/** The needle at the value with its hub; a wedge at the rim has none. */
export function needleMarks(input: Input, face: Face, share: number, datum: Datum): Mark[] {
  const { style, theme, data, frame } = input;
  const form = style.choice("needle.form");
  if (form === "none") return [];
  const { cx, cy, r, inner, start, sweep } = face;
  const fill = style.colour("needle.colour", theme.ink);
  // At the edge of the frame the needle's foot has no more room than there is.
  const edge = Math.max(0.5, Math.min(cx, frame.width - cx, face.bottom - cy));
  const width = Math.min(style.number("needle.width"), r * 0.14, 2 * edge);
  const needle: Mark = {
    type: "polygon",
    id: "needle",
    part: "needle",
    x: cx,
    y: cy,
    rotate: start + sweep * clamp(share),
    points: needlePoints(form, (inner * style.number("needle.length")) / 100, width),
    fill,
    datum,
    shows: { row: data.rows[0].key, value: data.total ?? 0, channel: "position" },
  };
  const hub = Math.min(style.number("needle.hub"), r * 0.16, edge);
  if (hub <= 0 || form === "wedge") return [needle];
  const disc = (id: string, radius: number, color: string): Mark => ({
    type: "circle",
    id,
    part: "needle",
    cx,
    cy,
    r: radius,
    fill: color,
  });
  const pin = hub > 5 ? [disc("pin", hub * 0.4, theme.sheet)] : [];
  return [needle, disc("hub", hub, fill), ...pin];
}

/** The mark of the target outside the arc; none where it lies outside the scale. */
export function targetMarks(input: Input, face: Face, scale: Scale, datum: Datum): Mark[] {
  const { style, theme, data } = input;
  if (data.target === null || !style.toggle("target.shown")) return [];
  const share = shareOf(data.target, scale);
  if (share < 0 || share > 1) return [];
  const size = Math.min(style.number("target.size"), face.r * 0.2);
  const foot = -face.r - 2;
  return [
    {
      type: "polygon",
      id: "target",
      part: "target",
      x: face.cx,
      y: face.cy,
      rotate: face.start + face.sweep * share,
      points: [
        [0, foot],
        [-size * 0.55, foot - size],
        [size * 0.55, foot - size],
      ],
      fill: theme.ink,
      datum,
    },
  ];
}
