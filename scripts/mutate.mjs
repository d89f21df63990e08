/**
 * Mutation testing by hand: makes one small fault at a time in a copy of the sources and tells which of them no test notices.
 *
 *     node scripts/mutate.mjs <folder of a throwaway copy> <how many> <folders> [tests] [tests left out]
 *
 * The copy is changed in place, so it is never the working folder itself.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const [copy = '', wanted = '40', sources = '', tests = '', ignored = ''] = process.argv.slice(2);
const root = resolve(copy);
if (!copy || root === resolve(dirname(fileURLToPath(import.meta.url)), '..'))
  throw new Error('Give the folder of a throwaway copy of the repository: its sources are changed.');

/** What is looked for, and what takes its place. */
const faults = [
  [/ === /g, ' !== '],
  [/ !== /g, ' === '],
  [/ && /g, ' || '],
  [/ \|\| /g, ' && '],
  [/ < /g, ' >= '],
  [/ > /g, ' <= '],
  [/ <= /g, ' < '],
  [/ >= /g, ' > '],
  [/ \+ /g, ' - '],
  [/ - /g, ' + '],
  [/ \* /g, ' / '],
  [/\btrue\b/g, 'false'],
  [/\bfalse\b/g, 'true'],
  [/\.some\(/g, '.every('],
  [/\.every\(/g, '.some('],
  [/Math\.max\(/g, 'Math.min('],
  [/Math\.min\(/g, 'Math.max('],
  [/return [^;]+;/g, 'return undefined;'],
];
const isCode = (line) =>
  !/^\s*(\*|\/\*|\/\/|import |export type|export interface|interface |type |readonly )/.test(line);

/** Numbers 0-1, the same at every run. */
let state = 42;
const dice = () => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648;

function mutants(file) {
  const text = readFileSync(file, 'utf8');
  let at = 0;
  return text.split('\n').flatMap((line, index) => {
    const start = at;
    at += line.length + 1;
    if (!isCode(line)) return [];
    return faults.flatMap(([pattern, by]) =>
      [...line.matchAll(pattern)].map((match) => ({
        file,
        line: index + 1,
        was: match[0],
        by,
        text: text.slice(0, start + match.index) + by + text.slice(start + match.index + match[0].length),
      })),
    );
  });
}

const files = sources
  .split(',')
  .flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true }).map((name) => join(root, folder, name)),
  )
  .filter((file) => /\.ts$/.test(file) && !/\.test\.ts$|\/test\/|\/demo\//.test(file));
const all = files.flatMap(mutants);
const chosen = Array.from(
  { length: Math.min(Number(wanted), all.length) },
  () => all.splice(Math.floor(dice() * all.length), 1)[0],
);

/** A fault that makes the tests go on for ever is noticed too, ms. */
const PATIENCE = 90_000;

/** Tests too slow to be run for each fault. */
const slow = ignored ? ['--testPathIgnorePatterns', ignored] : [];
const jest = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js'];
/** In one process, which a hang can be ended with. */
const run = (paths) =>
  spawnSync(process.execPath, [...jest, '--runInBand', '--bail', '--silent', ...slow, ...paths], {
    cwd: root,
    timeout: PATIENCE,
    killSignal: 'SIGKILL',
    stdio: 'ignore',
  }).status === 0;

let killed = 0;
for (const { file, line, was, by, text } of chosen) {
  const before = readFileSync(file, 'utf8');
  writeFileSync(file, text);
  const near = dirname(file).slice(root.length + 1);
  // The tests beside it first; what they let live has to live through all.
  const lives = run([near]) && run(tests ? tests.split(',') : [near.split('/')[0]]);
  writeFileSync(file, before);
  killed += Number(!lives);
  console.log(
    `${lives ? 'LIVES ' : 'killed'} ${file.slice(root.length + 1)}:${line}  ${was.slice(0, 60)} → ${by}`,
  );
}
console.log(
  `${killed} of ${chosen.length} killed (of ${all.length + chosen.length} that could be made in ${files.length} files)`,
);
