import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { browserPath, hasBrowser } from './browser.mjs';
import { fingerprint, isBuilt, partNames, setBuilt } from './built.mjs';
import { countPackages, missingPackages } from './installed.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** Runs a command in the project, its output shown; ends the program with its code if it fails. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (status !== 0 && !options.mayFail) process.exit(status ?? 1);
  return status;
}

/** Runs commands side by side, the output of each shown when it has ended. @returns whether all went well */
export async function allWell(commands) {
  const statuses = await Promise.all(
    commands.map(
      ([command, ...args]) =>
        new Promise((resolve) => {
          const said = [];
          const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
          for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => said.push(text));
          child.on('close', (status) => {
            process.stdout.write(Buffer.concat(said));
            resolve(status ?? 1);
          });
        }),
    ),
  );
  return statuses.every((status) => status === 0);
}

const unheard = () => undefined;

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  console.error(`Vivid Wick needs Node 20.19 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

/** How often it is looked how far an installation is, ms. */
const LOOK = 500;

/**
 * Installs the packages of the lock file, unless just those are there already.
 * @param forAll with what only development and tests need
 * @param onProgress told how many of how many lie there
 * @throws with the code of npm
 */
export async function installPackages(forAll, onProgress = unheard) {
  if (missingPackages(root, forAll).length === 0) return;
  console.log('Installing packages ...');
  const looking = setInterval(() => {
    const { done, all } = countPackages(root);
    onProgress(done, all);
  }, LOOK);
  const only = forAll ? [] : ['--omit=dev'];
  try {
    await ended(
      spawn('npm', ['ci', ...only, '--prefer-offline', '--no-audit', '--no-fund', '--loglevel=error'], {
        ...{ cwd: root, stdio: 'inherit', shell: process.platform === 'win32' },
      }),
      'The packages could not be installed.',
    );
  } finally {
    clearInterval(looking);
  }
}

/**
 * Builds a part, unless it was built of just these sources.
 * @param part one of built.mjs
 * @param onProgress told how many files have been read
 */
export async function build(part, onProgress = unheard) {
  if (isBuilt(root, part)) return;
  console.log(`Building the ${part === 'web' ? 'pages' : 'server'} ...`);
  const print = fingerprint(root, part);
  const child = spawn(
    process.execPath,
    [`${root}node_modules/vite/bin/vite.js`, 'build', '--logLevel', 'warn'],
    {
      ...{ cwd: `${root}${part}`, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] },
    },
  );
  child.on('message', ({ filesRead }) => onProgress(filesRead));
  await ended(child, `The ${part === 'web' ? 'pages' : 'server'} could not be built.`);
  setBuilt(root, part, print);
}

export const buildAll = () => Promise.all(partNames.map((part) => build(part)));

const ended = (child, sentence) =>
  new Promise((resolve, reject) => {
    child.on('error', (error) => reject(new Error(`${sentence} ${error.message}`)));
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${sentence} See above.`))));
  });

/** What the tests need of the system, by apt where it is missing: a browser, a PostgreSQL server, and a reader of PDF files. */
export function installForTests() {
  const missing = [
    ...(hasBrowser() ? [] : ['chromium-headless-shell']),
    ...(existsSync('/usr/lib/postgresql') ? [] : ['postgresql']),
    ...(existsSync('/usr/bin/pdftotext') ? [] : ['poppler-utils']),
  ];
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(' and ')} through apt ...`);
  const isRoot = process.getuid?.() === 0;
  const apt = (...args) =>
    run(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args], { mayFail });
  // The browser with a window does as well, where apt has no other.
  const mayFail = missing.length === 1 && !hasBrowser() && existsSync(browserPath());
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...missing);
}

export const readJson = (path) => JSON.parse(readFileSync(path, 'utf8'));
