import { expect, test } from '@jest/globals';
import { createPotClock } from './pot.ts';
import { createResinClock } from './resin-clock.ts';
import type { ResinSystem } from './resin-system.ts';
import { warmedClock } from './warmed-clock.ts';

const T20 = 293.15;
const resin: ResinSystem = {
  ...{ name: 'Plain', density: 1100, hardenerParts: 30, gelViscosityRatio: 18 },
  viscosityPoints: [
    { temperature: T20, viscosity: 0.3 },
    { temperature: T20 + 10, viscosity: 0.16 },
  ],
  gelPoints: [
    { temperature: T20, time: 6000 },
    { temperature: T20 + 10, time: 3000 },
  ],
};
const base = { clock: createResinClock(resin, T20), temperature: T20 };

test('kept as warm as it was it is the clock it was', () => {
  const same = warmedClock(resin, base, 2400, T20);
  expect(same.gelTime).toBeCloseTo(6000, 0);
  for (const to of [1000, 2400, 4000])
    expect(same.fluidity({ from: 600, to }) / base.clock.fluidity({ from: 600, to })).toBeCloseTo(1, 4);
});

test('ten kelvin warmer at two fifths of its life: the rest takes half as long and flows more easily', () => {
  const warm = warmedClock(resin, base, 2400, T20 + 10);
  // 0.6 of 3000 s is left.
  expect(warm.gelTime).toBeCloseTo(2400 + 1800, 0);
  expect(warm.ageAt(3300)).toBeCloseTo(0.4 + 900 / 3000, 3);
  // Closed form: t_gel / (g mu0) (exp(-g a0) - exp(-g a1)), g = ln 18.
  const g = Math.log(18);
  const left = (3000 / (g * 0.16)) * (Math.exp(-g * 0.4) - Math.exp(-g));
  expect(warm.fluidity({ from: 2400, to: 4200 }) / left).toBeCloseTo(1, 3);
  expect(warm.timeAtFluidity({ from: 2400, fluidity: left / 2 })).toBeGreaterThan(2400);
  const to = warm.timeAtFluidity({ from: 600, fluidity: warm.fluidity({ from: 600, to: 3500 }) });
  expect(to).toBeCloseTo(3500, 4);
  expect(warm.timeAtFluidity({ from: 600, fluidity: 1e9 })).toBe(Infinity);
});

test('a pot that warms itself is gelled sooner still, by the same factor', () => {
  const pot = { clock: createPotClock({ resin, mass: 2, start: T20, ambient: T20 }), temperature: T20 };
  const warm = warmedClock(resin, pot, 1200, T20 + 10);
  expect(warm.gelTime).toBeCloseTo(1200 + (pot.clock.gelTime - 1200) / 2, 3);
});
