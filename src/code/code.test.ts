import { XMLParser, XMLValidator } from "fast-xml-parser";
import { describe, expect, it } from "vitest";
import { KINDS } from "@/core/kinds/index";
import { newVisual } from "@/core/project/defaults";
import type { Scene } from "@/core/scene/marks";
import { sceneOf } from "@/core/view/picture";
import { casesOf, visualOf } from "@/testing/craft/cases";
import { sampleData } from "@/testing/craft/sample-data";
import { componentName } from "./component/component-code";
import { echartsCode } from "./echarts-code";
import { examplePage, plainPageCode } from "./element-code";
import { codeOf, keyOf } from "./json-code";
import { pageCode } from "./page-code";

interface Option {
  series: { type: string; data: { tip?: string[] }[]; renderItem?: (p: { dataIndex: number }) => object }[];
  tooltip: { formatter: (p: { data: { tip?: string[] } }) => string };
}
/** The option of a piece of code: it is run as it stands, but for its export. */
const optionOf = (code: string): Option =>
  new Function(`${code.replace("export const option", "const option")}; return option;`)() as Option;

const HOSTILE = `</script><b>"'\`\${x}\u2028 __proto__`;

describe("a chart option", () => {
  it.each(KINDS.map((k) => k.id))(
    "of every hard case of a %s is code that runs, with a shape for each mark",
    (kind) => {
      for (const { name, data, dials, look } of casesOf(kind)) {
        const scene = sceneOf(visualOf(kind, dials, look), data);
        const { series } = optionOf(echartsCode(scene, name));
        const drawn = series.flatMap((s) => s.data);
        const frame = scene.background || (scene.border && scene.border.color !== "none") ? 1 : 0;
        expect(drawn.length).toBe(scene.marks.length + frame);
        for (const s of series)
          for (const dataIndex of s.data.keys())
            if (s.renderItem) expect(s.renderItem({ dataIndex })).toHaveProperty("type");
      }
    },
  );

  const donut = (dials: object): Scene =>
    sceneOf(visualOf("donut", dials as never, { split: { column: "route" } }), sampleData([3, 2, 1]));
  it("is a pie where that draws it truly, and the outlines as data where not", () => {
    const types = (scene: Scene) => optionOf(echartsCode(scene, "n")).series.map((s) => s.type);
    expect(types(donut({ "arc.gap": 0, "arc.corner": 0 }))).toContain("pie");
    expect(types(donut({ "arc.gap": 4, "arc.corner": 0 }))).not.toContain("pie");
  });

  it("keeps names of the data from being code or markup", () => {
    const data = sampleData([3, 2]);
    data.rows[0].label = HOSTILE;
    data.title = HOSTILE;
    const code = echartsCode(
      sceneOf(visualOf("donut", {}, { split: { column: "route" } }), data),
      `a\n${HOSTILE}`,
    );
    expect(code).not.toContain("</script>");
    const { series, tooltip } = optionOf(code);
    const hit = series.flatMap((s) => s.data).find((d) => d.tip?.[0].includes("</script>"));
    expect(hit).toBeDefined();
    expect(tooltip.formatter({ data: hit ?? {} })).not.toContain("<b>");
  });
});

describe("plain HTML", () => {
  it.each(KINDS.map((k) => k.id))(
    "of every hard case of a %s is well formed and says what it shows",
    (kind) => {
      for (const { name, data, dials, look } of casesOf(kind)) {
        const code = pageCode(sceneOf(visualOf(kind, dials, look), data), name);
        expect(XMLValidator.validate(code)).toBe(true);
        expect(new XMLParser().parse(code)).toHaveProperty("figure.svg.title");
      }
    },
  );
});

it("values become code that gives them back", () => {
  const record = Object.fromEntries([
    ["__proto__", 1],
    ["a-b", [HOSTILE, null, true]],
    ["ok", { deep: [1, [2]] }],
  ]);
  for (const width of [1, 100]) expect(new Function(`return ${codeOf(record, 0, width)}`)()).toEqual(record);
  expect(codeOf(HOSTILE)).not.toContain("</script>");
  expect(keyOf("route")).toBe("route");
});

it("names become those of components", () => {
  expect(["Passengers by route", "7 days", "on-time rate", "", "日本"].map(componentName)).toEqual([
    "PassengersByRoute",
    "Visual7Days",
    "OnTimeRate",
    "Visual",
    "Visual",
  ]);
});

it("the code of an element keeps names in their attributes", () => {
  const visual = newVisual({ id: HOSTILE, name: HOSTILE, kind: "donut" });
  const code = {
    board: null,
    visuals: [visual],
    project: { tables: [], inputs: [] },
    file: "a b.cavlo.json",
    theme: "auto" as const,
    filters: { [HOSTILE]: ["'"] },
  };
  for (const text of [plainPageCode(code), examplePage(code, HOSTILE, [])]) {
    expect(text).not.toContain("</script><b>");
    expect(text).toContain('src="a%20b.cavlo.json"');
  }
});
