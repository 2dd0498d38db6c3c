import { formatNumber } from "../../base/number-format";
import type { DrawnZone } from "../../rows/visual-data";
import type { Handle } from "../../scene/marks";
import { polar } from "../anatomy/angles";
import type { SceneInput } from "../anatomy/kind";
import { startPlace } from "../anatomy/rings";
import { type Scale, shareOf } from "../anatomy/scale";
import type { Face } from "./face";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** A handle that moves a value of the document along the scale, at a distance from the hub. */
function valueHandle(
  { data }: Input,
  face: Face,
  scale: Scale,
  value: number,
  handle: Pick<Handle, "id" | "edit" | "label"> & { word: string; distance: number },
): Handle {
  const { cx, cy, r, inner, start, sweep } = face;
  const { minimum: from, maximum: to } = scale;
  const fine = Math.max(10 ** Math.floor(Math.log10((to - from) / 100)), 1e-9);
  return {
    id: handle.id,
    edit: handle.edit,
    label: handle.label,
    value,
    from,
    to,
    step: data.format.style === "percent" ? 0.01 : fine,
    text: `${handle.word} ${formatNumber(value, data.format)}`,
    ...polar(cx, cy, start + sweep * shareOf(value, scale), handle.distance),
    track: { type: "angular", cx, cy, r: (r + inner) / 2, start, end: start + sweep },
  };
}

/** The handles of the opening; a chosen one says where the arc begins and ends, and cannot be dragged. */
function openingHandles({ style }: Input, { cx, cy, r, inner, start, sweep }: Face): Handle[] {
  if (style.choice("arc.preset") !== "own") return [];
  const middle = (r + inner) / 2;
  return [
    style.handle("arc.start", startPlace(start, { cx, cy, r: middle })),
    style.handle("arc.sweep", {
      ...polar(cx, cy, start + sweep, middle),
      track: (from, to) => ({ type: "angular", cx, cy, r, start: start + from, end: start + to }),
    }),
  ];
}

/** The handles of a gauge: its opening, the edges of its zones, and its target. */
export function gaugeHandles(input: Input, face: Face, scale: Scale, zones: DrawnZone[]): Handle[] {
  const { target } = input.data;
  const edges = zones.flatMap((zone): Handle[] => {
    const { at } = zone;
    if (zone.to === null || !zone.isMovable || shareOf(zone.to, scale) <= 0 || shareOf(zone.to, scale) >= 1)
      return [];
    const label = `Edge of ${zone.word || "zone"}`;
    const edit = { type: "zone edge", at } as const;
    const handle = { id: `zone${at}`, edit, label, word: "zone", distance: face.inner };
    return [valueHandle(input, face, scale, zone.to, handle)];
  });
  const isOn = target !== null && shareOf(target, scale) >= 0 && shareOf(target, scale) <= 1;
  const handle = {
    id: "target",
    edit: { type: "target" },
    label: "Target",
    word: "target",
    distance: face.r + 16,
  } as const;
  return [
    ...openingHandles(input, face),
    ...edges,
    ...(isOn ? [valueHandle(input, face, scale, target, handle)] : []),
  ];
}
