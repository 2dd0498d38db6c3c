import { fontStack } from "@/core/scene/families";
import { type Datum, type Mark, type Scene, type Sector, textsOf } from "@/core/scene/marks";
import { drawRect, drawSector, SvgPath } from "@/core/scene/outline";
import { elementOf } from "@/render/echarts-elements";
import { codeOf, commentText, textCode } from "./json-code";

/** A mark by the outline that it has, which any page with the library draws. */
function shapeOf(mark: Mark, family: string): Record<string, unknown> {
  const {
    id: _,
    name: __,
    transition: ___,
    enterFrom: ____,
    emphasisDisabled: _____,
    clipPath,
    ...element
  } = elementOf(mark, family);
  const outline = () => {
    const pen = new SvgPath();
    if (mark.type === "sector") drawSector(pen, mark);
    if (mark.type === "rect") drawRect(pen, mark);
    return { type: "path", shape: { pathData: pen.toString() } };
  };
  const cut = () => {
    const pen = new SvgPath();
    if (mark.clip) drawRect(pen, mark.clip);
    return { type: "path", shape: { pathData: pen.toString() } };
  };
  return {
    ...element,
    ...(mark.type === "sector" || mark.type === "rect" ? outline() : {}),
    ...(clipPath ? { clipPath: cut() } : {}),
  };
}

/** What a tooltip says; names of the data are escaped where the code runs. */
const tipOf = ({ title, lines }: Datum): string[] => [
  title,
  ...lines.map((l) => `${l.label}: ${l.value}${l.exact === undefined ? "" : ` (${l.exact})`}`),
];

interface Item {
  shape: Record<string, unknown>;
  tip?: string[];
}
const itemOf = (mark: Mark, family: string): Item => ({
  shape: shapeOf(mark, family),
  ...(mark.datum ? { tip: tipOf(mark.datum) } : {}),
});

/** Sectors that a pie draws truly: of one ring, one after the other, with square corners and without gaps. */
function asPie(marks: Mark[]): Sector[] | null {
  const data = marks.filter((m): m is Sector => m.surface === "data" && m.type === "sector");
  if (data.length < 2 || marks.some((m) => m.surface === "data" && m.type !== "sector")) return null;
  const [first] = data;
  const isTrue = data.every(
    (s, i) =>
      s.cx === first.cx &&
      s.cy === first.cy &&
      s.inner === first.inner &&
      s.outer === first.outer &&
      s.inset === 0 &&
      !s.clip &&
      !s.shadow &&
      typeof s.fill === "string" &&
      s.corners.every((c) => c === 0) &&
      (i === 0 || Math.abs(s.start - data[i - 1].end) < 1e-6),
  );
  // A pie goes all the way round, or to where it is told to end.
  return isTrue && data.every((s) => s.end > s.start) ? data : null;
}

const inRow = (marks: Mark[], of: Mark[]): boolean => {
  const places = of.map((m) => marks.indexOf(m));
  return places.every((p, i) => i === 0 || p === places[i - 1] + 1);
};

function pieCode(sectors: Sector[]): string {
  const [first] = sectors;
  const last = sectors[sectors.length - 1];
  const round = (n: number) => Math.round(n * 1000) / 1000;
  const series = {
    type: "pie",
    center: [round(first.cx), round(first.cy)],
    radius: [round(first.inner), round(first.outer)],
    startAngle: round(90 - first.start),
    endAngle: round(90 - last.end),
    silent: false,
    label: { show: false },
    labelLine: { show: false },
    emphasis: { disabled: true },
    animation: false,
    data: sectors.map((s) => ({
      value: round(s.end - s.start),
      name: s.datum?.title ?? "",
      tip: s.datum ? tipOf(s.datum) : [],
      itemStyle: { color: s.fill, ...(s.opacity === undefined ? {} : { opacity: s.opacity }) },
    })),
  };
  return codeOf(series, 4);
}

const customCode = (name: string) => `{
      type: "custom",
      coordinateSystem: "none",
      data: ${name}.map((mark, value) => ({ value, tip: mark.tip })),
      renderItem: ({ dataIndex }) => ${name}[dataIndex].shape,
      animation: false,
    }`;

/** A list of items as code, an item a line. */
const listCode = (name: string, items: Item[]) =>
  `const ${name} = [\n${items.map((item) => `  ${codeOf(item, 2, Number.POSITIVE_INFINITY)},\n`).join("")}];\n`;

/**
 * A scene as a module with an option of Apache ECharts 5.5 or later: a pie where that draws it
 * truly, else the
 * custom series with the outlines as data. Drawn at the size of the scene it is the same picture.
 */
export function echartsCode(scene: Scene, name: string): string {
  const family = fontStack(scene.family, textsOf(scene));
  const { marks, width, height, background, border } = scene;
  const frame: Mark[] =
    background || (border && border.color !== "none")
      ? [
          {
            type: "rect",
            id: "frame",
            part: "frame",
            x: border && border.color !== "none" ? 0.5 : 0,
            y: border && border.color !== "none" ? 0.5 : 0,
            width: border && border.color !== "none" ? width - 1 : width,
            height: border && border.color !== "none" ? height - 1 : height,
            radii: [border?.radius ?? 0, border?.radius ?? 0, border?.radius ?? 0, border?.radius ?? 0],
            ...(background ? { fill: background } : {}),
            ...(border && border.color !== "none" ? { stroke: border.color } : {}),
          },
        ]
      : [];
  const all = [...frame, ...marks];
  const pie = asPie(marks);
  const sectors = pie && inRow(all, pie) ? pie : null;
  const at = sectors ? all.indexOf(sectors[0]) : all.length;
  const items = (some: Mark[]) => some.map((mark) => itemOf(mark, family));
  const before = items(all.slice(0, at));
  const after = sectors ? items(all.slice(at + sectors.length)) : [];
  const series = [
    customCode("marks"),
    ...(sectors ? [pieCode(sectors)] : []),
    ...(after.length > 0 ? [customCode("marksAbove")] : []),
  ];
  return `// ${commentText(name)}, for Apache ECharts 5.5 or later, ${width} by ${height} pixels.
// In a page: echarts.init(element, null, { width: ${width}, height: ${height} }).setOption(option);

${listCode("marks", before)}${after.length > 0 ? `\n${listCode("marksAbove", after)}` : ""}
const escaped = (text) => text.replace(/[&<>"]/g, (sign) => \`&#\${sign.charCodeAt(0)};\`);

export const option = {
  aria: { enabled: true, label: { description: ${textCode(scene.description)} } },
  tooltip: { formatter: ({ data }) => (data.tip ?? []).map(escaped).join("<br>") },
  series: [
    ${series.join(",\n    ")},
  ],
};
`;
}
