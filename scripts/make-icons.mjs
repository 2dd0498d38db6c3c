// Takes a choice of icons from the icon library as SVG path data in a box of 24, for lollipop heads. Run once
// by hand; the result is committed.
import { readFile, writeFile } from "node:fs/promises";
import { createRequire } from "node:module";

const NAMES =
  "ship anchor sailboat waves train-front bus car bike plane truck warehouse factory store house building landmark user users baby heart star trophy flag target clock calendar sun moon cloud snowflake flame zap battery fuel leaf tree-pine euro dollar-sign wallet shopping-cart package phone mail globe map-pin wrench gauge shield".split(
    " ",
  );
const require = createRequire(import.meta.url);
const folder = require.resolve("lucide-react").replace(/dist\/.*$/, "dist/esm/icons/");
const round = (n) => Math.round(n * 1000) / 1000;

const NUMBER = /^[\s,]*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)/i;

/**
 * Path data with a space between all numbers: the flags of arcs may be written without one, which not every
 * reader understands.
 */
function spaced(d) {
  return d.replace(/([a-z])([^a-z]*)/gi, (_, command, list) => {
    const out = [];
    let rest = list;
    for (let i = 0; rest.trim() !== ""; i++) {
      const flag = command.toLowerCase() === "a" && (i % 7 === 3 || i % 7 === 4);
      const m = flag ? /^[\s,]*([01])/.exec(rest) : NUMBER.exec(rest);
      out.push(m[1]);
      rest = rest.slice(m[0].length);
    }
    return command + out.join(" ");
  });
}

/** One element of an icon as path data. */
function pathOf([tag, a]) {
  const n = (key, standard = 0) => Number(a[key] ?? standard);
  if (tag === "path") return a.d;
  if (tag === "line") return `M${n("x1")} ${n("y1")}L${n("x2")} ${n("y2")}`;
  if (tag === "polyline" || tag === "polygon")
    return `M${a.points
      .trim()
      .split(/\s+(?=\S+\s*,|\S+ \S+)/)
      .join("L")}${tag === "polygon" ? "Z" : ""}`;
  if (tag === "circle" || tag === "ellipse") {
    const [cx, cy, rx, ry] = [n("cx"), n("cy"), n("rx", a.r), n("ry", a.r)];
    return `M${round(cx - rx)} ${cy}A${rx} ${ry} 0 1 1 ${round(cx + rx)} ${cy}A${rx} ${ry} 0 1 1 ${round(cx - rx)} ${cy}Z`;
  }
  if (tag === "rect") {
    const [x, y, w, h, r] = [n("x"), n("y"), n("width"), n("height"), n("rx")];
    return `M${x + r} ${y}H${x + w - r}A${r} ${r} 0 0 1 ${x + w} ${y + r}V${y + h - r}A${r} ${r} 0 0 1 ${x + w - r} ${y + h}H${x + r}A${r} ${r} 0 0 1 ${x} ${y + h - r}V${y + r}A${r} ${r} 0 0 1 ${x + r} ${y}Z`;
  }
  throw new Error(`an icon has a ${tag}`);
}

const icons = {};
for (const name of NAMES) {
  const file = await readFile(`${folder}${name}.mjs`, "utf8").catch(() =>
    readFile(`${folder}${name}.js`, "utf8"),
  );
  // An alias of another icon is passed over.
  if (!file.includes("__iconData = ")) continue;
  const data = /__iconData = (\{[\s\S]*?\});?\n(?:__iconData|const)/.exec(file)[1];
  icons[name] = new Function(`return ${data}`)().node.map(pathOf).map(spaced).join("");
}
await writeFile(new URL("../src/core/scene/icons.json", import.meta.url), `${JSON.stringify(icons)}\n`);
