import fc from "fast-check";
import { SaxesParser } from "saxes";
import { expect, it } from "vitest";
import { categoryKey, type RowKey, rowKey } from "@/core/rows/row-key";
import type { Mark, Scene } from "@/core/scene/marks";
import { sceneToSvg } from "./svg-text";

const scene: Scene = {
  theme: "light",
  family: "archivo",
  motion: { entry: 0, change: 0 },
  width: 200,
  height: 100,
  background: "#fffdf8",
  border: { color: "#dcd6c8", radius: 12 },
  handles: [],
  description: `A <b>"quoted"</b> & bold picture`,
  marks: [
    {
      type: "text",
      id: "t",
      part: "labels",
      x: 10,
      y: 20,
      text: `<script>alert('x')</script> & \u0007"`,
      size: 12,
      weight: 600,
      align: "start",
      fill: "#1c2b2d",
    },
    {
      type: "rect",
      id: "r",
      part: "bar",
      x: 0,
      y: 0,
      width: 50,
      height: 10,
      radii: [5, 5, 5, 5],
      fill: {
        type: "linear",
        x0: 0,
        y0: 0,
        x1: 1,
        y1: 0,
        stops: [
          { at: 0, color: "#ffffff" },
          { at: 1, color: "#000000" },
        ],
      },
    },
    { type: "circle", id: "c", part: "hub", cx: 5, cy: 5, r: 3, fill: "#1c2b2d", opacity: 0.5 },
    {
      type: "polygon",
      id: "p",
      part: "needle",
      x: 100,
      y: 50,
      rotate: 45,
      points: [
        [0, 0],
        [1, -10],
        [2, 0],
      ],
      fill: "#1c2b2d",
    },
    {
      type: "line",
      id: "l",
      part: "labels",
      points: [
        [0, 0],
        [10, 10],
      ],
      stroke: "#5e6c6b",
      strokeWidth: 2,
    },
  ],
};

it("writes every mark, and markup in texts as text", () => {
  const svg = sceneToSvg(scene);
  expect(svg).toContain("&lt;script&gt;alert(&#39;x&#39;)&lt;/script&gt; &amp; &quot;</text>");
  expect(svg).toContain("<desc>A &lt;b&gt;&quot;quoted&quot;&lt;/b&gt; &amp; bold picture</desc>");
  expect(svg).not.toMatch(/<script|NaN|undefined/);
  expect(svg).not.toContain("\u0007");
  expect(svg).toContain('fill="url(#ramp0)"');
  expect(svg).toContain('<linearGradient id="ramp0"');
  expect(svg).toContain('transform="translate(100 50) rotate(45)"');
  expect(svg).toContain('opacity="0.5"');
  expect(svg).toContain('stroke-width="2"');
  expect(svg.match(/<(path|circle|text)\b/g)).toHaveLength(6);
});

it("is XML to any reader, whatever stands in its texts", () => {
  const odd: [string, string][] = [
    ["<b>&\"'", "<b>&\"'"],
    ["a\u0000\u0008\u001fb", "ab"],
    ["\ud800 half", "\ufffd half"],
    ["]]>", "]]>"],
    ["a\ufffe\uffffb", "ab"],
    ["日本 😀", "日本 😀"],
    ["<!--", "<!--"],
    ["&amp;&#0;", "&amp;&#0;"],
  ];
  for (const [text, wanted] of odd) {
    const parser = new SaxesParser();
    let heard = "";
    parser.on("error", (error) => {
      throw error;
    });
    parser.on("text", (piece) => {
      heard += piece;
    });
    parser
      .write(
        sceneToSvg({
          ...scene,
          description: text,
          marks: scene.marks.map((m) => (m.type === "text" ? { ...m, text } : m)),
        }),
      )
      .close();
    expect(heard).toContain(wanted);
    expect(heard.isWellFormed()).toBe(true);
  }
});

it("gives what leaves a title, and its marks ids, classes, rows and values", () => {
  const [row, other] = [categoryKey("North Quay"), rowKey({ type: "other" })];
  const bar = (id: string, key: RowKey, value: number) =>
    ({ ...scene.marks[1], id, shows: { row: key, value, channel: "length" } }) as Mark;
  const marks = [bar(`value:${row}`, row, 1234.5), bar(`value:${row}`, row, 1234.5), bar("o", other, 7)];
  const svg = sceneToSvg({ ...scene, marks }, { title: "Passengers <by> route", prefix: "cavlo" });
  expect(svg).toContain("<title>Passengers &lt;by&gt; route</title>");
  expect(svg).toContain(
    'id="cavlo-value-category-north-quay" class="bar" data-row="North Quay" data-value="1234.5"',
  );
  expect(svg).toContain('id="cavlo-value-category-north-quay--2"');
  expect(svg).toContain('id="cavlo-o" class="bar" data-row-is="other" data-value="7"');
});

it("gives every mark an id of its own, whatever its name", () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: "binary" })), (ids) => {
      const marks = ids.map((id) => ({ ...scene.marks[1], id }));
      const svg = sceneToSvg({ ...scene, marks }, { title: "t", prefix: "cavlo" });
      const found = [...svg.matchAll(/ id="([^"]*)"/g)].map((m) => m[1]);
      expect(new Set(found).size).toBe(found.length);
      for (const id of found) expect(id).toMatch(/^[a-z][a-z0-9-]*$/);
    }),
  );
});

it("leaves marks without names in the application, where ids would stand twice in a page", () => {
  expect(sceneToSvg(scene)).not.toMatch(/<(path|rect|circle) id=|class=|<title>/);
});
