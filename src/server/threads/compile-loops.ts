import { readFileSync } from "node:fs";
import { join } from "node:path";
import { compiledLoops } from "@/core/engine/loops/compiled-loops";
import { scanWith } from "@/core/engine/loops/current-loops";
import { settings } from "../settings";

/**
 * Has the scans of this thread run in WebAssembly, where the machine knows what it needs (vectors of 128
 * bits); where it does not they run in JavaScript and give the same.
 */
export function compileLoops(): void {
  const bytes = readFileSync(join(settings.root, "dist", "scan-loops.wasm"));
  if (WebAssembly.validate(bytes)) scanWith(compiledLoops(new WebAssembly.Module(bytes)));
}
