// Bundles the HTTP entry and the worker threads into dist/. Packages stay outside the bundles.
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = fileURLToPath(new URL("..", import.meta.url));

export function buildServer() {
  return build({
    absWorkingDir: root,
    entryPoints: {
      serve: "src/server/serve.ts",
      "compute-worker": "src/server/compute/worker.ts",
      "import-worker": "src/server/import/worker.ts",
      "picture-worker": "src/server/pictures/worker.ts",
    },
    outdir: "dist",
    outExtension: { ".js": ".mjs" },
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    packages: "external",
    alias: { "@": `${root}src` },
    logLevel: "warning",
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildServer();
