import { emptyJob } from '@wick/plan/job/new-job';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from '@jest/globals';
import { brokenJobFiles } from '@wick/plan/files/test/broken-job-files';
import { main } from './main.ts';
import { progressOn } from './simulate.ts';

const demo = (name: string) => fileURLToPath(new URL(`../../demo/${name}.wick.json`, import.meta.url));
const file = (text: string) => {
  const path = join(mkdtempSync(join(tmpdir(), 'wick-cli-')), 'job.json');
  writeFileSync(path, text);
  return path;
};
/** A path nothing stands at yet. */
const target = (name: string) => join(mkdtempSync(join(tmpdir(), 'wick-')), name);
function wick(...args: string[]) {
  const lines: string[] = [];
  const errors: string[] = [];
  const code = main(args, { out: (text) => lines.push(text), err: (text) => errors.push(text) }) as number;
  return { code, out: lines.join('\n'), err: errors.join('\n') };
}

describe('wick rehearse', () => {
  test('the same seed comes to the same line; many say how many were saved', () => {
    const one = () =>
      wick('rehearse', demo('kiosk-fascia'), '--seed', '3', '--nodes', '120', '--altitude', '640');
    const { code, out } = one();
    expect(code).toBe(0);
    expect(out).toMatch(/^3: (full at [\d.]+ min, gel at [\d.]+ min|lost: \d+ % full at gel)/);
    expect(one().out).toBe(out);
    const two = wick('rehearse', demo('kiosk-fascia'), '--runs', '2', '--nodes', '120', '--policy', 'follow');
    expect(two.out).toMatch(/of 2 parts saved\. After three marks the range held the truth in \d of \d/);
  });

  test('what cannot be is said with what can', () => {
    const bad = wick('rehearse', demo('kiosk-fascia'), '--policy', 'best');
    expect([bad.code, bad.err.includes('“planned” or “follow”')]).toEqual([2, true]);
    const none = wick('rehearse', file(JSON.stringify(emptyJob('Bare'))));
    expect(none.code).not.toBe(0);
    expect(none.err).not.toBe('');
  });
});

describe('wick simulate', () => {
  test('the failing demo ends with 1 and says how far the resin gets', () => {
    const { code, out } = wick('simulate', demo('dome-gore-7'), '--altitude', '640', '--nodes', '800');
    expect(code).toBe(1);
    expect(out).toContain('Will not fill: the resin gels at');
    expect(out).toMatch(/4:00 {2}Feed 1 opens/);
  });

  test('--json gives numbers, probes later the further from the feed, and null for never', () => {
    const { code, out } = wick(
      'simulate',
      demo('hydro-spinner'),
      '--json',
      '--nodes',
      '800',
      '--probe',
      '0.46,0.65',
      '--probe',
      '0.46,0.9',
      '--probe',
      '9,9',
    );
    expect(code).toBe(0);
    const report = JSON.parse(out);
    expect(report.verdict.band).toBe('comfortable');
    expect(report.probes[1].time).toBeGreaterThan(report.probes[0].time);
    expect(report.probes[2].time).toBeNull();
    expect(report.massError).toBeLessThan(1e-6);
  });

  test('what the model refuses ends with 4 and one sentence', () => {
    const { code, err } = wick('simulate', file(JSON.stringify(emptyJob('Bare'))));
    expect([code, err.includes('No plies yet')]).toEqual([4, true]);
    const cold = wick('simulate', demo('hydro-spinner'), '--room=-15');
    expect([cold.code, cold.err.includes('too far off to guess')]).toEqual([4, true]);
  });
});

describe('results out', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wick-out-'));

  test('--vtk and --csv hold the same arrivals, and --layers the lag', () => {
    const [vtk, csv] = [join(folder, 'a.vtu'), join(folder, 'a.csv')];
    const { code, out } = wick(
      'simulate',
      demo('hydro-spinner'),
      '--layers',
      '--nodes',
      '400',
      '--vtk',
      vtk,
      '--csv',
      csv,
    );
    expect(code).toBe(0);
    expect(out).toMatch(/6 layers; the mould side lags by up to \d+ mm/);
    const [head, ...rows] = readFileSync(csv, 'utf8').trimEnd().split('\n');
    expect(head!.split(',').slice(0, 4)).toEqual(['x_m', 'y_m', 'z_m', 'arrival_s']);
    expect(head).toContain('lag_m');
    const body = /Name="arrival_s"[^>]*>\n([\s\S]*?)\n</.exec(readFileSync(vtk, 'utf8'))![1]!;
    const arrivals = body.split(/\s+/).map(Number);
    expect(arrivals).toHaveLength(rows.length);
    rows.forEach((row, i) => {
      const cell = row.split(',')[3]!;
      if (cell !== '') expect(Number(cell)).toBe(arrivals[i]);
    });
    const refused = wick('simulate', demo('hydro-spinner'), '--nodes', '200', '--csv', '/nowhere/at/all.csv');
    expect([refused.code, refused.err.includes('cannot be written')]).toEqual([3, true]);
  });

  test('a surface from an STL file fills from end to end', () => {
    const stl = join(folder, 'strip.stl');
    const facet = (...corners: string[]) =>
      `facet normal 0 0 1\nouter loop\n${corners.map((c) => `vertex ${c}`).join('\n')}\nendloop\nendfacet`;
    writeFileSync(
      stl,
      `solid s\n${facet('0 0 0', '600 0 0', '600 200 80')}\n${facet('0 0 0', '600 200 80', '0 200 80')}\nendsolid`,
    );
    const ends = ['--feed', '0,0,0 0,0.2,0.08', '--vent', '0.6,0,0 0.6,0.2,0.08'];
    const job = ['--job', demo('hydro-spinner')];
    const { code, out } = wick('shell', stl, ...job, ...ends, '--nodes', '300');
    expect(code).toBe(0);
    expect(out).toContain('Feed 1 opens');
    expect(wick('shell', stl, ...ends).err).toContain('--job FILE');
    expect(wick('shell', stl, ...job, '--feed', 'here').err).toContain('--feed takes points');
    expect(wick('shell', stl, ...job, ...ends, '--unit', 'league').err).toContain(
      '--unit takes m, cm, mm, in',
    );
    const inTheAir = ['--feed', '0,0,3 0,0.2,3', '--vent', '0.6,0,0'];
    expect(wick('shell', stl, ...job, ...inTheAir).err).toContain('off the surface');
    expect(wick('shell', file('solid'), ...job, ...ends).err).toContain('holds no triangle');
  });
});

describe('wick plan', () => {
  test.each<[string, RegExp]>([
    ['plan.dxf', /LWPOLYLINE/],
    ['plan.svg', /<svg [^>]*width="\d/],
    ['plan.geojson', /"FeatureCollection"/],
    ['cuts.csv', /^label,cloth,zone/],
  ])('writes %s by its ending', (name, holds) => {
    const path = target(name);
    expect(wick('plan', demo('kiosk-fascia'), '--to', path)).toMatchObject({ code: 0 });
    expect(readFileSync(path, 'utf8')).toMatch(holds);
  });

  test('says where a plan can go, and when it cannot', () => {
    expect(wick('plan', demo('kiosk-fascia'))).toMatchObject({ code: 2 });
    expect(wick('plan', demo('kiosk-fascia'), '--to', 'plan.doc').err).toContain('--to plan.dxf');
    const nowhere = wick('plan', demo('kiosk-fascia'), '--to', '/nowhere/at/all.dxf');
    expect(nowhere).toMatchObject({ code: 3 });
    expect(nowhere.err).toContain('cannot be written (ENOENT)');
  });
});

describe('wick stack', () => {
  test('prints layers, what is wrong with its change, bag and take-off, and writes the kit list', () => {
    const path = target('kit.csv');
    const { code, out } = wick('stack', demo('rescue-sled-tray'), '--csv', path);
    expect(code).toBe(1);
    expect(out).toContain('perforated film: Perforated film P1');
    expect(out.match(/^wrong {2}/gm)).toHaveLength(3);
    expect(out).toContain('pleat  77 mm high at Side wall');
    expect(out).toContain('bridges  Side wall');
    expect(out).toContain('5.16 m Sealant tape 12');
    expect(readFileSync(path, 'utf8')).toMatch(/^phase,what,amount,unit/);
  });

  test('a sound stack ends with 0', () => {
    const { code, out } = wick('stack', demo('kiosk-fascia'));
    expect(code).toBe(0);
    expect(out).toContain('Nothing missing, nothing short.');
  });
});

describe('wick check', () => {
  test('lists what a file leaves to assumption', () => {
    const { code, out } = wick('check', demo('hydro-spinner'));
    expect(code).toBe(0);
    expect(out).toContain('assumed  Vacuum at the vent: 20 mbar');
  });

  test.each(brokenJobFiles())('$name ends with 3', ({ text, says }) => {
    const { code, err } = wick('check', file(text));
    expect(code).toBe(3);
    expect(err).toContain(says);
  });

  test.each<[string[], number, string]>([
    [[], 0, ''],
    [['dance', 'x.json'], 2, 'There is no command “dance”'],
    [['check'], 2, 'Name one file'],
    [['check', '/nowhere/at/all.json'], 3, 'cannot be read (ENOENT)'],
    [['simulate', demo('hydro-spinner'), '--probe', 'here'], 2, '--probe takes a place'],
    [['simulate', demo('hydro-spinner'), '--nodes', 'NaN'], 2, '--nodes takes a number from 50'],
    [['simulate', demo('hydro-spinner'), '--loud'], 2, 'wick help'],
  ])('%j ends with %d', (args, code, says) => {
    const result = wick(...args);
    expect(result.code).toBe(code);
    expect(result.err).toContain(says);
  });
});

test('a long run says every three seconds how far it is, and a short one nothing', () => {
  const said: string[] = [];
  let time = 0;
  const tell = progressOn({ err: (text) => void said.push(text) }, () => time);
  for (time = 0; time <= 7000; time += 500) tell(time / 10_000);
  expect(said).toEqual(['30.0 % filled after 3 s ...', '60.0 % filled after 6 s ...']);
});
