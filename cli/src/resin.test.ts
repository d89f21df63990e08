import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import { emptyJob } from '@wick/plan/job/new-job';
import { main } from './main.ts';

const demo = (name: string) => fileURLToPath(new URL(`../../demo/${name}.wick.json`, import.meta.url));
const target = (name: string) => join(mkdtempSync(join(tmpdir(), 'wick-')), name);
async function wick(...args: string[]) {
  const lines: string[] = [];
  const errors: string[] = [];
  const code = await main(args, { out: (text) => lines.push(text), err: (text) => errors.push(text) });
  return { code, out: lines.join('\n'), err: errors.join('\n') };
}

test('wick resin prints ledger, batches, what is wrong, what is suggested, and a sheet; and writes CSV and XLSX', async () => {
  const [csv, xlsx] = [target('resin.csv'), target('resin.xlsx')];
  const { code, out } = await wick(
    'resin',
    demo('footbridge-kerb-plate'),
    '--altitude',
    '640',
    '--nodes',
    '400',
    '--csv',
    csv,
    '--xlsx',
    xlsx,
  );
  // One batch of all is more than its bucket holds.
  expect(code).toBe(1);
  expect(out).toMatch(/Resin to mix: 4\.\d+ kg \(quick rule, fibre and a kilogram: 7\.96 kg\)/);
  expect(out).toMatch(/kg {2}Net mesh open/);
  expect(out).toMatch(/wrong {2}Batch 1 is more than the mixing bucket holds/);
  expect(out).toMatch(/suggested {2}Batch 2: [\d.]+ kg, mix at/);
  expect(out).toMatch(/Mix sheet 1 of 1, by weight, 100 : 33/);
  expect(out).toContain('Follow the safety data sheet');
  expect(readFileSync(csv, 'utf8')).toMatch(/^what,mass_kg,where/);
  expect(readFileSync(xlsx).subarray(0, 2).toString()).toBe('PK');
});

test('a wet layup has a ledger and a sheet and no draw-down; a job without plies says what it lacks', async () => {
  const tray = await wick('resin', demo('rescue-sled-tray'));
  expect(tray.code).toBe(0);
  expect(tray.out).toMatch(/Mix sheet 1 of 1/);
  expect(tray.out).not.toMatch(/suggested/);
  const bare = target('bare.wick.json');
  writeFileSync(bare, JSON.stringify(emptyJob('Bare')));
  const none = await wick('resin', bare);
  expect(none.code).toBe(4);
  expect(none.err).toMatch(/Bare has no plies yet/);
  expect((await wick('resin', demo('rescue-sled-tray'), '--xlsx', '/nowhere/x.xlsx')).err).toMatch(
    /cannot be written/,
  );
});
