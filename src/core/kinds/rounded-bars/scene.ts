import { formatNumber } from "../../base/number-format";
import type { VisualRow } from "../../rows/visual-data";
import type { Mark, Scene } from "../../scene/marks";
import { fittingSize, SMALLEST } from "../../scene/text";
import { type Bands, barBox, endRadii, growthFrom, layBands, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { textMark } from "../anatomy/text-mark";
import type { RoundedBarsPart } from "./parts";

type Input = SceneInput<RoundedBarsPart>;

/** A bar of a row: the row's own, or one of a series. */
interface Bar {
  key: string;
  label: string;
  value: number | null;
  color: string;
}

function barsOf({ data }: Input, row: VisualRow, index: number, colours: Colours): Bar[] {
  if (row.cells.length === 0)
    return [{ key: row.key, label: row.label, value: row.value, color: colours.of(row, index) }];
  return data.series.map((s, k) => ({
    key: `${row.key}:${s.key}`,
    label: s.label,
    value: row.cells[k] ?? null,
    color: colours.series(k),
  }));
}

/** A label within a bar, near its far end, at the largest size that fits; none where it does not. */
function insideLabel(
  input: Input,
  bands: Bands,
  box: ReturnType<typeof barBox>,
  wordings: string[],
  key: string,
  color: string,
): Mark[] {
  if (!input.surface.carriesText) return [];
  const wanted = input.style.number("labels.size");
  const [along, across] = bands.horizontal ? [box.width, box.height] : [box.height, box.width];
  // A thin bar has a smaller label, down to the floor.
  const fitted = bands.horizontal ? Math.max(SMALLEST, Math.min(wanted, across * 0.85)) : wanted;
  for (const text of wordings) {
    const size = bands.horizontal
      ? across >= fitted + 1
        ? fittingSize(text, along - 12, fitted, 600)
        : null
      : along >= wanted + 8
        ? fittingSize(text, across - 2, wanted, 600)
        : null;
    if (size === null) continue;
    const ink = input.surface.inkOn(color);
    const place = `label:${key}`;
    if (bands.horizontal)
      return [
        textMark(place, "labels", {
          x: box.far === "right" ? box.x + box.width - 6 : box.x + 6,
          y: box.y + box.height / 2,
          text,
          size,
          weight: 600,
          fill: ink,
          align: box.far === "right" ? "end" : "start",
        }),
      ];
    return [
      textMark(place, "labels", {
        x: box.x + box.width / 2,
        y: box.far === "top" ? box.y + size * 0.7 + 4 : box.y + box.height - size * 0.7 - 4,
        text,
        size,
        weight: 600,
        fill: ink,
        align: "middle",
      }),
    ];
  }
  return [];
}

/** Bars from a base line, rounded, alone or side by side. */
export function roundedBarsScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const horizontal = style.choice("bar.direction") === "right";
  const colours = new Colours(input);
  const series = data.series.map((s, k) => ({
    key: s.key,
    color: colours.series(k),
    label: s.label,
    value: style.toggle("legend.values") ? formatNumber(s.total, data.format) : "",
  }));
  const legend = layLegend(
    style.choice("legend.place"),
    colours.ruleLegend().length ? colours.ruleLegend() : series,
    whole,
    theme,
    true,
  );
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const write = labelWriter(input, input.style.choice("labels.content"));
  const single = data.series.length === 0;
  const wordings = data.rows.map((r) => write(r, total).map((lines) => lines.join(" ")));
  const outside = single && style.choice("labels.place") === "end";
  const bands = layBands(input, legend.body, {
    horizontal,
    reach: data.rows.map((r) => (single ? [r.value] : r.cells).filter((v): v is number => v !== null)),
    labels: data.rows.map((_, i) => (outside ? wordings[i] : [])),
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  const group = (bands.band * style.number("bar.width")) / 100;
  const count = Math.max(1, data.series.length);
  const gap = Math.min(style.number("bar.gap"), group / (count * 2));
  const thickness = Math.max(1, (group - gap * (count - 1)) / count);
  const radius = ((thickness / 2) * style.number("bar.corner")) / 100;
  const both = style.choice("bar.ends") === "both";
  const axis = horizontal ? ("x" as const) : ("y" as const);
  const ends: Parameters<Bands["endLabels"]>[0] = [];
  for (const [i, row] of bands.rows.entries()) {
    const opacity = strength(input, row.key);
    for (const [k, bar] of barsOf(input, row, i, colours).entries()) {
      const shift = (k - (count - 1) / 2) * (thickness + gap);
      const over = { from: bands.base, to: bands.at((bar.value ?? 0) < 0 ? bands.low : bands.high), axis };
      if (style.toggle("track.shown")) {
        const track = barBox(bands, i, Math.min(0, bands.low), Math.max(0, bands.high), thickness, shift);
        marks.push({
          type: "rect",
          id: `track:${bar.key}`,
          part: "track",
          x: track.x,
          y: track.y,
          width: track.width,
          height: track.height,
          radii: [radius, radius, radius, radius],
          fill: style.colour("track.colour", theme.track),
          surface: "track",
          whole: { from: bands.at(Math.min(0, bands.low)), to: bands.at(Math.max(0, bands.high)), axis },
        });
      }
      if (bar.value === null || bar.value === 0) continue;
      const box = barBox(bands, i, 0, bar.value, thickness, shift);
      const { far, ...place } = box;
      const datum = rowDatum(
        input,
        { ...row, value: bar.value },
        single ? [] : [{ label: "Of", value: bar.label }],
      );
      marks.push({
        type: "rect",
        id: `bar:${bar.key}`,
        part: "bar",
        ...place,
        radii: endRadii(far, radius, both),
        fill: bar.color,
        opacity,
        datum,
        shows: {
          row: row.key,
          ...(single ? {} : { series: data.series[k].key }),
          value: bar.value,
          channel: "length",
        },
        surface: "data",
        whole: over,
        grow: growthFrom(far),
      });
      if (!outside && opacity === 1)
        marks.push(
          ...insideLabel(
            input,
            bands,
            box,
            single ? wordings[i] : write({ ...row, value: bar.value }, total).map((l) => l.join(" ")),
            bar.key,
            bar.color,
          ),
        );
    }
    ends.push({
      at: row.value === null ? bands.base : bands.at(row.value),
      negative: (row.value ?? 0) < 0,
      reach: 0,
      half: group / 2,
    });
  }
  const track = style.toggle("track.shown") ? style.colour("track.colour", theme.track) : theme.sheet;
  const ink = input.surface.inkOnTrack(track, thickness < style.number("labels.size"));
  if (outside && ink) marks.push(...bands.endLabels(ends, ink));
  const negative = data.rows.filter((r) => (r.value ?? 0) < 0).length;
  const beside = single ? "" : `, side by side for ${data.series.map((s) => s.label).join(", ")}`;
  return frameScene(
    input,
    marks,
    [input.style.handle("bar.width", widthPlace(bands, input.style.number("bar.width")))],
    `${titleOf(input)}: rounded bars of ${data.valueLabel}${beside}, ${leadingRows(input)}${negative ? `; ${negative} below zero` : ""}.${bands.left}`,
  );
}
