import { expect, test } from '@jest/globals';
import { createResinClock } from '../resin/resin-clock.ts';
import type { ResinSystem } from '../resin/resin-system.ts';
import { drivenClock } from './driven-clock.ts';

const T20 = 293.15;
const resin: ResinSystem = {
  ...{ name: 'Plain', density: 1100, hardenerParts: 30, gelViscosityRatio: 18 },
  viscosityPoints: [{ temperature: T20, viscosity: 0.3 }],
  gelPoints: [{ temperature: T20, time: 6000 }],
};
const clock = createResinClock(resin, T20);

test('at the planned pressure it is the clock itself', () => {
  const driven = drivenClock(clock, 600, { times: [], shares: [] });
  expect(driven.at(600)).toBe(0);
  expect(driven.at(2400)).toBeCloseTo(clock.fluidity({ from: 600, to: 2400 }), 9);
  expect(driven.timeOf(driven.at(2400))).toBeCloseTo(2400, 6);
});

test('shares of the pressure against a sum of small steps, and back', () => {
  const drive = { times: [0, 1200, 1800], shares: [0.9, 0.5, 1] };
  const driven = drivenClock(clock, 600, drive);
  const share = (t: number) => (t < 1200 ? 0.9 : t < 1800 ? 0.5 : 1);
  let sum = 0;
  for (let t = 600; t < 3000; t++) sum += share(t + 0.5) / clock.viscosityAt(t + 0.5);
  expect(driven.at(3000) / sum).toBeCloseTo(1, 5);
  for (const t of [700, 1200, 1500, 2500]) expect(driven.timeOf(driven.at(t))).toBeCloseTo(t, 5);
});

test('no pressure, no end; past gel none either', () => {
  const dead = drivenClock(clock, 600, { times: [0, 1200], shares: [1, 0] });
  expect(dead.at(5000)).toBeCloseTo(dead.at(1200), 9);
  expect(dead.timeOf(1.01 * dead.at(1200))).toBe(Infinity);
  const whole = drivenClock(clock, 600, { times: [], shares: [] });
  expect(whole.timeOf(2 * whole.at(6000))).toBe(Infinity);
});
