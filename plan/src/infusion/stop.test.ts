import { expect, test } from '@jest/globals';
import { problemOf } from '../forecast/problem.ts';
import { runConditionsOf } from '../resin/run.ts';
import { faultClock, faultSheets, suspected } from './day-faults.ts';
import { dayFaults } from '@wick/contract/run/infusion-bodies';
import { endingsOf } from './stop.ts';
import { fineness, minuteAt, plate, plateShapes, shop, under } from './test/plate.ts';
import { logWords } from '../run/log-words.ts';

const run = runConditionsOf(plate, shop)!;

test('shut a hand’s breadth before the end what lies behind still fills the rest, with the vent open or shut', () => {
  const now = minuteAt(plateShapes()[0]!, { x: 1, y: 0.22 });
  const { infusion, clock } = under([]);
  const [keep, both] = endingsOf({
    ...{ job: plate, infusion, clock, factor: 1, now, fineness },
    problem: problemOf(plate, shop, { soft: true }),
  });
  expect(keep!.shutAt).toBeGreaterThan(run.openTime);
  expect(keep!.left).toBeGreaterThan(0.005);
  expect(keep!.left).toBeLessThan(0.4);
  expect(keep!.wet).toBeGreaterThan(0.98);
  // With the vent shut too the resin that is there stays, and lies looser.
  expect(both!.fraction!.middle).toBeLessThan(keep!.fraction!.middle + 1e-6);
  expect(keep!.fraction!.loose).toBeLessThanOrEqual(keep!.fraction!.middle);
  expect(keep!.final!.thickness.some((h) => h > 0)).toBe(true);
});

test('every fault of the day has a sheet with what tells it and what to do in order', () => {
  expect(faultSheets.map(({ fault }) => fault)).toEqual([...dayFaults]);
  for (const { tells, steps } of faultSheets) {
    expect(tells.length).toBeGreaterThan(10);
    expect(steps.length).toBeGreaterThanOrEqual(4);
  }
});

test('a weak gauge, a pot that runs dry and a lost margin are suspected; a quiet run nothing', () => {
  const { answer } = under([]);
  const quiet = {
    answer: answer(run.openTime + 60),
    resin: null,
    drive: 1,
    bubblesAtInlet: false,
  };
  expect(suspected(quiet)).toEqual([]);
  expect(suspected({ ...quiet, drive: 0.8 })).toEqual(['pumpStopped', 'leakInFill']);
  expect(suspected({ ...quiet, bubblesAtInlet: true })).toEqual(['bucketLow']);
});

test('how long there is for a fault, where the run tells', () => {
  const answer = { now: 1200, gelTime: 4800, last: { early: 1, middle: 2, late: 3 } };
  const clocks = { answer, resin: { dryAt: 1500, inPot: 1 }, holds: 720 };
  expect(faultClock('bucketLow', clocks)).toBe('The hose draws air in 5 min.');
  expect(faultClock('gelsEarly', clocks)).toBe('Gel in 60 min.');
  expect(faultClock('pumpStopped', clocks)).toBe('Shut off it holds about 12 min by the drop test.');
  for (const fault of dayFaults)
    expect(faultClock(fault, { answer: null, resin: null, holds: null })).toBeNull();
});

test('every entry of the fill reads as somebody would have written it', () => {
  const writing = {
    show: (value: number | null) => `${value}`,
    instrumentName: (id: string) => id,
    lineName: () => 'Feed 2',
    find: () => undefined,
  };
  const { entries } = under([
    [600, { kind: 'front', markId: null, x: 0.4, y: 0.2, doubt: 0.01 }],
    [610, { kind: 'valve', lineId: 'a', opening: 0.5, actionId: null }],
    [620, { kind: 'bubbles', where: 'inlet' }],
    [630, { kind: 'fault', fault: 'race', did: 'edge pressed', mends: false }],
    [640, { kind: 'warming', is: 'blanket', temperature: 308 }],
    [650, { kind: 'school', is: 'keepVacuum' }],
  ]);
  expect(entries.slice(2).map((entry) => logWords(entry, writing))).toEqual([
    'Front at 0.4, 0.2',
    'Feed 2 throttled to 50 %',
    'Bubbles at the inlet',
    'The front races along an edge: edge pressed',
    'Blanket on, set to 308',
    'Stop: feed shut, vacuum kept until gel',
  ]);
});
