// Holds the direction of imports: app -> ui -> render -> core, app -> server -> render, core. The core imports nothing of
// ours from outside itself, no Node.js, no React and no database. Types may be taken from the server by the interface.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, normalize, relative } from "node:path";
import { fileURLToPath } from "node:url";

const src = fileURLToPath(new URL("../src", import.meta.url));
const MAY = {
  core: ["core"],
  render: ["core", "render"],
  demo: ["core", "demo"],
  server: ["core", "render", "demo", "server"],
  ui: ["core", "render", "ui"],
  app: ["core", "render", "server", "ui", "app"],
};
const CORE_FORBIDS = /^(node:|react|next|echarts|better-sqlite3|@radix-ui|radix-ui|zustand)/;
const FROM = /^\s*(import|export)\s+(type\s+)?[^;]*?from\s+["']([^"']+)["']|import\(\s*["']([^"']+)["']\s*\)/gm;

let wrong = 0;
const report = (file, what) => {
  wrong++;
  console.error(`${relative(process.cwd(), file)}: ${what}`);
};
for (const name of readdirSync(src, { recursive: true })) {
  if (!/\.tsx?$/.test(name)) continue;
  const file = join(src, name);
  const room = name.split("/")[0];
  const isTest = /\.test\.tsx?$/.test(name);
  for (const m of readFileSync(file, "utf8").matchAll(FROM)) {
    const typeOnly = Boolean(m[2]);
    const target = m[3] ?? m[4];
    if (room === "core" && !isTest && CORE_FORBIDS.test(target)) report(file, `the core must not import ${target}`);
    const inside = target.startsWith("@/") ? target.slice(2) : target.startsWith(".") ? relative(src, normalize(join(dirname(file), target))) : null;
    if (inside === null || inside.startsWith("..")) continue;
    const to = inside.split("/")[0];
    if (MAY[room]?.includes(to) || isTest) continue;
    if (room === "ui" && to === "server" && typeOnly) continue;
    report(file, `${room} must not import from ${to} (${target})`);
  }
}
if (wrong > 0) process.exit(1);
