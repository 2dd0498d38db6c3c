// Holds lines of code to 110 characters. A text or a pattern that is longer by itself is left whole: it is
// found by a search.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const MOST = 110;
const root = process.argv[2] ?? fileURLToPath(new URL("..", import.meta.url));
const LITERAL = /"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|`[^`]*`?|\/(?:[^/\\\n]|\\.)+\/[a-z]*/g;

let wrong = 0;
let seen = 0;
for (const folder of ["assembly", "src", "tests", "bench", "scripts"]) {
  for (const name of readdirSync(join(root, folder), { recursive: true })) {
    if (!/\.(tsx?|mjs)$/.test(name) || name.includes("node_modules")) continue;
    const isTest = /\.(test|spec)\.tsx?$/.test(name);
    for (const [i, line] of readFileSync(join(root, folder, name), "utf8")
      .split("\n")
      .entries()) {
      seen++;
      // Inside a template of several lines a test's document may go on as it is.
      if (line.length <= MOST || line.replace(LITERAL, '""').length <= MOST || (isTest && /^\s*</.test(line)))
        continue;
      wrong++;
      console.error(`${folder}/${name}:${i + 1}: ${line.length} characters, at most ${MOST}`);
    }
  }
}
if (seen === 0) wrong++;
if (wrong > 0) process.exit(1);
