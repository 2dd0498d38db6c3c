import { formatNumber, shortFormats } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Zone } from "../../project/schema";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Datum, Handle, Mark, Scene } from "../../scene/marks";
import { fitText, LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { clearOf } from "../anatomy/clear-of";
import { Colours } from "../anatomy/colours";
import { ownTooltip } from "../anatomy/datum";
import { emptyScene, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { startPlace } from "../anatomy/rings";
import { clamp, type PastEnd, type Scale, scaleOf, shareOf } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { type Face, layFace, plainDrop, readingDrop } from "./face";
import type { GaugePart } from "./parts";
import { type Stretch, stretches, zoneOf } from "./zones";

type Input = SceneInput<GaugePart>;

/** End labels need a face of this radius; smaller ones give the room to the reading. */
const ENDS_FROM = 58;

function arcMarks(
  input: Input,
  face: Face,
  zones: Stretch[],
  share: number,
  tone: string,
  datum: Datum,
): Mark[] {
  const { style, theme } = input;
  const { cx, cy, r, inner, start, sweep } = face;
  const cap = style.choice("arc.caps") === "round" ? (r - inner) / 2 : 0;
  const gap = style.number("zones.gap");
  const fill = zones.length === 0 ? "progress" : style.choice("arc.fill");
  const sector = (
    id: string,
    part: string,
    from: number,
    until: number,
    color: string,
    rim = { inner, outer: r },
    inset = 0,
    corners: [number, number, number, number] = [cap, cap, cap, cap],
  ): Mark => ({
    type: "sector",
    id,
    part,
    cx,
    cy,
    ...rim,
    start: start + sweep * from,
    end: start + sweep * until,
    inset,
    corners,
    fill: color,
    datum,
    surface: "data",
    whole: { from: start, to: start + sweep, axis: "angle" },
  });
  const shows = { row: input.data.rows[0].key, value: input.data.total ?? 0, channel: "angle" } as const;
  const marks: Mark[] = [];
  if (fill === "progress") {
    marks.push({ ...sector("track", "arc", 0, 1, theme.track), surface: "track" });
    if (share > 0) marks.push({ ...sector("progress", "arc", 0, clamp(share), tone), shows, grow: "sweep" });
  } else {
    for (const [i, zone] of zones.entries()) {
      const first = i === 0 ? cap : 0;
      const last = i === zones.length - 1 ? cap : 0;
      const inset = zones.length > 1 ? gap / 2 : 0;
      const corners: [number, number, number, number] = [first, last, last, first];
      const tone = theme.tones[zone.tone];
      if (style.toggle("zones.ramp"))
        marks.push(
          ...zoneRamp(zone, tone, (from, until, part, color, id) =>
            sector(id, "zones", from, until, color, undefined, 0, part),
          ),
        );
      else
        marks.push(
          sector(`zone:${zone.index}`, "zones", zone.from, zone.until, tone, undefined, inset, corners),
        );
    }
    if (fill === "both" && share > 0) {
      const width = (r - inner) * 0.4;
      const middle = (r + inner) / 2;
      marks.push({
        ...sector("progress", "arc", 0, clamp(share), theme.ink, {
          inner: middle - width / 2,
          outer: middle + width / 2,
        }),
        shows,
      });
    }
  }
  if (style.choice("arc.past") === "lap" && share > 1) {
    const thin = Math.max(2, (r - inner) * 0.3);
    marks.push(
      sector("lap", "arc", 0, clamp(share - 1), mix(theme.ink, theme.sheet, 0.15), {
        inner: inner - 2 - thin,
        outer: inner - 2,
      }),
    );
  }
  return marks;
}

const ZONE_STEPS = 12;

/**
 * A zone whose colour deepens along it, in steps; each reaches a little under the next, so that no seam
 * shows.
 */
function zoneRamp(
  zone: Stretch,
  tone: string,
  step: (
    from: number,
    until: number,
    corners: [number, number, number, number],
    color: string,
    id: string,
  ) => Mark,
): Mark[] {
  const at = (i: number) => zone.from + ((zone.until - zone.from) * i) / ZONE_STEPS;
  return Array.from({ length: ZONE_STEPS }, (_, i) =>
    step(
      at(i),
      i === ZONE_STEPS - 1 ? zone.until : at(i + 1.15),
      [0, 0, 0, 0],
      mix(mix(tone, "#ffffff", 0.35), tone, i / (ZONE_STEPS - 1)),
      `zone:${zone.index}/${i}`,
    ),
  );
}

function needlePoints(form: string, length: number, width: number): [number, number][] {
  if (form === "line")
    return [
      [-width / 4, 0],
      [-width / 4, -length],
      [width / 4, -length],
      [width / 4, 0],
    ];
  if (form === "wedge")
    return [
      [-width, -length * 0.78],
      [width, -length * 0.78],
      [0, -length],
    ];
  return [
    [-width / 2, 0],
    [-0.4, -length],
    [0.4, -length],
    [width / 2, 0],
  ];
}

function scaleMarks(input: Input, face: Face, scale: Scale, zones: Stretch[]): Mark[] {
  const { style, theme, data } = input;
  const target = data.target === null || !style.toggle("target.shown") ? null : shareOf(data.target, scale);
  const { cx, cy, r, inner, start, sweep } = face;
  const marks: Mark[] = [];
  const ticks = style.number("scale.ticks");
  for (let i = 0; i <= ticks && ticks > 0; i++) {
    const a = start + (sweep * i) / ticks;
    const [p, q] = [polar(cx, cy, a, inner - 3), polar(cx, cy, a, inner - 8)];
    marks.push({
      type: "line",
      id: `tick:${i}`,
      part: "scale",
      stroke: theme.muted,
      strokeWidth: 1,
      points: [
        [p.x, p.y],
        [q.x, q.y],
      ],
    });
  }
  const size = Math.max(SMALLEST, Math.min(11, r * 0.12));
  if (style.toggle("scale.ends") && r > ENDS_FROM) {
    for (const [id, share, value] of [
      ["minimum", 0, scale.minimum],
      ["maximum", 1, scale.maximum],
    ] as const) {
      const angle = start + sweep * share;
      const at = polar(cx, cy, angle, (r + inner) / 2);
      const text = formatNumber(value, {
        ...data.format,
        decimals: Number.isInteger(data.format.style === "percent" ? value * 100 : value)
          ? 0
          : data.format.decimals,
        units: Math.abs(value) >= 1e4 ? "automatic" : data.format.units,
      });
      // Just past the arc's ends: under them where the arc comes down, beside them where it does not.
      const width = textWidth(text, size, 400);
      const along = polar(0, 0, angle + (share === 0 ? -90 : 90), 1);
      const down = Math.abs(along.y) > 0.3;
      const wanted = down ? at.x : at.x + along.x * (width / 2 + 4);
      const x = Math.min(Math.max(wanted, width / 2 + 2), input.frame.width - width / 2 - 2);
      const floor = input.frame.height - size * 0.5;
      marks.push(
        textMark(id, "scale", {
          x,
          y: Math.min(at.y + (down ? Math.sign(along.y) : along.y) * (size * 0.6 + 5), floor),
          text,
          size,
          weight: 400,
          fill: theme.muted,
          align: "middle",
        }),
      );
    }
  }
  if (style.toggle("zones.words") && r > 70) {
    for (const zone of zones) {
      if (!zone.word) continue;
      // The word stands in the middle of its zone, or clear of the target's mark.
      const near = [0.5, 0.25, 0.75].map((part) => zone.from + (zone.until - zone.from) * part);
      const clearOf = (share: number) => target === null || Math.abs(share - target) * sweep > 14;
      const angle = start + sweep * (near.find(clearOf) ?? near[0]);
      const width = textWidth(zone.word, size, 500);
      const arc = (sweep * (zone.until - zone.from) * Math.PI * r) / 180;
      if (width > arc + 14) continue;
      const out = polar(0, 0, angle, 1);
      const at = polar(cx, cy, angle, r + 6);
      const x = at.x + (out.x * width) / 2;
      const y = at.y + (out.y * size) / 2;
      if (x - width / 2 < 1 || x + width / 2 > input.frame.width - 1) continue;
      if (y - size / 2 < 0 || y + size / 2 > input.frame.height) continue;
      marks.push(
        textMark(`word:${zone.index}`, "zones", {
          x,
          y,
          text: zone.word,
          size,
          weight: 500,
          fill: theme.muted,
          align: "middle",
        }),
      );
    }
  }
  return marks;
}

function targetMarks(input: Input, face: Face, scale: Scale, datum: Datum): Mark[] {
  const { style, theme, data } = input;
  if (data.target === null || !style.toggle("target.shown")) return [];
  const share = shareOf(data.target, scale);
  if (share < 0 || share > 1) return [];
  const size = Math.min(style.number("target.size"), face.r * 0.2);
  const angle = face.start + face.sweep * share;
  return [
    {
      type: "polygon",
      id: "target",
      part: "target",
      x: face.cx,
      y: face.cy,
      rotate: angle,
      points: [
        [0, -face.r - 2],
        [-size * 0.55, -face.r - 2 - size],
        [size * 0.55, -face.r - 2 - size],
      ],
      fill: theme.ink,
      datum,
    },
  ];
}

function readingMarks(input: Input, face: Face, value: number, word: string, past: string): Mark[] {
  const { style, data, theme } = input;
  if (!style.toggle("reading.shown")) return [];
  const wanted = Math.max(SMALLEST, Math.min(style.number("reading.size"), face.r * 0.36));
  const text = style.template("reading.text");
  const hub = Math.min(style.number("needle.hub"), face.r * 0.16);
  const half = textWidth(fillTemplate(text, data.names), wanted, 600) / 2;
  // Level with the reading, the arc leaves this much room on both sides of the hub.
  const free =
    style.choice("arc.past") === "lap" && past !== ""
      ? face.inner - Math.max(2, (face.r - face.inner) * 0.3) - 4
      : face.inner;
  const chordAt = (dy: number) =>
    face.sweep > 200 && dy < free
      ? 2 * Math.sqrt(Math.max(0, free ** 2 - dy ** 2)) * 0.92
      : Number.POSITIVE_INFINITY;
  const clear = readingDrop(style, hub, { size: wanted, half: Math.min(half, face.inner * 0.62), under: 0 });
  const texts = [
    data.names,
    ...shortFormats(data.format).map((format) => ({ ...data.names, value: { value, format } })),
  ].map((names) => fillTemplate(text, names));
  const roomAt = (dy: number) =>
    Math.min(
      input.frame.width - 8,
      Math.max(chordAt(dy), face.inner * 0.9),
      2 * Math.min(face.cx, input.frame.width - face.cx) - 8,
    );
  const place = (drop: number, size: number) => {
    const dy = Math.min(drop, input.frame.height - size * 0.5 - face.cy);
    return { y: face.cy + dy, room: roomAt(dy), ...fitText(texts, roomAt(dy), size, 600) };
  };
  // To be read whole goes before standing clear of the needle, and then before size: a smaller text stands
  // higher, where the arc is wider.
  const places = [
    () => (chordAt(clear) >= half * 1.5 ? place(clear, wanted) : place(plainDrop(hub, wanted), wanted)),
    ...[wanted * 0.8, wanted * 0.65, SMALLEST].map(
      (size) => () => place(plainDrop(hub, Math.max(SMALLEST, size)), Math.max(SMALLEST, size)),
    ),
  ];
  let fitted = places[0]();
  for (const next of places.slice(1)) if (!texts.includes(fitted.text)) fitted = next();
  // The smallest dials have no room inside for their value: it is written whole all the same.
  if (!texts.includes(fitted.text)) fitted = { ...fitted, text: texts[texts.length - 1], size: SMALLEST };
  const { y, room } = fitted;
  const marks: Mark[] = fitted.text
    ? [
        textMark("reading", "reading", {
          x: face.cx,
          y,
          text: fitted.text,
          size: fitted.size,
          weight: 600,
          fill: theme.ink,
          align: "middle",
        }),
      ]
    : [];
  const under = past || (style.toggle("reading.word") ? word : "");
  const size = Math.max(SMALLEST, Math.min(12, wanted * 0.45));
  const lineY = y + fitted.size * 0.6 + size * 0.75;
  if (under && lineY + size * 0.6 <= input.frame.height) {
    // Under the reading the arc's ends are the nearest neighbours.
    const beside =
      face.r > ENDS_FROM && style.toggle("scale.ends")
        ? Math.min(input.frame.width - 8, 2 * (face.r * 0.86 - 14))
        : input.frame.width - 8;
    const small = fitText([under], Math.max(room, beside), size, 500);
    if (small.text)
      marks.push(
        textMark("word", "reading", {
          x: face.cx,
          y: lineY,
          text: small.text,
          size: small.size,
          weight: 500,
          fill: past ? theme.signal : theme.muted,
          align: "middle",
        }),
      );
  }
  return marks;
}

function handlesOf(input: Input, face: Face, scale: Scale, zones: Zone[], target: number | null): Handle[] {
  const { data } = input;
  const { cx, cy, r, inner, start, sweep } = face;
  const angular = { type: "angular" as const, cx, cy, r: (r + inner) / 2, start, end: start + sweep };
  const step =
    data.format.style === "percent"
      ? 0.01
      : Math.max(10 ** Math.floor(Math.log10((scale.maximum - scale.minimum) / 100)), 1e-9);
  const { style } = input;
  const handles: Handle[] = [];
  // A chosen opening says where the arc begins and ends; only an opening of one's own can be dragged.
  if (style.choice("arc.preset") === "own") {
    handles.push(
      style.handle("arc.start", startPlace(start, { cx, cy, r: (r + inner) / 2 })),
      style.handle("arc.sweep", {
        ...polar(cx, cy, start + sweep, (r + inner) / 2),
        track: (from, to) => ({ type: "angular", cx, cy, r, start: start + from, end: start + to }),
      }),
    );
  }
  for (const [i, zone] of zones.entries()) {
    if (zone.to === null) continue;
    const share = shareOf(zone.to, scale);
    if (share <= 0 || share >= 1) continue;
    handles.push({
      id: `zone${i}`,
      edit: { type: "zone edge", at: i },
      label: `Edge of ${zone.word || "zone"}`,
      value: zone.to,
      from: scale.minimum,
      to: scale.maximum,
      step,
      text: `zone ${formatNumber(zone.to, data.format)}`,
      ...polar(cx, cy, start + sweep * share, inner),
      track: angular,
    });
  }
  if (target !== null && shareOf(target, scale) >= 0 && shareOf(target, scale) <= 1) {
    handles.push({
      id: "target",
      edit: { type: "target" },
      label: "Target",
      value: target,
      from: scale.minimum,
      to: scale.maximum,
      step,
      text: `target ${formatNumber(target, data.format)}`,
      ...polar(cx, cy, start + sweep * shareOf(target, scale), r + 16),
      track: angular,
    });
  }
  return handles;
}

/** A plate at the foot with the name of what is measured. Takes its room from the body. */
function plateMarks(input: Input, body: Box): { marks: Mark[]; body: Box } {
  const { style, theme, data } = input;
  const text = style.toggle("plate.shown")
    ? fillTemplate(style.template("plate.text"), data.names).trim()
    : "";
  if (!text || body.height < 120) return { marks: [], body };
  const size = Math.max(SMALLEST, Math.min(13, body.height * 0.06));
  const said = fitText([text], body.width - 28, size, 600);
  const width = textWidth(said.text, said.size, 600) + 24;
  const height = said.size * 2;
  const y = body.y + body.height - height;
  return {
    marks: [
      {
        type: "rect",
        id: "plate",
        part: "plate",
        x: body.x + (body.width - width) / 2,
        y,
        width,
        height,
        radii: [height / 2, height / 2, height / 2, height / 2],
        fill: mix(theme.track, theme.sheet, 0.35),
      },
      textMark("platetext", "plate", {
        x: body.x + body.width / 2,
        y: y + height / 2,
        text: said.text,
        size: said.size,
        weight: 600,
        fill: theme.ink,
        align: "middle",
      }),
    ],
    body: { ...body, height: body.height - height - 8 },
  };
}

/** An arc with zones, a needle at the value, a mark at the target, and the reading. */
export function gaugeScene(input: Input): Scene {
  const { data, style, theme } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  const value = data.total;
  if (value === null) return emptyScene(input, style.template("frame.empty"));
  const { marks, body: whole } = layFrame(input);
  const plate = plateMarks(input, whole);
  const { body } = plate;
  const past = style.choice("arc.past") as PastEnd;
  const scale = scaleOf({
    minimum: data.minimum,
    maximum: data.maximum,
    target: data.target,
    value,
    format: data.format,
    past,
  });
  const share = shareOf(value, scale);
  const asValues = style.choice("zones.edges") === "value";
  const edges = asValues
    ? data.zones
    : data.zones.map((z) => ({
        ...z,
        to: z.to === null ? null : scale.minimum + z.to * (scale.maximum - scale.minimum),
      }));
  const zones = stretches(edges, scale);
  const zone = zoneOf(edges, value);
  const hasWords = style.toggle("zones.words") && zones.some((z) => z.word) && body.height > 150;
  const hasTarget = data.target !== null && style.toggle("target.shown");
  const margin = Math.min(
    body.height * 0.14,
    Math.max(2, hasTarget ? style.number("target.size") + 4 : 0, hasWords ? 18 : 0),
  );
  const side = hasWords
    ? Math.min(body.width * 0.14, 14 + Math.max(...zones.map((z) => textWidth(z.word, 11, 500))))
    : margin;
  const size = style.toggle("reading.shown")
    ? Math.max(SMALLEST, Math.min(style.number("reading.size"), body.height * 0.22))
    : 0;
  const under = style.toggle("reading.word") && (zone?.word || share > 1 || share < 0);
  const face = layFace(
    input,
    { ...body, x: body.x + side - margin, width: body.width - 2 * (side - margin) },
    margin,
    {
      size,
      half: textWidth(fillTemplate(style.template("reading.text"), data.names), size, 600) / 2,
      under: under ? Math.max(SMALLEST, size * 0.5) * LINE_HEIGHT : 0,
    },
  );
  const pastText = share > 1 ? "past the end" : share < 0 ? "below the start" : "";
  const word = zone?.word ?? "";
  const own = style.template("tooltip.text");
  const datum: Datum = {
    key: data.rows[0].key,
    title: data.valueLabel,
    lines: own
      ? [{ label: ownTooltip(input, own, { label: data.valueLabel, value }), value: "" }]
      : [
          { label: "Value", value: formatNumber(value, data.format) },
          ...(data.target === null
            ? []
            : [
                { label: "Target", value: formatNumber(data.target, data.format) },
                { label: "Gap to target", value: formatNumber(value - data.target, data.format) },
              ]),
          ...(word ? [{ label: "Zone", value: word }] : []),
        ],
  };
  const colours = new Colours(input);
  const ruled = style.choice("colours.by") === "rule" || style.colour("colours.one", "") !== "";
  const progress =
    zone && !ruled ? mix(theme.tones[zone.tone], theme.ink, 0.25) : colours.of(data.rows[0], 0);
  const readings = readingMarks(input, face, value, word, pastText);
  const arcs = arcMarks(input, face, zones, share, progress, datum);
  const scaled = scaleMarks(input, face, scale, zones);
  const targets = targetMarks(input, face, scale, datum);
  marks.push(...arcs, ...clearOf(scaled, [...arcs, ...readings, ...targets]), ...targets);
  const form = style.choice("needle.form");
  const shown = clamp(share);
  const needleColour = style.colour("needle.colour", theme.ink);
  if (form !== "none") {
    const length = (face.inner * style.number("needle.length")) / 100;
    // At the edge of the frame the needle's foot has no more room than there is.
    const edge = Math.max(0.5, Math.min(face.cx, input.frame.width - face.cx, input.frame.height - face.cy));
    marks.push({
      type: "polygon",
      id: "needle",
      part: "needle",
      x: face.cx,
      y: face.cy,
      rotate: face.start + face.sweep * shown,
      points: needlePoints(form, length, Math.min(style.number("needle.width"), face.r * 0.14, 2 * edge)),
      fill: needleColour,
      datum,
      shows: { row: data.rows[0].key, value, channel: "position" },
    });
    const hub = Math.min(style.number("needle.hub"), face.r * 0.16, edge);
    if (hub > 0 && form !== "wedge") {
      marks.push({
        type: "circle",
        id: "hub",
        part: "needle",
        cx: face.cx,
        cy: face.cy,
        r: hub,
        fill: needleColour,
      });
      if (hub > 5)
        marks.push({
          type: "circle",
          id: "pin",
          part: "needle",
          cx: face.cx,
          cy: face.cy,
          r: hub * 0.4,
          fill: theme.sheet,
        });
    }
  }
  if (share > 1 && past !== "lap") {
    const end = face.start + face.sweep;
    marks.push({
      type: "polygon",
      id: "past",
      part: "arc",
      x: face.cx,
      y: face.cy,
      rotate: end,
      points: [
        [-(face.r - face.inner) * 0.75, -face.inner],
        [-(face.r - face.inner) * 0.75, -face.r],
        [0, -(face.inner + face.r) / 2],
      ],
      fill: theme.signal,
      datum,
    });
  }
  marks.push(...readings, ...plate.marks);
  const write = (x: number | null) => formatNumber(x, data.format);
  const description = `${[
    `${titleOf(input)}: gauge of ${data.valueLabel}`,
    `${write(value)} on a scale from ${write(scale.minimum)} to ${write(scale.maximum)}`,
    data.target === null ? "" : `target ${write(data.target)}`,
    word ? `in the zone ${word}` : "",
    pastText ?? "",
  ]
    .filter(Boolean)
    .join(", ")}.`;
  return frameScene(
    input,
    marks,
    handlesOf(input, face, scale, asValues ? data.zones : [], data.target),
    description,
  );
}
