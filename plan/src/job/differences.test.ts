import { describe, expect, test } from '@jest/globals';
import { demoJobs } from '../demo/jobs.ts';
import { updateLine } from '../layout/edits.ts';
import { copyLayout } from '../layout/layouts.ts';
import { addMark } from '../layout/marks.ts';
import { addZone } from '../part/zones.ts';
import { movePly } from '../laminate/edits.ts';
import { differencesOf } from './differences.ts';
import { withDoubt, withName, withResin } from './edits.ts';

const gore = demoJobs[0]!;
const told = (...edits: ((job: typeof gore) => typeof gore)[]) =>
  differencesOf(
    edits.reduce((job, edit) => edit(job), gore),
    gore,
  ).map(({ where, what }) => `${where}: ${what}`);

describe('two versions of a job', () => {
  test('equal ones differ in nothing', () => {
    expect(differencesOf(gore, structuredClone(gore))).toEqual([]);
  });

  test.each<[string, (job: typeof gore) => typeof gore, string]>([
    ['a name', withName('x'), ': name'],
    [
      'a line moved',
      updateLine('feed-2', { points: [{ x: 1, y: 1 }] }),
      'layouts › layout A › lines › Feed 2: place',
    ],
    ['a mark', addMark({ x: 1, y: 1 }, 'm'), 'marks: Mark 1 only here'],
    ['a zone', addZone(gore.part.outline, {}, 'z'), 'zones: Zone 1 only here'],
    ['a layout', copyLayout('', 'l'), 'layouts: layout B only here'],
    ['a doubt', withDoubt({ raceGap: 0.002 }), 'doubt: raceGap'],
    ['a temperature', withResin({ temperature: 300 }), 'resin: temperature'],
    ['the order of plies', movePly(null, 0, 1), 'laminate › plies: another order'],
  ])('%s is named', (_, edit, words) => {
    expect(told(edit)).toContain(words);
    expect(differencesOf(gore, edit(gore)).length).toBeGreaterThan(0);
  });
});
