import { expect, test } from '@jest/globals';
import { openingsAt } from '../../stages/lines/openings.ts';
import { marginWords, minutesWords, outcomeTone } from '../../stages/lines/outcome-words.ts';
import { fuseScale } from './fuse-scale.ts';

test('the fuse runs to a little past gel, and places read back as the times they stand for', () => {
  const scale = fuseScale(1248, 6000);
  expect(scale.end).toBeCloseTo(6480, 9);
  expect(scale.xOf(0)).toBe(24);
  expect(scale.xOf(6480)).toBeCloseTo(1224, 9);
  for (const time of [0, 900, 6000]) expect(scale.timeAt(scale.xOf(time))).toBeCloseTo(time, 9);
  expect(Number.isFinite(fuseScale(0, null).xOf(100))).toBe(true);
});

test('at a minute each line is as far open as its last turn left it', () => {
  const line = { kind: 'feed' as const, startsOpen: false };
  const step = (lineId: string, actionId: string | null, opening: number, time: number | null) => ({
    lineId,
    actionId,
    line: lineId,
    opening,
    cue: '',
    order: '',
    time,
  });
  const script = [
    step('a', null, 1, 500),
    step('b', 'opens', 1, 900),
    step('b', 'less', 0.25, 1500),
    step('a', 'shuts', 0, 900),
    step('c', 'never', 1, null),
  ];
  const lines = [
    { ...line, id: 'a', startsOpen: true },
    { ...line, id: 'b' },
    { ...line, id: 'c' },
    { id: 'r', kind: 'race' as const, startsOpen: true },
  ];
  expect([...openingsAt(lines, script, null)]).toEqual([
    ['a', 1],
    ['b', 0],
    ['c', 0],
  ]);
  expect([...openingsAt(lines, script, 1000)]).toEqual([
    ['a', 0],
    ['b', 1],
    ['c', 0],
  ]);
  expect(openingsAt(lines, script, 1500).get('b')).toBe(0.25);
});

test('what a layout comes to, in words', () => {
  const outcome = {
    fingerprint: '',
    band: 'tight' as const,
    fillTime: 2280,
    gelTime: 6000,
    endsUnknown: false,
    earliest: 1620,
    latest: 3300,
    chance: 0.9,
    chanceFrom: null,
    chanceTo: null,
    lifeUsed: null,
    flowUsed: null,
    timeUsed: null,
    dryArea: 0,
    wetShare: 1,
    wastedResin: 1,
    lineLength: 1,
    hoseLength: 1,
    operatorActions: 1,
  };
  expect(marginWords(outcome)).toBe('38 min, 27 to 55');
  expect(marginWords({ ...outcome, latest: null })).toBe('38 min, 27 to gel');
  expect(marginWords({ ...outcome, fillTime: null })).toBe('gels; 27 min with luck');
  expect(marginWords({ ...outcome, fillTime: null, earliest: null })).toBe('gels first');
  expect(minutesWords(null)).toBe('gels');
  expect([outcomeTone(outcome), outcomeTone({ ...outcome, band: 'drySpot' })]).toEqual(['amber', 'ember']);
});
