// Bundles the page of a presented board, which carries no framework, beside the other scripts of the build.
import { rmSync, writeFileSync } from "node:fs";
import { basename } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";
import { lighter } from "./lighter.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const folder = `${root}.next/static/present`;
rmSync(folder, { recursive: true, force: true });
/**
 * What matches regular expressions is larger than all else that answers in the page; projects that need it
 * are answered by the server (src/present/preparing.ts).
 */
const withoutMatching = {
  name: "without matching",
  setup(bundle) {
    bundle.onLoad({ filter: /\/node_modules\/re2js\// }, () => ({ contents: "export const RE2JS = null;" }));
  },
};
const { metafile } = await build({
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
  plugins: [withoutMatching, ...lighter],
  alias: { "@": `${root}src` },
  logLevel: "warning",
  metafile: true,
});
// What the script imports at once is named, so that the page fetches it beside the script and not after it.
const script = Object.values(metafile.outputs).find((o) => o.entryPoint === "src/present/page.ts");
const beside = script.imports.filter((i) => i.kind === "import-statement").map((i) => basename(i.path));
writeFileSync(`${folder}/beside.json`, JSON.stringify(beside));
