// Compiles assembly/, the engine's loops over rows, into dist/scan-loops.wasm.
import { mkdirSync } from "node:fs";
import { fileURLToPath } from "node:url";
import asc from "assemblyscript/asc";

const root = fileURLToPath(new URL("..", import.meta.url));

export async function buildLoops() {
  mkdirSync(`${root}dist`, { recursive: true });
  const { error, stderr } = await asc.main([
    "assembly/loops.ts",
    "--baseDir",
    root,
    "--outFile",
    "dist/scan-loops.wasm",
    "-O3",
    "--enable",
    "simd",
    "--runtime",
    "stub",
    "--noAssert",
    "--importMemory",
  ]);
  if (error) throw new Error(`The loops could not be compiled: ${error.message}\n${stderr}`);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildLoops();
