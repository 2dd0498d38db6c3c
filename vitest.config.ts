import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const alias = { "@": fileURLToPath(new URL("./src", import.meta.url)) };

export default defineConfig({
  resolve: { alias },
  test: {
    globalSetup: ["./scripts/vitest-setup.mjs"],
    maxWorkers: "100%",
    projects: [
      {
        // What is pure shares its modules: they hold no state but what they remember.
        extends: true,
        test: {
          name: "pure",
          include: ["src/{core,code,demo,embed,present,render,testing}/**/*.test.ts"],
          exclude: ["src/render/table/**"],
          testTimeout: 60_000,
          isolate: false,
        },
      },
      {
        // The engine once more, by the loops that the server scans with.
        extends: true,
        test: {
          name: "compiled",
          include: ["src/core/engine/**/*.test.ts"],
          setupFiles: ["./src/testing/with-compiled-loops.ts"],
          testTimeout: 60_000,
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: "stateful",
          include: ["src/{server,ui,app}/**/*.test.ts", "src/render/table/**/*.test.ts"],
          testTimeout: 60_000,
        },
      },
    ],
  },
});
