// Adds up what the unit test runner and the browser test runner report: prints "passed failed".
// A report that is missing or holds no test counts as one failure.
import { existsSync, readFileSync } from "node:fs";

const [unitFile, browserFile] = process.argv.slice(2);
const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : null);
const unit = read(unitFile);
const browser = read(browserFile);
const counts = [unit ? [unit.numPassedTests, unit.numFailedTests] : [0, 1], browser ? [browser.stats.expected + browser.stats.flaky, browser.stats.unexpected] : [0, 1]];
for (const count of counts) if (count[0] + count[1] === 0) count[1] = 1;
console.log(counts.reduce((sum, c) => [sum[0] + c[0], sum[1] + c[1]]).join(" "));
