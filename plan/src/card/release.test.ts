import { expect, test } from '@jest/globals';
import type { Mould } from '@wick/contract/mould';
import type { ReleaseRecipe } from '@wick/contract/steps';
import { demoMoulds } from '../demo/moulds.ts';
import { applicationWords, coatsOf, recipeOf, releaseDuration, releaseFaults } from './release.ts';
import { makeCard, minuteOf, workedRun } from './test/worked-run.ts';
import { usualSteps } from './usual-steps.ts';

const MINUTE = 60;
const recipe = (id: string): ReleaseRecipe => recipeOf(usualSteps, id);
const used = demoMoulds[0]!;
const fresh: Mould = { ...used, history: [] };

test('sealer twice and release three times: 75 minutes and 75 more, minute by minute', () => {
  // Common practice, no source: sealer 15 min apart, 1 h before release; release 15 min apart, 45 min before use.
  const coats = coatsOf(recipe('semi-permanent'), used);
  expect(coats.map(({ name, number, at }) => [name, number, at / MINUTE])).toEqual([
    ['Sealer', 1, 0],
    ['Sealer', 2, 15],
    ['Release', 1, 75],
    ['Release', 2, 90],
    ['Release', 3, 105],
  ]);
  const sealing = coats.filter(({ name }) => name === 'Sealer');
  expect(releaseDuration(sealing) / MINUTE).toBe(75);
  expect(releaseDuration(coats) / MINUTE).toBe(75 + 75);
});

test('the same, by its clocks in a run: each is due at its minute, none before', () => {
  const card = makeCard('Dome gore 7');
  const run = workedRun(card);
  for (const [minute, id] of [
    [0, 'coat:sealer-1'],
    [15, 'coat:sealer-2'],
    [75, 'coat:release-1'],
    [90, 'coat:release-2'],
    [105, 'coat:release-3'],
  ] as const) {
    if (minute > 0) {
      expect(run.at(minute - 0.01).timers).toMatchObject([{ state: 'waiting', endsWith: id }]);
      expect(minuteOf(run.at(minute).timers[0]!.opensAt)).toBe(minute);
    }
    run.do(minute, id);
  }
  const ready = run.at(149.9).timers;
  expect(ready).toMatchObject([{ word: 'Release is ready', state: 'waiting', endsWith: 'gel-pass:1' }]);
  expect(minuteOf(ready[0]!.opensAt)).toBe(150);
  expect(run.at(150).timers).toMatchObject([{ state: 'open' }]);
});

test('wax: five coats on a used mould, nine on a new one, each wiped once it has hazed, an hour until the gel coat', () => {
  const onUsed = coatsOf(recipe('wax'), used);
  expect(onUsed).toHaveLength(5);
  expect(coatsOf(recipe('wax'), fresh)).toHaveLength(9);
  expect(coatsOf(recipe('wax'), null)).toHaveLength(5);
  for (const { haze } of onUsed) expect(haze! / MINUTE).toBeLessThanOrEqual(5);
  // Common practice, no source: 30 to 60 minutes in all.
  const inAll = releaseDuration(onUsed) / MINUTE;
  expect(inAll).toBeGreaterThanOrEqual(30);
  expect(inAll).toBeLessThanOrEqual(60);
  expect(onUsed.map(({ closes }) => closes)).toEqual([null, null, null, null, 3600]);
});

test('film goes over wax: on bare semi-permanent release it beads', () => {
  expect(coatsOf(recipe('film-over-wax'), used).map(({ name }) => name)).toEqual([
    'Wax',
    'Wax',
    'Wax',
    'Film, sprayed',
  ]);
  expect(releaseFaults(recipe('film-over-wax'), used)).toEqual([]);
  const bare = { ...recipe('film-over-wax'), coats: recipe('film-over-wax').coats.slice(1) };
  expect(releaseFaults(bare, used).join()).toContain('Put a coat of wax before it');
  const wasSealed: Mould = {
    ...used,
    history: [{ id: 'e1', date: '2026-01-02', kind: 'coat', text: 'Sealer 2 coats' }],
  };
  expect(releaseFaults(recipe('wax'), wasSealed).join()).toContain('“Sealer 2 coats” on 2026-01-02');
});

test('one application of semi-permanent release lasts for several parts, by the mould’s own record', () => {
  // Gore mould: coated on 9 September, pulled once since.
  expect(applicationWords(recipe('semi-permanent'), used)).toContain(
    'Pulled once since it was last coated, and one application lasts for 4: these coats may be left out',
  );
  const worn: Mould = {
    ...used,
    history: [
      { id: 'c', date: '2026-01-01', kind: 'coat', text: '' },
      ...[2, 3, 4, 5].map((day) => ({
        id: `p${day}`,
        date: `2026-01-0${day}`,
        kind: 'pull' as const,
        text: '',
      })),
    ],
  };
  expect(applicationWords(recipe('semi-permanent'), worn)).toContain('coat it again');
  expect(applicationWords(recipe('wax'), used)).toBeNull();
  expect(recipeOf(usualSteps, 'gone').id).toBe(usualSteps.recipes[0]!.id);
});
