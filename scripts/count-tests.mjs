// Adds up what the test runners report in the files that are named: prints "passed failed".
// A report that is missing or holds no test counts as one failure.
import { existsSync, readFileSync } from "node:fs";

/** What one report counts: the unit test runner gives totals, the browser test runner statistics. */
function countOf(file) {
  if (!existsSync(file)) return [0, 1];
  const report = JSON.parse(readFileSync(file, "utf8"));
  const [passed, failed] = report.stats
    ? [report.stats.expected + report.stats.flaky, report.stats.unexpected]
    : [report.numPassedTests, report.numFailedTests];
  return passed + failed === 0 ? [0, 1] : [passed, failed];
}

const counts = process.argv.slice(2).map(countOf);
console.log(counts.reduce(([passed, failed], c) => [passed + c[0], failed + c[1]], [0, 0]).join(" "));
