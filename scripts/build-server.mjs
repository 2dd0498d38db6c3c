// Bundles the HTTP entry and the worker threads into dist/. Their packages come with them.
import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";
import { buildLoops } from "./build-loops.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));

export function buildServer() {
  // What an earlier build left would only lie about.
  const dist = fileURLToPath(new URL("../dist", import.meta.url));
  // The elements for other pages are built on their own.
  for (const name of existsSync(dist) ? readdirSync(dist) : [])
    if (name !== "embed" && name !== "scan-loops.wasm") rmSync(join(dist, name), { recursive: true });
  const server = build({
    absWorkingDir: root,
    entryPoints: {
      serve: "src/server/serve.ts",
      "compute-worker": "src/server/compute/worker.ts",
      "scan-helper": "src/server/compute/scan-helper.ts",
      "cell-worker": "src/server/cells/worker.ts",
      "import-worker": "src/server/import/worker.ts",
      "table-builder": "src/server/import/builder-thread.ts",
      "picture-worker": "src/server/pictures/worker.ts",
    },
    outdir: "dist",
    outExtension: { ".js": ".mjs" },
    bundle: true,
    splitting: true,
    chunkNames: "chunks/[name]-[hash]",
    platform: "node",
    format: "esm",
    target: "node20",
    // Everything but native packages and the page server is bundled: a thread that loads hundreds of files
    // starts seconds later.
    external: ["better-sqlite3", "@resvg/resvg-js", "next"],
    banner: {
      js: 'import { createRequire as makeRequire } from "node:module"; const require = makeRequire(import.meta.url);',
    },
    alias: { "@": `${root}src` },
    logLevel: "warning",
  });
  return Promise.all([server, buildLoops()]);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildServer();
