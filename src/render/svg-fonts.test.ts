import { describe, expect, it } from "vitest";
import { textMark } from "@/core/kinds/anatomy/text-mark";
import type { Scene } from "@/core/scene/marks";
import { fontsOf } from "./svg-fonts";

const sceneOf = (texts: [string, 400 | 600][], family = "archivo"): Scene => ({
  theme: "light",
  family,
  motion: { entry: 0, change: 0 },
  width: 120,
  height: 60,
  background: null,
  border: null,
  handles: [],
  description: "",
  marks: texts.map(([text, weight], i) =>
    textMark(`t${i}`, "labels", { x: 0, y: 0, text, size: 12, weight, fill: "#000000" }),
  ),
});
const facesOf = (css: string) =>
  [
    ...css.matchAll(
      /font-family:'([^']+)';font-weight:([\d ]+);src:url\(data:font\/woff2;base64,([\w+/=]+)\)/g,
    ),
  ].map(([, family, weight, data]) => ({
    family,
    weight,
    start: Buffer.from(data, "base64").toString("latin1", 0, 4),
  }));

describe("the fonts that travel with a picture", () => {
  it("are the cuts of its own family that its texts are written in", () => {
    expect(facesOf(fontsOf(sceneOf([["Harbour", 400]]), process.cwd()))).toEqual([
      { family: "Archivo", weight: "400", start: "wOF2" },
    ]);
    const two = facesOf(
      fontsOf(
        sceneOf(
          [
            ["Łódź", 400],
            ["Gdańsk", 600],
          ],
          "nunito",
        ),
        process.cwd(),
      ),
    );
    expect(two.map((f) => `${f.family} ${f.weight}`)).toEqual([
      "Nunito 400",
      "Nunito 400",
      "Nunito 600",
      "Nunito 600",
    ]);
  });
  it("are the slices of other scripts that its texts need, and no more", () => {
    const faces = facesOf(fontsOf(sceneOf([["Пристань 항구", 400]]), process.cwd()));
    expect(new Set(faces.map((f) => f.family))).toEqual(new Set(["Archivo", "Noto Sans", "Noto Sans KR"]));
    expect(faces.length).toBeLessThan(6);
    expect(faces.every((f) => f.start === "wOF2")).toBe(true);
  });
  it("say their licence", () => {
    expect(fontsOf(sceneOf([]), process.cwd())).toContain("SIL Open Font License 1.1");
  });
});
