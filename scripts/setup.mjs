import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** Runs a command in the project, its output shown; ends the program with its code if it fails. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (status !== 0 && !options.mayFail) process.exit(status ?? 1);
  return status;
}

/** Runs commands side by side, the output of each shown when it has ended; ends the program if one fails. */
export async function runTogether(commands) {
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
  if (statuses.some((status) => status !== 0)) process.exit(1);
}

/** Installs exactly the packages of the lock file, unless they are there already. */
export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Vivid Wick needs Node 20.19 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const marker = `${root}node_modules/.package-lock.json`;
  const isFresh =
    existsSync(marker) && statSync(marker).mtimeMs >= statSync(`${root}package-lock.json`).mtimeMs;
  if (isFresh) return;
  console.log('Installing packages ...');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
}

/** Builds the web application when its sources are newer than the last build. */
export function buildWeb() {
  console.log('Building the web application ...');
  run('npm', ['run', '--silent', 'build']);
}

/** What the tests need of the system, by apt where it is missing: a browser, a PostgreSQL server, and a reader of PDF files. */
export function installForTests() {
  const missing = [
    ...(existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium') ? [] : ['chromium']),
    ...(existsSync('/usr/lib/postgresql') ? [] : ['postgresql']),
    ...(existsSync('/usr/bin/pdftotext') ? [] : ['poppler-utils']),
  ];
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(' and ')} through apt ...`);
  const isRoot = process.getuid?.() === 0;
  const apt = (args) => run(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args]);
  apt(['update', '-qq']);
  apt(['install', '-y', '-qq', '--no-install-recommends', ...missing]);
}

export const readJson = (path) => JSON.parse(readFileSync(path, 'utf8'));
