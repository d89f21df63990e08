import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { allWell, installForTests, installPackages, readJson, requireNode, root, run } from './setup.mjs';

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
/** @returns whether it went well; its output is shown as it comes */
const runShown = (name, args, env = {}) => {
  const [command, ...rest] = script(name, ...args);
  const child = spawn(command, rest, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  return new Promise((resolve) => child.on('close', (status) => resolve(status === 0)));
};

// Types of the pages need those of what they are built on; journeys and servers under test need what is built.
if (!(await allWell([script('declarations'), script('build')]))) process.exit(1);
tell('the build stands');
const checks = allWell([script('types'), ...(base ? lintOf(changedFiles(base)) : [script('lint')])]);
const unit = runShown('unit', [
  ...['--json', `--outputFile=${reports}/jest.json`],
  ...(base ? [`--changedSince=${base}`, '--passWithNoTests'] : []),
]);
const areSound = await checks;
let failed = !(await unit) || !areSound;
tell('types, lint and unit tests are over');
const jest = readJson(`${reports}/jest.json`);
if (base) {
  console.log(
    `${jest.numPassedTests} passed, ${jest.numFailedTests + jest.numRuntimeErrorTestSuites} failed`,
  );
  process.exit(failed ? 1 : 0);
}
failed =
  !(await runShown('journeys', ['--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: `${reports}/playwright.json`,
  })) || failed;
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
