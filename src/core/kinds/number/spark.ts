import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import type { Colours } from "../anatomy/colours";
import { rowDatum, strength } from "../anatomy/datum";
import type { SceneInput } from "../anatomy/kind";
import type { NumberCardPart } from "./parts";

type Input = SceneInput<NumberCardPart>;

/** A step of the course that has a value. */
interface Step {
  i: number;
  row: VisualRow;
  value: number;
}

/** Where the course stands: its steps, the pixel of one across, and of a value. */
interface Course {
  steps: Step[];
  pitch: number;
  /** The value that bars and areas stand on. */
  foot: number;
  color: string;
  x: (i: number) => number;
  y: (value: number) => number;
}

function courseOf({ data, style }: Input, box: Box, colours: Colours): Course {
  const form = style.choice("spark.form");
  const steps = data.rows.flatMap((row, i) => (row.value === null ? [] : [{ i, row, value: row.value }]));
  const all = steps.map((s) => s.value);
  // Bars and areas stand on zero; a bare line may use the whole height, since only its course is read.
  const zero = form === "line" ? [] : [0];
  const [low, high] = [Math.min(...zero, ...all), Math.max(...zero, ...all)];
  const pitch = box.width / data.rows.length;
  const step = (box.width - 6) / Math.max(1, data.rows.length - 1);
  return {
    steps,
    pitch,
    foot: Math.max(0, low),
    color: style.colour("spark.colour", colours.one),
    x: (i) => (form === "bars" ? box.x + pitch * (i + 0.5) : box.x + 3 + step * i),
    y: (value) => box.y + 3 + (box.height - 6) * (1 - (value - low) / (high - low || 1)),
  };
}

function barMarks(input: Input, { steps, pitch, foot, color, x, y }: Course): Mark[] {
  const { style, theme } = input;
  const width = Math.max(0.75, pitch * 0.66);
  const last = style.toggle("spark.last") ? steps[steps.length - 1].i : -1;
  return steps.map(({ i, row, value }) => {
    const [a, b] = [y(foot), y(value)];
    return {
      type: "rect",
      id: `spark:${row.key}`,
      part: "spark",
      x: x(i) - width / 2,
      y: Math.min(a, b),
      width,
      height: Math.max(0.75, Math.abs(a - b)),
      radii: [1, 1, 1, 1],
      fill: i === last ? color : mix(color, theme.sheet, 0.55),
      opacity: strength(input, row.key),
      datum: rowDatum(input, row),
      shows: { row: row.key, value, channel: "length" },
      surface: "data",
      grow: value >= 0 ? "bottom" : "top",
    };
  });
}

/** A line, over an area where that was chosen, with its last step marked. */
function lineMarks(input: Input, { steps, foot, color, x, y }: Course): Mark[] {
  const { style, theme } = input;
  const points = steps.map(({ i, value }): [number, number] => [x(i), y(value)]);
  const [first, last] = [points[0], points[points.length - 1]];
  const strokeWidth = style.number("spark.width");
  const area: Mark = {
    type: "polygon",
    id: "sparkarea",
    part: "spark",
    x: 0,
    y: 0,
    rotate: 0,
    points: [[first[0], y(foot)], ...points, [last[0], y(foot)]],
    fill: mix(color, theme.sheet, 0.82),
  };
  const line: Mark = { type: "line", id: "sparkline", part: "spark", points, stroke: color, strokeWidth };
  const end: Mark = {
    type: "circle",
    id: "sparklast",
    part: "spark",
    cx: last[0],
    cy: last[1],
    r: Math.min(3, strokeWidth * 1.6),
    fill: color,
    surface: "data",
    datum: rowDatum(input, steps[steps.length - 1].row),
  };
  return [
    ...(style.choice("spark.form") === "area" ? [area] : []),
    line,
    ...(style.toggle("spark.last") ? [end] : []),
  ];
}

/** The rows over time as a line, an area or bars within a box; nothing for fewer than two values. */
export function sparkMarks(input: Input, box: Box, colours: Colours): Mark[] {
  const form = input.style.choice("spark.form");
  const course = courseOf(input, box, colours);
  if (form === "none" || course.steps.length < 2 || box.height < 10 || box.width < 20) return [];
  return form === "bars" ? barMarks(input, course) : lineMarks(input, course);
}
