import { execFileSync } from "node:child_process";

const ASK = `const s = require("node:net").createServer().listen(0, "127.0.0.1", () => {
  process.stdout.write(String(s.address().port)); s.close(); });`;

/**
 * A port of this machine that nothing listens on: asked for once, and then the same in all processes of a
 * run.
 */
export function freePort(): string {
  process.env.CAVLO_TEST_PORT ??= execFileSync(process.execPath, ["-e", ASK], { encoding: "utf8" });
  return process.env.CAVLO_TEST_PORT;
}
