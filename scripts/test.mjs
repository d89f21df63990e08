import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { installForTests, installPackages, readJson, requireNode, root, run, runTogether } from './setup.mjs';

/**
 * The whole check: build, types, lint, unit tests, journeys in the browser. Ends with the true totals. With --changed only what a change
 * against the main branch of the origin can touch, and no journeys.
 */
const base = process.argv.includes('--changed') ? baseOfChange() : null;
requireNode();
await installPackages(true);
installForTests();
const reports = mkdtempSync(join(tmpdir(), 'wick-test-'));
const began = Date.now();
const tell = (what) =>
  console.log(`${what}: ${((Date.now() - began) / 60_000).toFixed(1)} min after the packages`);

const script = (name, ...args) => [
  'npm',
  'run',
  '--silent',
  name,
  ...(args.length > 0 ? ['--', ...args] : []),
];
const mayFail = (name, args, env = {}) => {
  const [command, ...rest] = script(name, ...args);
  return run(command, rest, { mayFail: true, env: { ...process.env, ...env } }) !== 0;
};

await runTogether([script('declarations'), script('build')]);
await runTogether([script('types'), ...(base ? lintOf(changedFiles(base)) : [script('lint')])]);
tell('build, types and lint are over');
let failed = mayFail('unit', [
  ...['--json', `--outputFile=${reports}/jest.json`],
  ...(base ? [`--changedSince=${base}`, '--passWithNoTests'] : []),
]);
tell('unit tests are over');
const jest = readJson(`${reports}/jest.json`);
if (base) {
  console.log(
    `${jest.numPassedTests} passed, ${jest.numFailedTests + jest.numRuntimeErrorTestSuites} failed`,
  );
  process.exit(failed ? 1 : 0);
}
failed =
  mayFail('journeys', ['--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: `${reports}/playwright.json`,
  }) || failed;
tell('journeys are over');
run('npm', ['run', '--silent', 'share']);

const { stats } = readJson(`${reports}/playwright.json`);
const passedCount = jest.numPassedTests + stats.expected;
const failedCount = jest.numFailedTests + jest.numRuntimeErrorTestSuites + stats.unexpected + stats.flaky;
console.log(`${passedCount} passed, ${failedCount} failed`);
process.exit(failed || failedCount > 0 ? 1 : 0);

function baseOfChange() {
  const git = (...args) => spawnSync('git', args, { cwd: root, encoding: 'utf8' }).stdout.trim();
  return git('merge-base', 'HEAD', 'origin/main') || git('rev-parse', 'HEAD');
}

/** Files that differ from a commit or are not tracked yet, and are still there. */
function changedFiles(commit) {
  const list = (...args) =>
    spawnSync('git', args, { cwd: root, encoding: 'utf8' })
      .stdout.split('\n')
      .filter((name) => name !== '');
  return [
    ...list('diff', '--name-only', '--diff-filter=d', commit),
    ...list('ls-files', '--others', '--exclude-standard'),
  ];
}

function lintOf(files) {
  const code = files.filter((name) => /\.(ts|mjs|cjs|js|vue)$/.test(name));
  return [
    ...(code.length > 0 ? [['npx', 'eslint', ...code]] : []),
    ...(files.length > 0 ? [['npx', 'prettier', '--check', '--ignore-unknown', ...files]] : []),
  ];
}
