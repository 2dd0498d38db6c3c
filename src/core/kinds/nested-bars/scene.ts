import { formatNumber } from "../../base/number-format";
import { mix } from "../../scene/colour";
import type { Scene } from "../../scene/marks";
import { type Bands, barBox, growthFrom, layBands, widthPlace } from "../anatomy/bands";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { niceAbove } from "../anatomy/scale";
import type { NestedBarsPart } from "./parts";

type Input = SceneInput<NestedBarsPart>;

/**
 * A thin bar within a thick one: two measures of each row, on one scale or, where the picture says so, on
 * two.
 */
export function nestedBarsScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const horizontal = style.choice("bar.direction") === "right";
  const colours = new Colours(input);
  const two = style.choice("scale.of") === "two" && data.second !== null;
  const outerColour = (color: string) => style.colour("bar.colour", mix(color, theme.sheet, 0.72));
  const second = (n: number | null) => formatNumber(n, data.second?.format ?? data.format);
  const [mostOuter, mostInner] = [
    Math.max(0, ...data.rows.map((r) => Math.abs(r.value ?? 0))),
    Math.max(0, ...data.rows.map((r) => Math.abs(r.second ?? 0))),
  ];
  // On two scales the inner values are brought onto the outer scale; both ends are said.
  const [endOuter, endInner] = [niceAbove(mostOuter), niceAbove(mostInner)];
  const factor = two && mostInner > 0 ? endOuter / endInner : 1;
  const told = two
    ? `Two scales: ${data.valueLabel} to ${formatNumber(endOuter, data.format)}, ${data.second?.label} to ${second(endInner)}`
    : "";
  const noted = footNote(whole, theme, told);
  const entries = data.second
    ? [
        { key: "outer", color: outerColour(colours.one), label: data.valueLabel, value: "" },
        { key: "inner", color: colours.one, label: data.second.label, value: "" },
      ]
    : [];
  const legend = layLegend(
    style.choice("legend.place"),
    colours.ruleLegend().length ? colours.ruleLegend() : entries,
    noted.body,
    theme,
    true,
  );
  const write = labelWriter(input, input.style.choice("labels.content"));
  const total = data.rows.reduce((sum, r) => sum + Math.abs(r.value ?? 0), 0);
  const bands = layBands(input, legend.body, {
    horizontal,
    reach: data.rows.map((r) =>
      [r.value, r.second === null ? null : r.second * factor, ...(two ? [endOuter] : [])].filter(
        (v): v is number => v !== null,
      ),
    ),
    labels: data.rows.map((r) => write(r, total).map((lines) => lines.join(" "))),
    labelSize: style.number("labels.size"),
  });
  marks.push(...legend.marks, ...bands.marks);
  const [thick, thin] = [
    (bands.band * style.number("bar.width")) / 100,
    (bands.band * style.number("inner.width")) / 100,
  ];
  const ends: Parameters<Bands["endLabels"]>[0] = [];
  for (const [i, row] of bands.rows.entries()) {
    const opacity = strength(input, row.key);
    const color = colours.of(row, i);
    const datum = rowDatum(
      input,
      row,
      data.second ? [{ label: data.second.label, value: second(row.second) }] : [],
    );
    const bar = (
      id: "outer" | "inner",
      part: string,
      value: number | null,
      thickness: number,
      corner: number,
      fill: string,
    ) => {
      if (value === null || value === 0) return;
      const { far, ...place } = barBox(bands, i, 0, value, Math.max(1, thickness));
      const radius = ((thickness / 2) * corner) / 100;
      const to = value < 0 ? bands.at(bands.low) : bands.at(bands.high);
      marks.push({
        type: "rect",
        id: `${id}:${row.key}`,
        part,
        ...place,
        radii: [radius, radius, radius, radius],
        fill,
        opacity,
        datum,
        shows: { row: row.key, series: id, value, channel: "length" },
        surface: "data",
        whole: { from: bands.base, to, axis: horizontal ? "x" : "y" },
        grow: growthFrom(far),
      });
    };
    bar("outer", "bar", row.value, thick, style.number("bar.corner"), outerColour(color));
    bar(
      "inner",
      "inner",
      row.second === null ? null : row.second * factor,
      Math.min(thin, thick),
      style.number("inner.corner"),
      color,
    );
    const [outer, inner] = [row.value ?? 0, (row.second ?? 0) * factor];
    const negative = outer < 0;
    ends.push({
      at: bands.at(negative ? Math.min(outer, inner) : Math.max(outer, inner)),
      negative,
      reach: 0,
      half: thick / 2,
    });
  }
  marks.push(...bands.endLabels(ends), ...noted.marks);
  const said = leadingRows(
    input,
    (r) => `${formatNumber(r.value, data.format)}${data.second ? ` with ${second(r.second)}` : ""}`,
  );
  return frameScene(
    input,
    marks,
    [input.style.handle("bar.width", widthPlace(bands, input.style.number("bar.width")))],
    `${titleOf(input)}: nested bars of ${data.valueLabel}${data.second ? ` and ${data.second.label}` : ""}, ${said}${told ? `. ${told}` : ""}.${bands.left}`,
  );
}
