import { describe, expect, it } from "vitest";
import { visualOf } from "@/testing/craft/cases";
import { sampleData, seriesData } from "@/testing/craft/sample-data";
import { PERCENT_FORMAT } from "../base/number-format";
import { sceneOf } from "../view/picture";

const textsOf = (scene: ReturnType<typeof sceneOf>) =>
  scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));

describe("a stack above and below zero", () => {
  const data = seriesData([
    [50, -15],
    [20, 10],
  ]);
  for (const direction of ["up", "right"])
    it(`says that its total is what is left of both, and marks where that lies (${direction})`, () => {
      const scene = sceneOf(visualOf("capsule stack", { "bar.direction": direction }), data);
      expect(textsOf(scene)).toContain("net 35");
      expect(textsOf(scene)).toContain("30");
      const nets = scene.marks.filter((m) => m.id.startsWith("net:"));
      expect(nets).toHaveLength(1);
      const [net] = nets;
      const segment = scene.marks.find((m) => m.type === "rect" && m.shows?.value === 50);
      if (net.type !== "line" || segment?.type !== "rect") throw new Error("a mark is missing");
      const [x, y] = net.points[0];
      // 35 of the 50 that lie above zero.
      if (direction === "up") expect((segment.y + segment.height - y) / segment.height).toBeCloseTo(0.7, 1);
      else expect((x - segment.x) / segment.width).toBeCloseTo(0.7, 1);
    });
});

describe("lollipops from a baseline", () => {
  const data = sampleData([0.58, 0.64], { format: PERCENT_FORMAT, baseline: 0.5 });
  it("start there, and say nothing else, however the scale is to start", () => {
    for (const start of ["zero", "near"]) {
      const said = textsOf(sceneOf(visualOf("lollipop", { "domain.start": start }), data));
      expect(said.filter((text) => /start/i.test(text)).map((t) => t.replace("\u2009", " "))).toEqual([
        "Stems start at 50 %",
      ]);
    }
  });
});
