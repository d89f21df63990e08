import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { root } from './setup.mjs';

/** Prints how many of the code lines are tests; blank lines do not count. */
const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => /\.(ts|vue|mjs|js|cjs|css)$/.test(file) && !file.includes('migrations/'));
const linesIn = (list) =>
  list.reduce(
    (sum, file) =>
      sum +
      readFileSync(root + file, 'utf8')
        .split('\n')
        .filter((line) => line.trim() !== '').length,
    0,
  );
const isTest = (file) => /\.test\.ts$|^e2e\/|\/test\//.test(file);
const [tests, all] = [linesIn(files.filter(isTest)), linesIn(files)];
console.log(`Tests are ${((100 * tests) / all).toFixed(1)} % of ${all} code lines (aim: 25 to 33 %).`);
