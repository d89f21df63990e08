import { expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { runStateOf } from '../run/state.ts';
import { duesOf, isTimed, timersOf } from './timers.ts';
import { ENERGY, makeCard, minuteOf, REFERENCE, START, workedRun } from './test/worked-run.ts';

const R = 8.314462618;
const card = makeCard('Hydro spinner');
const clock = (changes: Partial<Extract<EntryBody, { kind: 'timer' }>> = {}): EntryBody => ({
  ...{ kind: 'timer', word: 'Gel coat', stepId: null, endsWith: null, opens: 1500, closes: 86_400 },
  slides: { temperature: REFERENCE, activationEnergy: ENERGY },
  ...changes,
});
const timersAt = (run: ReturnType<typeof workedRun>, minute: number, usual = REFERENCE) =>
  timersOf(runStateOf(run.entries).entries, START + minute * 60_000, usual);
/** By hand: exp(-E/R (1/T - 1/T_r)). */
const rate = (celsius: number) => Math.exp((-60_000 / R) * (1 / (celsius + 273.15) - 1 / REFERENCE));

test('a window slides at both ends with the temperature, and with what it was told on the way', () => {
  const run = workedRun(card);
  run.say(0, clock());
  const opens = (usual: number) => minuteOf(timersAt(run, 0, usual)[0]!.opensAt);
  const closes = (usual: number) => minuteOf(timersAt(run, 0, usual)[0]!.closesAt!) / 60;
  expect(opens(REFERENCE)).toBeCloseTo(25, 6);
  expect(opens(288.15)).toBeCloseTo(25 / rate(15), 6);
  expect(closes(288.15)).toBeCloseTo(36.8, 1);
  expect(closes(303.15)).toBeCloseTo(10.7, 1);
  // Ten minutes at 20, then it is 30 C: what is left goes 2.25 times as quick.
  run.say(0, { kind: 'warmth', temperature: REFERENCE, instrumentId: null });
  run.say(10, { kind: 'warmth', temperature: 303.15, instrumentId: null });
  expect(opens(250)).toBeCloseTo(10 + 15 / rate(30), 6);
});

test('it waits, is open, closes soon, has closed; each is called once', () => {
  const run = workedRun(card);
  const { id } = run.say(0, clock({ slides: null, opens: 1800, closes: 3600 }));
  const stateAt = (minute: number) => timersAt(run, minute)[0]!.state;
  expect([
    stateAt(0),
    stateAt(29.9),
    stateAt(30),
    stateAt(53.9),
    stateAt(54),
    stateAt(59.9),
    stateAt(60),
  ]).toEqual(['waiting', 'waiting', 'open', 'open', 'closing', 'closing', 'closed']);
  const dues = (minute: number) => duesOf(timersAt(run, minute)).map(({ what }) => what);
  expect(dues(29)).toEqual([]);
  expect(dues(30)).toEqual(['opens']);
  run.say(30, { kind: 'due', timerId: id, what: 'opens' });
  expect([dues(31), dues(55), dues(61)]).toEqual([[], ['closing'], ['closed']]);
  run.say(61, { kind: 'due', timerId: id, what: 'closed' });
  expect(dues(62)).toEqual([]);
  run.say(63, { kind: 'timerEnds', timerId: id });
  expect(timersAt(run, 64)).toEqual([]);
});

test('one that nobody ends is let go in the end: an abandoned part is not looked after for ever', () => {
  const run = workedRun(card);
  expect(isTimed(run.entries, START)).toBe(false);
  run.say(0, clock({ opens: 3600, closes: 7200, slides: null }));
  // Three times two hours, and a day.
  const hours = (n: number) => isTimed(run.entries, START + n * 3_600_000);
  expect([hours(0), hours(29.9), hours(30)]).toEqual([true, true, false]);
});

test('many run at once, the one due first before the others; a window that was open from the start calls nobody', () => {
  const run = workedRun(card);
  run.say(0, clock({ word: 'long', slides: null, opens: 6000, closes: null }));
  run.say(1, clock({ word: 'short', slides: null, opens: 60, closes: null }));
  run.say(2, clock({ word: 'at once', slides: null, opens: 0, closes: 3600 }));
  expect(timersAt(run, 1.5).map(({ word }) => word)).toEqual(['short', 'at once', 'long']);
  expect(duesOf(timersAt(run, 2)).map(({ what }) => what)).toEqual(['opens']);
});

test('of a step that is done once more the last clock counts; one whose step was struck out goes with it', () => {
  const run = workedRun(card);
  run.do(0, 'coat:wax-5');
  const windowOf = (minute: number) => timersAt(run, minute).find(({ word }) => word === 'Release is ready')!;
  expect(minuteOf(windowOf(1).closesAt!)).toBe(60);
  run.do(70, 'coat:wax-5');
  expect([minuteOf(windowOf(71).closesAt!), windowOf(71).state]).toEqual([130, 'open']);
  for (const { id, body } of [...run.entries])
    if (body.kind === 'done') run.say(80, { kind: 'struck', entryId: id, why: '' });
  expect(timersAt(run, 81)).toEqual([]);
});

test('a clock ends with the step that it waited for; left out, that ends it between coats of one kind alone', () => {
  const run = workedRun(card);
  run.do(0, 'coat:wax-5');
  run.do(20, 'gel-pass:1');
  expect(timersAt(run, 21)).toEqual([]);
  run.do(22, 'gel-pass:4');
  expect(timersAt(run, 23).map(({ word }) => word)).toEqual(['Gel coat is firm enough']);
  // The skin coat is left out: lay-up waits for the gel coat all the same.
  run.say(24, {
    ...{ kind: 'skipped', stepId: 'barrier', phase: 'barrier' },
    title: 'Skin coat',
    why: 'none today',
  });
  expect(timersAt(run, 25)).toHaveLength(1);
  // Between coats of one kind the next one ends it either way.
  const coats = workedRun(card);
  coats.do(0, 'coat:wax-1');
  expect(timersAt(coats, 1).map(({ endsWith }) => endsWith)).toEqual(['coat:wax-2', 'coat:wax-2']);
  coats.say(2, {
    ...{ kind: 'skipped', stepId: 'coat:wax-2', phase: 'release' },
    title: 'Wax',
    why: 'enough',
  });
  expect(timersAt(coats, 3)).toEqual([]);
});
