import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Scene } from "../../scene/marks";
import { SMALLEST, shorten, textWidth } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { leadingRows } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import { goalOf } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { doNotFit } from "../anatomy/more";
import { progressArcs } from "../anatomy/progress-arcs";
import { layCentre, layRings, ringHandles } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import type { RadialBarsPart } from "./parts";

type Input = SceneInput<RadialBarsPart>;

/** Bars bent around a centre, a track each, with their names at the start. */
export function radialBarsScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const past = style.choice("ring.past");
  const goal = goalOf(input, past);
  const hole = style.number("ring.hole") / 100;
  const most = Math.max(1, Math.floor(((Math.min(whole.width, whole.height) / 2) * (1 - hole)) / 5));
  const rows = data.rows.slice(0, most);
  const negative = rows.filter((r) => (r.value ?? 0) < 0).length;
  const left = [
    doNotFit(data.rows.length - rows.length),
    negative ? `${negative} below zero: an empty track` : "",
  ]
    .filter(Boolean)
    .join("; ");
  const noted = footNote(whole, theme, left);
  const entries = colours.ruleLegend().length
    ? colours.ruleLegend()
    : rows.map((r, i) => ({
        key: r.key,
        color: colours.of(r, i),
        label: r.label,
        value: style.toggle("legend.values") ? formatNumber(r.value, data.format) : "",
      }));
  const legend = layLegend(style.choice("legend.place"), entries, noted.body, theme);
  const body = legend.body;
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const centre = layCentre(body, start, sweep, 2, 2);
  const { cx, cy, r } = centre;
  const rings = layRings(r, rows.length, style.number("ring.thickness"), style.number("ring.gap"), hole);
  const write = labelWriter(input, input.style.choice("labels.content"));
  const value = (n: number) => formatNumber(n, data.format);
  marks.push(...progressArcs(input, rows, rings, centre, goal, colours));
  marks.push(...legend.marks, ...noted.marks);
  // Names stand before the start, in the opening that the sweep leaves there.
  const pitch = rows.length > 1 ? rings[0].outer - rings[1].outer : rings[0].outer - rings[0].inner + 4;
  const size = Math.min(style.number("labels.size"), pitch * 0.98);
  if (start === 0 && sweep <= 300 && size >= SMALLEST)
    for (const [i, row] of rows.entries()) {
      const [wording] = write(row, data.total);
      if (!wording) continue;
      const room = cx - body.x - 8;
      const [name, said] = wording;
      // A long name is cut before its value is.
      const tail = said ? `  ${said}` : "";
      const text =
        textWidth(name + tail, size, 500) <= room
          ? name + tail
          : `${shorten(name, room - textWidth(tail, size, 500), size, 500)}${tail}`;
      if (textWidth(text, size, 500) <= room)
        marks.push(
          textMark(`label:${row.key}`, "labels", {
            x: cx - 8,
            y: cy - (rings[i].inner + rings[i].outer) / 2,
            text: text.trim(),
            size,
            weight: 500,
            fill: theme.ink,
            align: "end",
          }),
        );
    }
  const focused = rows.find((row) => row.key === input.focus);
  const now = focused ? focused.value : data.total;
  const names = namesFor(input, {
    total: { value: now, format: data.format },
    value: { value: now, format: data.format },
  });
  marks.push(
    ...roundReading(
      input,
      { x: cx, y: cy, room: rings[rings.length - 1].inner, within: body },
      names,
      focused ? focused.label : fillTemplate(style.template("reading.caption"), names[0]),
    ),
  );
  const description = `${titleOf(input)}: radial bars of ${data.valueLabel}, a full sweep is ${value(goal.end)}, ${leadingRows(input)}${left ? `. ${left}` : ""}.`;
  return frameScene(input, marks, ringHandles(input, centre, rings[0].inner), description);
}
