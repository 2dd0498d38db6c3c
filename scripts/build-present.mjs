// Bundles the page of a presented board, which carries no framework, beside the other scripts of the build.
import { rmSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = fileURLToPath(new URL("..", import.meta.url));
const folder = `${root}.next/static/present`;
rmSync(folder, { recursive: true, force: true });
await build({
  absWorkingDir: root,
  entryPoints: { board: "src/present/page.ts", look: "src/present/page.css" },
  outdir: folder,
  entryNames: "[name]-[hash]",
  assetNames: "[name]-[hash]",
  publicPath: "/_next/static/present",
  bundle: true,
  // What is opened by few is fetched by them alone.
  splitting: true,
  chunkNames: "part-[hash]",
  minify: true,
  format: "esm",
  target: ["chrome111", "firefox111", "safari16.4"],
  loader: { ".woff2": "file", ".woff": "file" },
  alias: { "@": `${root}src` },
  logLevel: "warning",
});
