import { defineConfig } from "@playwright/test";
import base from "./playwright.config";

/** Makes the pictures of docs/screenshots from the demo data: npm run screenshots. */
export default defineConfig({
  ...base,
  testDir: "tests/screenshots",
  reporter: [["list"]],
  workers: 1,
  fullyParallel: false,
});
