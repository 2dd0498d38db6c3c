// Adds up what the test runners report in the files that are named: prints "passed failed",
// and on the error stream each test that failed with the first lines of why: they stand beside the totals.
// A report that is missing or holds no test counts as one failure.
import { existsSync, readFileSync } from "node:fs";

/** What the unit test runner reports: totals, and its tests by file. */
function ofUnits(report) {
  const failed = report.testResults.flatMap((file) => [
    ...(file.status === "failed" && file.assertionResults.length === 0 ? [[file.name, file.message]] : []),
    ...file.assertionResults
      .filter((test) => test.status === "failed")
      .map((test) => [`${file.name} › ${test.fullName}`, test.failureMessages[0]]),
  ]);
  return { passed: report.numPassedTests, failed: report.numFailedTests, named: failed };
}

/** What the browser test runner reports: statistics, and its tests in suites within suites. */
function ofBrowser(report) {
  const named = [];
  const walk = (suite) => {
    for (const spec of suite.specs ?? [])
      if (!spec.ok)
        named.push([
          `${spec.file}:${spec.line} › ${spec.title}`,
          spec.tests[0]?.results.at(-1)?.error?.message,
        ]);
    for (const inner of suite.suites ?? []) walk(inner);
  };
  for (const suite of report.suites) walk(suite);
  return { passed: report.stats.expected + report.stats.flaky, failed: report.stats.unexpected, named };
}

function countOf(file) {
  if (!existsSync(file)) return { passed: 0, failed: 1, named: [[file, "This report was not written."]] };
  const report = JSON.parse(readFileSync(file, "utf8"));
  const count = report.stats ? ofBrowser(report) : ofUnits(report);
  return count.passed + count.failed === 0
    ? { passed: 0, failed: 1, named: [[file, "This report holds no test."]] }
    : count;
}

const counts = process.argv.slice(2).map(countOf);
for (const [name, why] of counts.flatMap((count) => count.named))
  console.error(
    `FAILED ${name}\n${String(why ?? "")
      .split("\n")
      .slice(0, 12)
      .join("\n")}`,
  );
console.log(counts.reduce(([passed, failed], c) => [passed + c.passed, failed + c.failed], [0, 0]).join(" "));
