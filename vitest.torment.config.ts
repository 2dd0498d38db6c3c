import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

/** Attacks on the running application: short in every check, long by hand with TORMENT=long. */
export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    include: ["tests/torment/**/*.test.ts"],
    testTimeout: 3_600_000,
    hookTimeout: 120_000,
    fileParallelism: false,
  },
});
