import { XMLParser } from "fast-xml-parser";
import { describe, expect, it } from "vitest";
import { FINISHES } from "@/core/kinds/finishes";
import { KINDS } from "@/core/kinds/index";
import type { Mark, Scene } from "@/core/scene/marks";
import { sceneOf } from "@/core/view/picture";
import { casesOf, visualOf } from "@/testing/craft/cases";
import { elementOf } from "./echarts-elements";
import { stillSvg } from "./echarts-marks";
import { sceneToSvg } from "./svg-text";

type Matrix = [number, number, number, number, number, number];
interface Drawn {
  points: [number, number][];
  paint: string;
  stroke: string;
  opacity: number;
  shadow: boolean;
  clipped: boolean;
}
interface Written {
  text: string;
  x: number;
  y: number;
  turn: number;
  size: number;
  weight: string;
  fill: string;
  anchor: string;
}
interface Element {
  tag: string;
  attributes: Record<string, string>;
  text: string;
}

const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[2] * b[1],
  a[1] * b[0] + a[3] * b[1],
  a[0] * b[2] + a[2] * b[3],
  a[1] * b[2] + a[3] * b[3],
  a[0] * b[4] + a[2] * b[5] + a[4],
  a[1] * b[4] + a[3] * b[5] + a[5],
];

/** The matrix of a transform attribute. */
function matrixOf(text = ""): Matrix {
  let m: Matrix = [1, 0, 0, 1, 0, 0];
  for (const [, name, list] of text.matchAll(/(\w+)\(([^)]*)\)/g)) {
    const n = list.split(/[\s,]+/).map(Number);
    if (name === "matrix") m = times(m, n as Matrix);
    if (name === "translate") m = times(m, [1, 0, 0, 1, n[0], n[1] ?? 0]);
    if (name === "scale") m = times(m, [n[0], 0, 0, n[1] ?? n[0], 0, 0]);
    if (name === "rotate") {
      const a = (n[0] * Math.PI) / 180;
      m = times(m, [Math.cos(a), Math.sin(a), -Math.sin(a), Math.cos(a), 0, 0]);
    }
  }
  return m;
}

/** What the letters of a text take from their group. */
const inheritable = (own: Record<string, string>) =>
  Object.fromEntries(
    ["fill", "font-size", "font-weight", "text-anchor"].flatMap((k) => (k in own ? [[k, own[k]]] : [])),
  );

/** All elements in their order; what a group says holds for those in it. */
function elementsOf(svg: string): { list: Element[]; ramps: Map<string, string> } {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: "",
    trimValues: false,
    parseTagValue: false,
  });
  const list: Element[] = [];
  const ramps = new Map<string, string>();
  const walk = (nodes: Record<string, unknown>[], inherited: Record<string, string>, defined: boolean) => {
    for (const node of nodes) {
      const tag = Object.keys(node).find((k) => k !== ":@");
      if (!tag || tag === "#text") continue;
      const own = (node[":@"] ?? {}) as Record<string, string>;
      const children = node[tag] as Record<string, unknown>[];
      if (tag.endsWith("Gradient"))
        ramps.set(
          own.id,
          children
            .flatMap((c) => ("stop" in c ? [(c[":@"] as Record<string, string>)["stop-color"]] : []))
            .join(" "),
        );
      const attributes = { ...inherited, ...own };
      if (!defined)
        list.push({ tag, attributes, text: children.map((c) => String(c["#text"] ?? "")).join("") });
      if (tag === "g" || tag === "svg")
        walk(
          children,
          tag === "g"
            ? {
                ...inherited,
                ...inheritable(own),
                filter: own.filter ?? inherited.filter ?? "",
                "clip-path": own["clip-path"] ?? inherited["clip-path"] ?? "",
              }
            : {},
          defined,
        );
      if (tag === "defs" || tag === "clipPath") walk(children, {}, true);
    }
  };
  walk(parser.parse(svg) as Record<string, unknown>[], {}, false);
  return { list, ramps };
}

/** The corner points of path data, in absolute coordinates. */
function pathPoints(d: string): [number, number][] {
  const out: [number, number][] = [];
  let [x, y] = [0, 0];
  let moved = false;
  for (const [, command, list] of d.matchAll(/([MLHVACSQZmlhvacsqz])([^MLHVACSQZmlhvacsqz]*)/g)) {
    const n = (list.match(/-?\d*\.?\d+(?:e-?\d+)?/gi) ?? []).map(Number);
    const size = { M: 2, L: 2, H: 1, V: 1, A: 7, C: 6, S: 4, Q: 4, Z: 0 }[command.toUpperCase()] ?? 0;
    // A move that nothing is drawn from leaves no trace.
    if (command.toUpperCase() === "M" && moved) out.pop();
    moved = command.toUpperCase() === "M" && n.length === 2;
    for (let i = 0; size > 0 && i + size <= n.length; i += size) {
      const relative = command === command.toLowerCase();
      const [dx, dy] = relative ? [x, y] : [0, 0];
      if (command.toUpperCase() === "H") x = n[i] + dx;
      else if (command.toUpperCase() === "V") y = n[i] + dy;
      else [x, y] = [n[i + size - 2] + dx, n[i + size - 1] + dy];
      out.push([x, y]);
    }
  }
  return out;
}

/** The points of a polygon or a polyline. */
function pairs(text: string): [number, number][] {
  const n = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return Array.from({ length: n.length >> 1 }, (_, i) => [n[2 * i], n[2 * i + 1]]);
}

function read(svg: string): { shapes: Drawn[]; texts: Written[] } {
  const { list, ramps } = elementsOf(svg);
  const shapes: Drawn[] = [];
  const texts: Written[] = [];
  for (const { tag, attributes: a, text } of list) {
    const m = matrixOf(a.transform);
    const put = ([x, y]: [number, number]): [number, number] => [
      m[0] * x + m[2] * y + m[4],
      m[1] * x + m[3] * y + m[5],
    ];
    const ramp = /url\(#(.*)\)/.exec(a.fill ?? "")?.[1];
    const shape = (points: [number, number][]) =>
      shapes.push({
        points: points.map(put),
        paint: ramp ? (ramps.get(ramp) ?? "?") : (a.fill ?? "#000"),
        stroke: a.stroke ?? "none",
        opacity: Math.round(
          Number(a.opacity ?? (a.fill === "none" ? a["stroke-opacity"] : a["fill-opacity"]) ?? 1) * 100,
        ),
        shadow: Boolean(a.filter),
        clipped: Boolean(a["clip-path"]),
      });
    const n = (key: string) => Number(a[key] ?? 0);
    if (tag === "path" && a.d) shape(pathPoints(a.d));
    if (tag === "circle")
      shape([
        [n("cx") - n("r"), n("cy")],
        [n("cx") + n("r"), n("cy")],
      ]);
    if (tag === "polygon" || tag === "polyline") shape(pairs(a.points));
    if (tag === "image")
      shape([
        [n("x"), n("y")],
        [n("x") + n("width"), n("y") + n("height")],
      ]);
    if (tag === "text") {
      const font = /(\d+) ([\d.]+)px/.exec(a.style ?? "");
      const size = font ? Number(font[2]) : n("font-size");
      // The stage gives the middle of a text, the server its base line.
      const [x, y] = put([n("x"), a["dominant-baseline"] ? n("y") : n("y") - 0.35 * size]);
      texts.push({
        text: text.replaceAll("&amp;", "&"),
        x,
        y,
        turn: (Math.atan2(m[1], m[0]) * 180) / Math.PI,
        size,
        weight: font ? font[1] : a["font-weight"],
        fill: a.fill,
        anchor: a["text-anchor"],
      });
    }
  }
  return { shapes, texts };
}

/** How far two outlines are apart at most, point by point. */
function apart(a: [number, number][], b: [number, number][]): number {
  const to = (p: [number, number], all: [number, number][]) =>
    Math.min(...all.map((q) => Math.hypot(p[0] - q[0], p[1] - q[1])));
  return Math.max(...a.map((p) => to(p, b)), ...b.map((p) => to(p, a)));
}

/** Where the stage and the server's SVG draw something else. */
function differences(scene: Scene): string[] {
  const stage = read(stillSvg(scene));
  const server = read(sceneToSvg(scene));
  // The server draws the sheet itself; in the page it is the element under the picture.
  const own = scene.background || (scene.border && scene.border.color !== "none") ? 1 : 0;
  const shapes = server.shapes.slice(own).filter((s) => s.points.length > 0);
  const shown = stage.shapes.filter((s) => s.points.length > 0);
  const found: string[] = [];
  if (shapes.length !== shown.length)
    return [`${shown.length} shapes on the stage, ${shapes.length} from the server`];
  if (server.texts.length !== stage.texts.length)
    return [`${stage.texts.length} texts on the stage, ${server.texts.length} from the server`];
  for (const [i, a] of shapes.entries()) {
    const b = shown[i];
    const distance = apart(a.points, b.points);
    if (distance > 0.15) found.push(`shape ${i} is ${distance.toFixed(2)} px apart`);
    for (const key of ["paint", "stroke", "opacity", "shadow", "clipped"] as const)
      if (a[key] !== b[key]) found.push(`shape ${i} has ${key} ${a[key]} and ${b[key]}`);
  }
  for (const [i, a] of server.texts.entries()) {
    const b = stage.texts[i];
    if (a.text !== b.text || a.fill !== b.fill || a.anchor !== b.anchor || a.weight !== b.weight)
      found.push(`“${a.text}” is written otherwise: ${JSON.stringify(b)}`);
    if (Math.hypot(a.x - b.x, a.y - b.y) > 0.1 || Math.abs(a.size - b.size) > 0.01)
      found.push(`“${a.text}” stands elsewhere`);
    if (Math.abs(Math.sin(((a.turn - b.turn) * Math.PI) / 360)) > 0.002)
      found.push(`“${a.text}” is turned by ${a.turn.toFixed(1)} and ${b.turn.toFixed(1)}`);
  }
  return found;
}

describe("the stage and the server draw the same", () => {
  it.each(KINDS.flatMap((k) => FINISHES.map((f) => [k.label, f.name, k.id, f.id] as const)))(
    "%s, %s",
    (_kind, _finish, kind, finish) => {
      for (const { name, data, dials, look } of casesOf(kind).filter(
        (c, i) => i % 5 === 0 || i % 7 === 3 || c.name.includes("in the track"),
      )) {
        const scene = sceneOf(visualOf(kind, dials, { finish, ...look }), data, undefined, {
          size: { width: 440, height: 400 },
        });
        expect(differences(scene).slice(0, 3), name).toEqual([]);
      }
    },
  );
});

it("an icon that moves or grows keeps its outline, which the chart library fits only once", () => {
  const icon = (x: number, size: number): Mark => ({
    type: "icon",
    id: "i",
    part: "cell",
    x,
    y: 5,
    size,
    box: 24,
    d: "M2 2L20 20",
    stroke: "#000000",
    strokeWidth: 2,
  });
  const [before, after] = [icon(10, 12), icon(50, 48)].map((mark) => elementOf(mark, "sans-serif"));
  expect(after.shape).toEqual(before.shape);
  expect([before.x, before.scaleX, after.x, after.scaleX]).toEqual([10, 0.5, 50, 2]);
  expect((after.style as { lineWidth: number }).lineWidth).toBe(1);
});
