import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb, installForTests, installPackages, readJson, run, runTogether } from './setup.mjs';

/** The whole check: lint, types, unit tests, build, journeys in the browser. Ends with the true totals. */
installPackages();
installForTests();
const reports = mkdtempSync(join(tmpdir(), 'wick-test-'));
const npm = (...args) => run('npm', ['run', '--silent', ...args]);

npm('declarations');
await runTogether([
  ['npm', 'run', '--silent', 'types'],
  ['npm', 'run', '--silent', 'lint'],
]);
let failed = false;
failed =
  run('npm', ['run', '--silent', 'unit', '--', '--json', `--outputFile=${reports}/jest.json`], {
    mayFail: true,
  }) !== 0 || failed;
buildWeb();
failed =
  run('npm', ['run', '--silent', 'e2e', '--', '--reporter=list,json'], {
    mayFail: true,
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: `${reports}/playwright.json` },
  }) !== 0 || failed;
npm('share');

const jest = readJson(`${reports}/jest.json`);
const { stats } = readJson(`${reports}/playwright.json`);
const passedCount = jest.numPassedTests + stats.expected;
const failedCount = jest.numFailedTests + jest.numRuntimeErrorTestSuites + stats.unexpected + stats.flaky;
console.log(`${passedCount} passed, ${failedCount} failed`);
process.exit(failed || failedCount > 0 ? 1 : 0);
