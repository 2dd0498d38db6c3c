// Holds the layers of src: imports go one way, between its folders and inside core; each layer has only its
// packages; no two files import each other, types included. `node scripts/check-imports.mjs FOLDER` looks at
// another src.
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";

/**
 * From the ground up: a layer may import those before it, unless `only` names them, and the packages that it
 * lists.
 */
const LAYERS = [
  { name: "core/base", packages: ["date-fns", "@date-fns/utc"] },
  { name: "core/formula", packages: ["re2js"] },
  { name: "core/data", packages: ["zod"] },
  { name: "core/plan", packages: ["zod"] },
  { name: "core/engine", packages: [] },
  { name: "core/project", packages: ["immer", "saxes", "zod"] },
  { name: "core/rows", packages: [] },
  { name: "core/scene", packages: ["culori"] },
  { name: "core/kinds", packages: [] },
  { name: "core/view", packages: ["marked"] },
  { name: "core/changes", packages: [] },
  { name: "core/snapshot", packages: [] },
  { name: "core/review", packages: [] },
  { name: "render", packages: ["@resvg/resvg-js", "echarts", "fflate", "react", "node:fs", "node:path"] },
  { name: "code", packages: [], only: ["core", "render"] },
  { name: "present", packages: [], only: ["core", "render"] },
  {
    name: "embed",
    packages: ["react", "re2js", "date-fns", "@date-fns/utc"],
    only: ["core", "render", "present"],
  },
  { name: "demo", packages: [], only: ["core"] },
  {
    name: "server",
    packages: [
      "node:",
      "@streamparser/json",
      "better-sqlite3",
      "csv-parse",
      "hyparquet",
      "hyparquet-compressors",
      "marked",
      "nanoid",
      "next",
      "saxes",
      "yauzl",
      "yazl",
      "zod",
    ],
  },
  {
    name: "ui",
    only: ["core", "render", "code", "present"],
    types: ["server"],
    packages: [
      "@codemirror/",
      "@lezer/",
      "@tanstack/react-query",
      "@tanstack/react-table",
      "@tanstack/react-virtual",
      "cmdk",
      "idb-keyval",
      "lucide-react",
      "nanoid",
      "next",
      "@dnd-kit/core",
      "@dnd-kit/sortable",
      "@dnd-kit/utilities",
      "radix-ui",
      "react",
      "react-dom",
      "react-day-picker",
      "date-fns",
      "sonner",
      "zustand",
    ],
  },
  {
    name: "app",
    only: ["core", "render", "server", "ui"],
    packages: ["next", "react", "zod", "node:stream"],
  },
];
/** What pages must not carry: the value imports of the interface never lead to these. */
const NOT_IN_PAGES = ["zod"];
/** What they must not carry from the start; what is fetched later may. */
const NOT_AT_ONCE = ["re2js"];
/** What only tests use: it may import everything, and nothing but tests imports it. */
const TESTING = "testing";

const src = process.argv[2] ? resolve(process.argv[2]) : fileURLToPath(new URL("../src", import.meta.url));
const STATEMENT =
  /^(?:import|export)\s+(type\s+)?(?:[^"';]*?\sfrom\s+)?"([^"]+)"|\bimport\(\s*"([^"]+)"\s*\)/gm;
const isTest = (file) => /\.test\.tsx?$/.test(file);
const files = readdirSync(src, { recursive: true }).filter((f) => /\.tsx?$/.test(f));
const layerOf = (file) => LAYERS.find((l) => file.startsWith(`${l.name}/`));

let wrong = 0;
function report(file, what) {
  wrong++;
  console.error(`src/${file}: ${what}`);
}

/** The file of src that an import means, or null where it means a package. */
function fileOf(from, target) {
  const path = target.startsWith("@/")
    ? join(src, target.slice(2))
    : target.startsWith(".")
      ? join(src, dirname(from), target)
      : null;
  if (path === null) return null;
  const found = ["", ".ts", ".tsx", "/index.ts"]
    .map((end) => path + end)
    .find((p) => existsSync(p) && statSync(p).isFile());
  return found === undefined ? path : relative(src, found);
}

function checkPackage(file, layer, target) {
  const allowed = layer.packages.some(
    (p) => target === p || target.startsWith(/[:/]$/.test(p) ? p : `${p}/`),
  );
  if (!allowed) report(file, `${layer.name} has no package ${target}`);
}

function checkLayer(file, layer, to, typeOnly) {
  const other = layerOf(to);
  if (other === layer || to.endsWith(".json")) return;
  if (!other) return report(file, `${layer.name} must not import ${to}`);
  const room = other.name.split("/")[0];
  const allowed = layer.only ? layer.only.includes(room) : LAYERS.indexOf(other) < LAYERS.indexOf(layer);
  if (allowed || (typeOnly && layer.types?.includes(room))) return;
  report(file, `${layer.name} must not import ${to}`);
}

/** Whether a statement brings only types, which are gone when it is built. */
const bringsTypes = (statement) =>
  /^(?:import|export)\s+type\b/.test(statement) || /^import\s+\{(\s*type\s[^,}]+,?)+\s*\}/.test(statement);

const imports = new Map();
/** What is imported as a value: files of src, and packages by their names. */
const values = new Map();
/** The same without what is fetched later. */
const firstValues = new Map();
for (const file of files) {
  const layer = layerOf(file);
  if (!layer && !isTest(file) && !file.startsWith(`${TESTING}/`) && file !== "proxy.ts")
    report(file, "stands in no layer");
  const targets = new Set();
  const valued = new Set();
  const atOnce = new Set();
  for (const [statement, type, from, dynamic] of readFileSync(join(src, file), "utf8").matchAll(STATEMENT)) {
    const target = from ?? dynamic;
    const to = fileOf(file, target);
    if (to !== null) targets.add(to);
    if (!bringsTypes(statement)) valued.add(to ?? target);
    if (!bringsTypes(statement) && !dynamic) atOnce.add(to ?? target);
    if (!layer || isTest(file)) continue;
    if (to === null) checkPackage(file, layer, target);
    else checkLayer(file, layer, to, Boolean(type));
  }
  imports.set(file, targets);
  values.set(file, valued);
  firstValues.set(file, atOnce);
}

/** The ways by some imports from the interface to what its pages must not carry. */
function checkPages(values, unwanted) {
  const queue = files.filter((f) => f.startsWith("ui/") && !isTest(f));
  const cameFrom = new Map(queue.map((f) => [f, null]));
  for (let file = queue.shift(); file !== undefined; file = queue.shift()) {
    for (const to of values.get(file) ?? []) {
      const bad = unwanted.find((p) => to === p || to.startsWith(`${p}/`));
      if (bad) {
        const way = [];
        for (let at = file; at; at = cameFrom.get(at)) way.unshift(at);
        report(way[0], `pages would carry ${bad}, by ${way.join(" -> ")}`);
      } else if (values.has(to) && !cameFrom.has(to)) {
        cameFrom.set(to, file);
        queue.push(to);
      }
    }
  }
}
checkPages(values, NOT_IN_PAGES);
checkPages(firstValues, NOT_AT_ONCE);

/**
 * Files that lead back to themselves, each circle once (R. Tarjan, Depth-first search and linear graph
 * algorithms, 1972).
 */
function circles() {
  const [index, low, stack, found] = [new Map(), new Map(), [], []];
  const visit = (file) => {
    index.set(file, index.size);
    low.set(file, index.get(file));
    stack.push(file);
    for (const to of imports.get(file) ?? []) {
      if (!imports.has(to)) continue;
      if (!index.has(to)) visit(to);
      if (stack.includes(to)) low.set(file, Math.min(low.get(file), low.get(to)));
    }
    if (low.get(file) !== index.get(file)) return;
    const circle = stack.splice(stack.indexOf(file));
    if (circle.length > 1) found.push(circle);
  };
  for (const file of imports.keys()) if (!index.has(file)) visit(file);
  return found;
}
for (const circle of circles()) report(circle[0], `stands in a circle of imports: ${circle.join(", ")}`);
if (files.length === 0) report("", "there is nothing to look at");
if (wrong > 0) process.exit(1);
