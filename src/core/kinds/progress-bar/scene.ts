import { formatNumber, shortFormats } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Handle, Mark, Scene } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, shorten, textWidth, wrap } from "../../scene/text";
import { Colours } from "../anatomy/colours";
import { leadingRows, rowDatum, strength } from "../anatomy/datum";
import { blankScene, frameScene, layFrame, notedRows, titleOf } from "../anatomy/frame";
import { beyondGoal, type Goal, goalLines, goalOf, shareFormat } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, shareText } from "../anatomy/labels";
import { clamp, niceAbove, type PastEnd } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import type { ProgressBarPart } from "./parts";

type Input = SceneInput<ProgressBarPart>;

function labelOf(row: VisualRow, goal: Goal, input: Input): string {
  const { style, data } = input;
  if (row.value === null) return "—";
  const said = (labelWriter(input, input.style.choice("labels.content"))(row, goal.full)[0] ?? []).join(" ");
  if (!style.toggle("labels.remaining")) return said;
  const rest = goal.full - row.value;
  const remaining = rest > 0 ? `${formatNumber(rest, row.format ?? data.format)} left` : "";
  return [said, remaining].filter(Boolean).join(" · ");
}

/** What bars of one picture share. */
interface Bars {
  goal: Goal;
  colours: Colours;
}

/** One bar with its track, its laps, its tick and its label. */
function barMarks(
  input: Input,
  row: VisualRow,
  index: number,
  { goal, colours }: Bars,
  box: Box,
  labelled: boolean,
): Mark[] {
  const { style, theme, data, surface } = input;
  const { x, y, height } = box;
  const label = labelled ? labelOf(row, goal, input) : "";
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), Math.max(SMALLEST, height + 2)));
  const labelWidth = textWidth(label, size, 600);
  const share = row.value === null ? 0 : row.value / goal.end;
  const past = style.choice("bar.past") as PastEnd;
  const over = share > 1 + 1e-12;
  const chevron = over && past === "hold" ? height * 0.6 + 4 : 0;
  const place = style.choice("labels.place");
  const inside =
    place !== "outside" &&
    surface.carriesText &&
    label !== "" &&
    height >= size + 1 &&
    labelWidth + 14 <= clamp(share) * (box.width - chevron);
  const width = Math.max(4, box.width - chevron);
  const radius = ((height / 2) * style.number("bar.corner")) / 100;
  const radii: [number, number, number, number] = [radius, radius, radius, radius];
  const color = colours.of(row, index);
  const write = (n: number) => formatNumber(n, row.format ?? data.format);
  const datum = rowDatum(input, row, goalLines(goal, row.value, write, shareText));
  const opacity = strength(input, row.key, 0.5);
  const marks: Mark[] = [];
  const bar = (
    id: string,
    part: string,
    from: number,
    length: number,
    fill: string,
    top = y,
    tall = height,
  ): Mark => ({
    type: "rect",
    id: `${id}:${row.key}`,
    part,
    x: from,
    y: top,
    width: length,
    height: tall,
    radii,
    fill,
    datum,
    opacity,
  });
  const whole = { from: x, to: x + width, axis: "x" as const };
  if (style.toggle("track.shown"))
    marks.push({
      ...bar("track", "track", x, width, style.colour("track.colour", theme.track)),
      surface: "track",
      whole,
    });
  if (share > 0)
    marks.push({
      ...bar("bar", "bar", x, width * clamp(share), color),
      shows: { row: row.key, value: row.value ?? 0, channel: "length" },
      surface: "data",
      whole,
      grow: "left",
    });
  if (over && past === "lap")
    marks.push(
      bar(
        "lap",
        "bar",
        x,
        width * clamp(share - 1),
        mix(color, theme.ink, 0.45),
        y + height * 0.28,
        height * 0.44,
      ),
    );
  if (chevron) {
    const mid = y + height / 2;
    const left = x + width + 4;
    marks.push({
      type: "polygon",
      id: `past:${row.key}`,
      part: "bar",
      x: left,
      y: mid,
      rotate: 0,
      points: [
        [0, -height / 2],
        [height * 0.55, 0],
        [0, height / 2],
      ],
      fill: theme.signal,
      datum,
    });
  }
  if (goal.isTarget && goal.end > goal.full && style.toggle("target.shown")) {
    const at = x + (width * goal.full) / goal.end;
    marks.push({
      type: "line",
      id: `target:${row.key}`,
      part: "target",
      stroke: theme.ink,
      strokeWidth: 2,
      points: [
        [at, y - 3],
        [at, y + height + 3],
      ],
    });
  }
  const mid = y + height / 2;
  const after = x + width * clamp(share) + 6;
  if (label !== "" && !inside && place !== "inside" && after + labelWidth <= x + width - 2) {
    const track = style.toggle("track.shown") ? style.colour("track.colour", theme.track) : theme.sheet;
    const ink = surface.inkOnTrack(track, height < size);
    if (ink)
      marks.push(
        textMark(`label:${row.key}`, "labels", {
          x: after,
          y: mid,
          text: label,
          size,
          weight: 600,
          fill: ink,
        }),
      );
  } else if (inside) {
    // Clear of the goal's tick where the bar runs past it.
    const end = x + width * clamp(share) - Math.max(8, radius * 0.6);
    const tick = x + (width * goal.full) / goal.end;
    const crosses = goal.end > goal.full && end > tick - 4 && end - labelWidth < tick + 4;
    const under = over && past === "lap" && share - 1 > 0.7 ? mix(color, theme.ink, 0.45) : color;
    marks.push(
      textMark(`label:${row.key}`, "labels", {
        x: crosses ? tick - 6 : end,
        y: mid,
        text: label,
        size,
        weight: 600,
        fill: surface.inkOn(under),
        align: "end",
      }),
    );
  }
  return marks;
}

/** The rows' names at the left of their bars, on at most two lines each. */
function rowNames(
  rows: VisualRow[],
  box: Box,
  pitch: number,
  width: number,
  size: number,
  input: Input,
): Mark[] {
  return rows.flatMap((row, i) => {
    const lines = wrap(row.label, width - 8, size, 400, pitch >= size * 2.5 ? 2 : 1);
    const middle = box.y + pitch * (i + 0.5);
    return lines.map((line, k) =>
      textMark(`name${k}:${row.key}`, "labels", {
        x: box.x + width - 8,
        y: middle + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT,
        text: line,
        size,
        weight: 400,
        fill: input.theme.ink,
        align: "end",
      }),
    );
  });
}

/** Several bars, one a row, as many as fit; what does not fit is counted at the foot. */
function rowMarks(input: Input, bars: Bars, body: Box): Mark[] {
  const { data, style, theme } = input;
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), body.height / 6));
  const least = Math.max(size * 1.25, 12);
  const noted = notedRows(body, theme, data.rows.length, (box) => box.height / least);
  const rows = data.rows.slice(0, noted.shown);
  const pitch = Math.min(
    noted.body.height / rows.length,
    Math.max(style.number("bar.thickness") * 2.4, least),
  );
  const box = {
    ...noted.body,
    y: noted.body.y + (noted.body.height - pitch * rows.length) / 2,
    height: pitch * rows.length,
  };
  const named = box.width >= 150;
  const nameWidth = named
    ? Math.min(box.width * 0.36, Math.max(...rows.map((r) => textWidth(r.label, size, 400))) + 10)
    : 0;
  const thickness = Math.min(style.number("bar.thickness"), pitch * 0.72);
  return [
    ...noted.marks,
    ...(named ? rowNames(rows, box, pitch, nameWidth, size, input) : []),
    ...rows.flatMap((row, i) =>
      barMarks(
        input,
        row,
        i,
        bars,
        {
          x: box.x + nameWidth,
          y: box.y + pitch * (i + 0.5) - thickness / 2,
          width: box.width - nameWidth,
          height: thickness,
        },
        true,
      ),
    ),
  ];
}

/** One bar with its reading above it. */
function singleMarks(input: Input, bars: Bars, body: Box): { marks: Mark[]; bar: Box } {
  const { data, style, theme } = input;
  const { goal } = bars;
  const row = data.rows[0];
  const value = row.value as number;
  const shown = style.toggle("reading.shown");
  const wanted = shown ? Math.max(SMALLEST, Math.min(style.number("reading.size"), body.height * 0.45)) : 0;
  const gap = Math.min(12, body.height * 0.08);
  const thickness = Math.max(
    3,
    Math.min(style.number("bar.thickness"), body.height - wanted * LINE_HEIGHT - gap),
  );
  const top =
    body.y + Math.max(0, (body.height - (wanted * LINE_HEIGHT + (shown ? gap : 0) + thickness)) / 2);
  const marks: Mark[] = [];
  const past = beyondGoal(value, goal.full);
  if (shown) {
    const names = {
      ...data.names,
      share: { value: value / goal.full, format: shareFormat(value / goal.full) },
      target: { value: goal.full, format: data.format },
    };
    const text = style.template("reading.text");
    const main = fitText(
      [
        names,
        ...shortFormats(data.format).map((format) => ({
          ...names,
          value: { value, format },
          target: { value: goal.full, format },
        })),
      ].map((n) => fillTemplate(text, n)),
      body.width,
      wanted,
      600,
    );
    const y = top + (wanted * LINE_HEIGHT) / 2;
    marks.push(
      textMark("reading", "reading", {
        x: body.x,
        y,
        text: main.text,
        size: main.size,
        weight: 600,
        fill: theme.ink,
      }),
    );
    const captions =
      goal.isTarget || !style.template("reading.caption").includes("{target}")
        ? [
            names,
            ...shortFormats(data.format)
              .slice(0, 1)
              .map((format) => ({
                ...names,
                value: { value, format },
                target: { value: goal.full, format },
              })),
          ].map((n) => fillTemplate(style.template("reading.caption"), n))
        : [""];
    const size = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
    const left = body.x + textWidth(main.text, main.size, 600) + 10;
    const room = body.x + body.width - left;
    const fits = captions
      .map((c) => [past, c].filter(Boolean).join(" · "))
      .find((c) => textWidth(c, size, 400) <= room);
    const said = fits ?? shorten(past || captions[captions.length - 1], room, size, 400);
    if (said)
      marks.push(
        textMark("caption", "reading", {
          x: left,
          y: y + main.size * 0.5 - size * 0.55,
          text: said,
          size,
          weight: 400,
          fill: past ? theme.signal : theme.muted,
        }),
      );
  }
  const bar = {
    x: body.x,
    y: top + wanted * LINE_HEIGHT + (shown ? gap : 0),
    width: body.width,
    height: thickness,
  };
  marks.push(...barMarks(input, row, 0, bars, bar, !shown || style.toggle("labels.remaining")));
  return { marks, bar };
}

/** Bars that stand and fill upwards, a column a row, named below. */
function standingMarks(input: Input, { goal, colours }: Bars, body: Box): Mark[] {
  const { data, style, theme } = input;
  const size = Math.max(SMALLEST, Math.min(style.number("labels.size"), body.height / 8));
  const least = 14;
  const noted = notedRows(body, theme, data.rows.length, (box) => box.width / least);
  const rows = data.rows.slice(0, noted.shown);
  const pitch = noted.body.width / rows.length;
  const named = noted.body.height >= 70 && pitch >= 24 && rows.some((r) => r.key !== "");
  const foot = named ? size * LINE_HEIGHT + 4 : 0;
  const head = style.choice("labels.content") === "none" ? 2 : size * LINE_HEIGHT + 4;
  const [top, height] = [noted.body.y + head, Math.max(8, noted.body.height - head - foot)];
  const thickness = Math.min(style.number("bar.thickness"), pitch * 0.72);
  const radius = ((thickness / 2) * style.number("bar.corner")) / 100;
  const past = style.choice("bar.past") as PastEnd;
  const marks: Mark[] = [...noted.marks];
  for (const [i, row] of rows.entries()) {
    const share = row.value === null ? 0 : row.value / goal.end;
    const over = share > 1 + 1e-12;
    const x = noted.body.x + pitch * (i + 0.5) - thickness / 2;
    const full = over && past === "hold" ? height - thickness * 0.6 - 4 : height;
    const bottom = top + height;
    const write = (n: number) => formatNumber(n, row.format ?? data.format);
    const datum = rowDatum(input, row, goalLines(goal, row.value, write, shareText));
    const opacity = strength(input, row.key, 0.5);
    const whole = { from: bottom, to: bottom - full, axis: "y" as const };
    const color = colours.of(row, i);
    const bar = (id: string, part: string, length: number, fill: string, inset = 0): Mark => ({
      type: "rect",
      id: `${id}:${row.key}`,
      part,
      x: x + inset,
      y: bottom - length,
      width: thickness - 2 * inset,
      height: length,
      radii: [radius, radius, radius, radius],
      fill,
      datum,
      opacity,
    });
    if (style.toggle("track.shown"))
      marks.push({
        ...bar("track", "track", full, style.colour("track.colour", theme.track)),
        surface: "track",
        whole,
      });
    if (share > 0)
      marks.push({
        ...bar("bar", "bar", full * clamp(share), color),
        shows: { row: row.key, value: row.value ?? 0, channel: "length" },
        surface: "data",
        whole,
        grow: "bottom",
      });
    if (over && past === "lap")
      marks.push(bar("lap", "bar", full * clamp(share - 1), mix(color, theme.ink, 0.45), thickness * 0.28));
    if (over && past === "hold")
      marks.push({
        type: "polygon",
        id: `past:${row.key}`,
        part: "bar",
        x: x + thickness / 2,
        y: bottom - full - 4,
        rotate: 0,
        points: [
          [-thickness / 2, 0],
          [0, -thickness * 0.55],
          [thickness / 2, 0],
        ],
        fill: theme.signal,
        datum,
      });
    if (goal.isTarget && goal.end > goal.full && style.toggle("target.shown")) {
      const y = bottom - (full * goal.full) / goal.end;
      marks.push({
        type: "line",
        id: `target:${row.key}`,
        part: "target",
        stroke: theme.ink,
        strokeWidth: 2,
        points: [
          [x - 3, y],
          [x + thickness + 3, y],
        ],
      });
    }
    const fitted = fitText(
      [labelOf(row, goal, input), row.value === null ? "—" : shareText(row.value / goal.full)],
      pitch - 2,
      size,
      600,
    );
    if (head > 2 && fitted.text && !fitted.text.includes("…"))
      marks.push(
        textMark(`label:${row.key}`, "labels", {
          x: x + thickness / 2,
          y: top - size * 0.6 - 2,
          text: fitted.text,
          size: fitted.size,
          weight: 600,
          fill: theme.ink,
          align: "middle",
        }),
      );
    const name = named ? shorten(row.label, pitch - 4, size, 400) : "";
    if (name)
      marks.push(
        textMark(`name:${row.key}`, "labels", {
          x: x + thickness / 2,
          y: bottom + foot - size * 0.55,
          text: name,
          size,
          weight: 400,
          fill: theme.ink,
          align: "middle",
        }),
      );
  }
  return marks;
}

/** Bars that fill towards a goal, each past its end by the user's choice. */
export function progressBarScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style } = input;
  const { marks, body } = layFrame(input);
  const goal = goalOf(input, style.choice("bar.past"));
  const bars: Bars = { goal, colours: new Colours(input) };
  const handles: Handle[] = [];
  if (style.choice("bar.direction") === "up") marks.push(...standingMarks(input, bars, body));
  else if (data.rows.length === 1) {
    const single = singleMarks(input, bars, body);
    marks.push(...single.marks);
    const { bar } = single;
    const x = bar.x + bar.width / 2;
    handles.push(
      style.handle("bar.thickness", {
        x,
        y: bar.y + bar.height,
        track: (from, to) => ({ type: "straight", x0: x, y0: bar.y + from, x1: x, y1: bar.y + to }),
      }),
    );
    if (data.target !== null && goal.end > 0) {
      const at = bar.x + (bar.width * goal.full) / goal.end;
      handles.push({
        id: "target",
        edit: { type: "target" },
        label: "Target",
        value: data.target,
        from: 0,
        to: goal.end * 1.5,
        step: Math.max(niceAbove(goal.end) / 100, 1e-9),
        text: `target ${formatNumber(data.target, data.format)}`,
        x: at,
        y: bar.y + bar.height / 2,
        track: { type: "straight", x0: bar.x, y0: bar.y, x1: bar.x + bar.width * 1.5, y1: bar.y },
      });
    }
  } else marks.push(...rowMarks(input, bars, body));
  const said = leadingRows(
    input,
    (r) =>
      `${formatNumber(r.value, r.format ?? data.format)}${r.value === null ? "" : ` (${shareText(r.value / goal.full)})`}`,
  );
  const over = data.rows.filter((r) => (r.value ?? 0) > goal.full).length;
  const against = goal.isTarget ? ` against ${formatNumber(goal.full, data.format)}` : "";
  const past = over ? `, ${data.rows.length > 1 ? `${over} ` : ""}past the goal` : "";
  const description = `${titleOf(input)}: progress bar of ${data.valueLabel}${against}, ${said}${past}.`;
  return frameScene(input, marks, handles, description);
}
