import { formatNumber, PERCENT_FORMAT } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { rowKey } from "../../rows/row-key";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Mark, Scene, Text } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, shorten, textWidth } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { rowDatum, strength } from "../anatomy/datum";
import { emptyScene, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { symbolMark } from "../anatomy/symbol";
import { textMark } from "../anatomy/text-mark";
import { namesFor } from "../anatomy/visual-reading";
import type { NumberCardPart } from "./parts";

type Input = SceneInput<NumberCardPart>;

interface Change {
  text: string;
  against: string;
  direction: "up" | "down" | "level";
  tone: string;
}

/** How the value stands to what it is compared with: its direction, and whether that is better. */
function changeOf(input: Input, value: number): Change | null {
  const { data, style, theme } = input;
  const { comparison } = data;
  if (!style.toggle("change.shown") || !comparison || comparison.value === null) return null;
  const change = value - comparison.value;
  const percent = style.choice("change.as") === "percent" && comparison.value !== 0;
  const direction = change > 0 ? "up" : change < 0 ? "down" : "level";
  const better =
    data.betterWhen === "neither" || direction === "level"
      ? null
      : (direction === "up") === (data.betterWhen === "higher");
  const good = theme.name === "night" ? "#7fd0ac" : "#236b4b";
  const shown = percent
    ? formatNumber(change / Math.abs(comparison.value), { ...PERCENT_FORMAT, decimals: 1 })
    : formatNumber(change, data.format);
  return {
    text: change > 0 ? `+${shown}` : shown,
    against: style.toggle("change.name")
      ? `against ${comparison.label || "the reference"} ${formatNumber(comparison.value, data.format)}`
      : "",
    direction,
    tone: better === null ? theme.muted : better ? good : theme.signal,
  };
}

/** The rows over time as a line, an area or bars within a box; nothing for fewer than two values. */
function sparkMarks(input: Input, box: Box, colours: Colours): Mark[] {
  const { data, style, theme } = input;
  const form = style.choice("spark.form");
  const values = data.rows.flatMap((r, i) => (r.value === null ? [] : [{ i, row: r, value: r.value }]));
  if (form === "none" || values.length < 2 || box.height < 10 || box.width < 20) return [];
  const color = style.colour("spark.colour", colours.one);
  const bars = form === "bars";
  const all = values.map((v) => v.value);
  // Bars and areas stand on zero; a bare line may use the whole height, since only its course is read.
  const low = form === "line" ? Math.min(...all) : Math.min(0, ...all);
  const high = form === "line" ? Math.max(...all) : Math.max(0, ...all);
  const span = high - low || 1;
  const y = (v: number) => box.y + 3 + (box.height - 6) * (1 - (v - low) / span);
  const pitch = box.width / data.rows.length;
  const x = (i: number) =>
    bars ? box.x + pitch * (i + 0.5) : box.x + 3 + ((box.width - 6) * i) / Math.max(1, data.rows.length - 1);
  const marks: Mark[] = [];
  const last = values[values.length - 1];
  if (bars) {
    for (const { i, row, value } of values) {
      const [a, b] = [y(Math.max(0, low)), y(value)];
      const width = Math.max(0.75, pitch * 0.66);
      marks.push({
        type: "rect",
        id: `spark:${row.key}`,
        part: "spark",
        x: x(i) - width / 2,
        y: Math.min(a, b),
        width,
        height: Math.max(0.75, Math.abs(a - b)),
        radii: [1, 1, 1, 1],
        fill: style.toggle("spark.last") && i === last.i ? color : mix(color, theme.sheet, 0.55),
        opacity: strength(input, row.key),
        datum: rowDatum(input, row),
        shows: { row: row.key, value, channel: "length" },
        surface: "data",
        grow: value >= 0 ? "bottom" : "top",
      });
    }
    return marks;
  }
  const points = values.map(({ i, value }): [number, number] => [x(i), y(value)]);
  if (form === "area") {
    const foot = y(Math.max(0, low));
    marks.push({
      type: "polygon",
      id: "sparkarea",
      part: "spark",
      x: 0,
      y: 0,
      rotate: 0,
      points: [[points[0][0], foot], ...points, [points[points.length - 1][0], foot]],
      fill: mix(color, theme.sheet, 0.82),
    });
  }
  marks.push({
    type: "line",
    id: "sparkline",
    part: "spark",
    points,
    stroke: color,
    strokeWidth: style.number("spark.width"),
  });
  if (style.toggle("spark.last"))
    marks.push({
      type: "circle",
      id: "sparklast",
      part: "spark",
      cx: x(last.i),
      cy: y(last.value),
      r: Math.min(3, style.number("spark.width") * 1.6),
      fill: color,
      surface: "data",
      datum: rowDatum(input, last.row),
    });
  return marks;
}

/** One number, how it changed, and its course. */
export function numberCardScene(input: Input): Scene {
  const { data, style, theme } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  if (data.total === null) return emptyScene(input, style.template("frame.empty"));
  const value = data.total;
  const { marks, body } = layFrame(input);
  const colours = new Colours(input);
  const row = {
    ...(data.rows[0] ?? {
      key: rowKey({ type: "whole" }),
      label: data.valueLabel,
      cells: [],
      second: null,
      headSize: null,
      also: {},
      groups: 0,
    }),
    value,
  };
  const rule = colours.ruleOf(row);
  const spark =
    data.splitLabel !== null &&
    style.choice("spark.form") !== "none" &&
    data.rows.length > 1 &&
    body.width >= 90;
  const beside = spark && style.choice("layout.of") === "right" && body.width >= 180;
  const sparkHeight = spark && !beside && body.height >= 84 ? Math.min(body.height * 0.42, 90) : 0;
  const box: Box = {
    ...body,
    width: beside ? body.width * 0.52 : body.width,
    height: body.height - sparkHeight,
  };
  const align: Text["align"] = style.choice("layout.align") === "middle" ? "middle" : "start";
  const x = align === "middle" ? box.x + box.width / 2 : box.x;
  const names = namesFor(input, {
    value: { value, format: data.format },
    total: { value, format: data.format },
  });
  const change = changeOf(input, value);
  const caption = fillTemplate(style.template("reading.caption"), names[0]).trim();
  const small = Math.max(SMALLEST, Math.min(style.number("change.size"), box.height * 0.22));
  const lines =
    (change && box.height >= 44 ? 1 : 0) +
    (caption && box.height >= 70 ? 1 : 0) +
    (rule && box.height >= 60 ? 1 : 0);
  const wanted = Math.max(
    SMALLEST,
    Math.min(style.number("reading.size"), (box.height - lines * small * 1.4) * 0.82),
  );
  const main = fitText(
    names.map((n) => fillTemplate(style.template("reading.text"), n)),
    box.width,
    wanted,
    700,
    0.6,
  );
  let top = box.y + Math.max(0, (box.height - main.size * LINE_HEIGHT - lines * small * 1.4) / 2);
  if (style.toggle("reading.shown")) {
    marks.push({
      ...textMark("reading", "reading", {
        x,
        y: top + (main.size * LINE_HEIGHT) / 2,
        text: main.text,
        size: main.size,
        weight: 700,
        fill: theme.ink,
        align,
      }),
      datum: rowDatum(input, { ...row, key: rowKey({ type: "whole" }), label: data.valueLabel }),
    });
  }
  top += main.size * LINE_HEIGHT;
  const line = (id: string, text: string, weight: 400 | 600, fill: string, indent = 0) => {
    const fitted = fitText([text], box.width - indent, small, weight);
    if (fitted.text)
      marks.push(
        textMark(id, "reading", {
          x: x + (align === "middle" ? 0 : indent),
          y: top + small * 0.7,
          text: fitted.text,
          size: fitted.size,
          weight,
          fill,
          align,
        }),
      );
    top += small * 1.4;
  };
  if (change && box.height >= 44) {
    const arrow = small * 0.34;
    const said = textWidth(change.text, small, 600);
    const against = shorten(change.against, box.width - said - small * 1.9, small * 0.88, 400);
    const width = small * 1.1 + said + (against ? small * 0.5 + textWidth(against, small * 0.88, 400) : 0);
    const left = align === "middle" ? x - width / 2 : x;
    const symbol =
      change.direction === "level"
        ? symbolMark("direction", "change", "square", {
            x: left + arrow,
            y: top + small * 0.7,
            r: arrow * 0.6,
            fill: change.tone,
          })
        : symbolMark("direction", "change", change.direction === "up" ? "triangle" : "triangle down", {
            x: left + arrow,
            y: top + small * 0.7,
            r: arrow,
            fill: change.tone,
          });
    if (symbol) marks.push(symbol);
    if (said + small * 1.1 <= box.width)
      marks.push(
        textMark("change", "change", {
          x: left + small * 1.1,
          y: top + small * 0.7,
          text: change.text,
          size: small,
          weight: 600,
          fill: change.tone,
        }),
      );
    if (against && small * 0.88 >= SMALLEST)
      marks.push(
        textMark("against", "change", {
          x: left + small * 1.6 + said,
          y: top + small * 0.7,
          text: against,
          size: small * 0.88,
          weight: 400,
          fill: theme.muted,
        }),
      );
    top += small * 1.4;
  }
  if (rule && box.height >= 60) {
    const symbol = symbolMark("rulesymbol", "reading", rule.symbol === "none" ? "circle" : rule.symbol, {
      x: align === "middle" ? x - textWidth(rule.word, small, 600) / 2 - small * 0.6 : x + small * 0.36,
      y: top + small * 0.7,
      r: small * 0.36,
      fill: rule.color,
    });
    if (symbol) marks.push(symbol);
    line("ruleword", rule.word, 600, theme.ink, small * 1.1);
  }
  if (caption && box.height >= 70) line("caption", caption, 400, theme.muted);
  if (beside)
    marks.push(
      ...sparkMarks(
        input,
        {
          x: body.x + body.width * 0.56,
          y: body.y + body.height * 0.15,
          width: body.width * 0.44,
          height: body.height * 0.7,
        },
        colours,
      ),
    );
  else if (sparkHeight > 0)
    marks.push(
      ...sparkMarks(
        input,
        { x: body.x, y: body.y + body.height - sparkHeight + 6, width: body.width, height: sparkHeight - 6 },
        colours,
      ),
    );
  const course =
    data.splitLabel !== null && data.rows.length > 1
      ? `, over ${data.rows.length} steps from ${formatNumber(data.rows[0].value, data.format)} to ${formatNumber(data.rows[data.rows.length - 1].value, data.format)}`
      : "";
  const description = `${titleOf(input)}: ${data.valueLabel} ${formatNumber(value, data.format)}${change ? `, ${change.text} ${change.against || `against ${data.comparison?.label}`}` : ""}${course}.`;
  return frameScene(input, marks, [], description);
}
