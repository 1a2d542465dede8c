// The failed tests of a run's JSON report, a name and its first words a line each: node tests/fell.mjs vitest|playwright FILE
import { existsSync, readFileSync } from "node:fs";

const [runner, file] = process.argv.slice(2);
const report = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : {};
const words = (text) => String(text ?? "").split("\n").slice(0, 8).join("\n    ");

const ofVitest = () =>
  (report.testResults ?? []).flatMap((suite) => [
    ...(suite.status === "failed" && suite.assertionResults.length === 0 ? [`${suite.name}\n    ${words(suite.message)}`] : []),
    ...suite.assertionResults
      .filter((test) => test.status === "failed")
      .map((test) => `${suite.name}: ${test.fullName}\n    ${words(test.failureMessages[0])}`),
  ]);

/** What the page showed when a browser test fell: its roles and names, as the runner wrote them down. */
const shown = (result) => {
  const at = result?.attachments?.find((kept) => kept.name === "error-context")?.path;
  const page = at && existsSync(at) ? readFileSync(at, "utf8").split(/^# Page snapshot$/m)[1] : undefined;
  return page ? `\n    The page:\n${page.split("```")[1]?.split("\n").slice(1, 60).join("\n")}` : "";
};

const ofPlaywright = () => {
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)];
  return (report.suites ?? [])
    .flatMap(specs)
    .flatMap((spec) => spec.tests.map((test) => ({ spec, test })))
    .filter(({ test }) => test.status === "unexpected" || test.status === "flaky")
    .map(({ spec, test }) => {
      const bad = test.results.find((result) => result.error);
      return `${spec.file}:${spec.line} ${spec.title} (${test.status})\n    ${words(bad?.error?.message)}${shown(bad)}`;
    });
};

for (const line of runner === "vitest" ? ofVitest() : ofPlaywright()) console.log(line);
