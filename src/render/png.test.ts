import { PNG } from "pngjs";
import { describe, expect, it } from "vitest";
import { textMark } from "@/core/kinds/anatomy/text-mark";
import type { Mark, Scene } from "@/core/scene/marks";
import { sceneToPng } from "./png";

const sceneWith = (marks: Mark[]): Scene => ({
  theme: "light",
  family: "archivo",
  motion: { entry: 0, change: 0 },
  width: 120,
  height: 60,
  background: "#ffffff",
  border: null,
  handles: [],
  description: "",
  marks,
});
const bar: Mark = {
  type: "rect",
  id: "r",
  part: "bar",
  x: 10,
  y: 20,
  width: 50,
  height: 30,
  radii: [0, 0, 0, 0],
  fill: "#b4552d",
};
const written = (text: string, weight: 400 | 700 = 400) =>
  textMark("t", "labels", { x: 5, y: 40, text, size: 24, weight, fill: "#000000" });
const pixels = (marks: Mark[], scale = 1) =>
  PNG.sync.read(sceneToPng(sceneWith(marks), scale, process.cwd()));
const colourAt = ({ data, width }: PNG, x: number, y: number) =>
  `#${data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3).toString("hex")}`;
/** How much of a picture is covered with ink, in pixels. */
const ink = ({ data }: PNG) => {
  let sum = 0;
  for (let at = 0; at < data.length; at += 4) sum += 1 - data[at] / 255;
  return sum;
};

describe("a picture as PNG", () => {
  it.each([1, 1.5, 2, 4])("at scale %s has as many pixels, and its marks at their places", (scale) => {
    const png = pixels([bar], scale);
    expect([png.width, png.height]).toEqual([120 * scale, 60 * scale]);
    const inside = [
      [12, 22],
      [58, 48],
    ];
    const outside = [
      [7, 22],
      [62, 48],
      [12, 17],
      [58, 52],
    ];
    for (const [x, y] of inside) expect(colourAt(png, x * scale, y * scale)).toBe("#b4552d");
    for (const [x, y] of outside) expect(colourAt(png, x * scale, y * scale)).toBe("#ffffff");
  });

  it("writes its texts in the family that ships, bolder where they are bold", () => {
    const [thin, bold] = [ink(pixels([written("Harbour")])), ink(pixels([written("Harbour", 700)]))];
    expect(thin).toBeGreaterThan(100);
    expect(bold).toBeGreaterThan(thin * 1.15);
  });

  it.each([
    ["Greek", "Ωλ", "Λω"],
    ["Cyrillic", "Жд", "Яи"],
    ["Hebrew", "אב", "שת"],
    ["Arabic", "نهر", "بحر"],
    ["Devanagari", "नगर", "जगत"],
    ["Japanese", "港", "船"],
    ["kana", "みなと", "ふなで"],
    ["Hangul", "항구", "선박"],
    ["simplified Chinese", "码头", "轮渡"],
  ])("writes %s: two words are two pictures, no row of empty boxes", (_, one, other) => {
    const [a, b] = [pixels([written(one)]), pixels([written(other)])];
    expect(ink(a)).toBeGreaterThan(20);
    expect(a.data.equals(b.data)).toBe(false);
  });
});
