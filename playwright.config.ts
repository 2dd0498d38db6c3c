import { defineConfig } from "@playwright/test";
import { browserOptions } from "./tests/browser-options";
import { freePort } from "./tests/free-port";

const port = freePort();

export default defineConfig({
  testDir: "tests/e2e",
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 90_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["json", { outputFile: ".check/browser.json" }]],
  use: { ...browserOptions, baseURL: `http://127.0.0.1:${port}` },
  webServer: {
    command: `rm -rf .check/data && node dist/serve.mjs --port ${port} --data .check/data`,
    url: `http://127.0.0.1:${port}/api/health`,
    env: { NODE_ENV: "production" },
    timeout: 60_000,
    reuseExistingServer: false,
  },
});
