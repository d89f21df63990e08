import { describe, expect, test } from '@jest/globals';
import type { ResinSystem } from '../resin/resin-system.ts';
import { effectsOf } from './changes.ts';
import { halton, normalQuantile } from './sampling.ts';
import { clockOf, judge, likelyTimes, usualDoubt, type SolvedFlow } from './verdict.ts';

const T20 = 293.15;
/** Almost constant viscosity of 0.3 Pa s until gel at 100 min: minutes can be read off by hand. */
const resin: ResinSystem = {
  name: 'Plain',
  density: 1100,
  viscosityPoints: [{ temperature: T20, viscosity: 0.3 }],
  gelPoints: [{ temperature: T20, time: 6000 }],
  gelViscosityRatio: 1 + 1e-9,
  hardenerParts: 30,
};
const flow = (seconds: number, changes: Partial<SolvedFlow> = {}): SolvedFlow => ({
  isFilled: true,
  fillTime: seconds / 0.3,
  poreVolume: 1,
  samples: [
    { time: 0, stored: 0 },
    { time: seconds / 0.3, stored: 1 },
  ],
  dryRegions: [],
  ...changes,
});
const run = { resin, temperature: T20, openTime: 600 };

describe('verdict', () => {
  test.each([
    [2000, 'comfortable'],
    [3600, 'tight'],
    [4800, 'gamble'],
    [5600, 'willNotFill'],
  ])('%d s of flow after 600 s of mixing is %s', (seconds, band) => {
    expect(judge(flow(seconds), run).band).toBe(band);
  });

  test('the clock starts at first mix, not when the feed opens', () => {
    const verdict = judge(flow(2000), run);
    expect(verdict.fillTime).toBeCloseTo(2600, 1);
    expect(verdict.ageRatio).toBeCloseTo(2600 / 6000, 4);
  });

  test('when gel comes first it says how far the resin gets', () => {
    const verdict = judge(flow(10_800), run);
    expect(verdict.fillTime).toBe(Infinity);
    expect(verdict.reachedFraction).toBeCloseTo(5400 / 10_800, 5);
  });

  test('the likely range and the chance widen with the doubt', () => {
    const verdict = judge(flow(3000), run);
    expect(verdict.likely.from).toBeLessThan(verdict.fillTime);
    expect(verdict.likely.to).toBeGreaterThan(verdict.fillTime);
    const sure = judge(flow(3000), run, {
      permeability: 1.0001,
      viscosity: 1.0001,
      gelTime: 1.0001,
      temperature: 1e-3,
    });
    expect(sure.chance).toBe(1);
    expect(sure.likely.to - sure.likely.from).toBeLessThan(5);
    expect(verdict.drivers[0].input).toBe('permeability');
    expect(judge(flow(5400), run).chance).toBeGreaterThan(0.3);
    expect(judge(flow(5400), run).chance).toBeLessThan(0.7);
  });

  test('with permeability alone in doubt, one in ten fills later than 1.4 times the flow time', () => {
    const verdict = judge(flow(2000), run, { ...usualDoubt, viscosity: 1, gelTime: 1, temperature: 0 });
    expect((verdict.likely.to - 600) / 2000).toBeCloseTo(1.4, 1);
    expect((verdict.likely.from - 600) / 2000).toBeCloseTo(1 / 1.4, 1);
  });

  test('a dry part is never called filled; trapped air is named', () => {
    expect(judge(flow(1000, { isFilled: false }), run)).toMatchObject({
      band: 'drySpot',
      chance: 0,
      fillTime: Infinity,
    });
    expect(judge(flow(1000, { dryRegions: [{ area: 0.2 }] }), run).band).toBe('airTrapped');
  });
});

test('changes are ordered by the margin they leave; unanswerable ones are left out', () => {
  const slow = { ...resin, name: 'Slow', gelPoints: [{ temperature: T20, time: 12_000 }] };
  const effects = effectsOf(flow(4000), run, [
    { label: 'open mesh', flowFactor: 0.5 },
    { label: 'slow', run: { resin: slow } },
    { label: 'furnace', run: { temperature: 400 } },
    { label: 'as it is' },
  ]);
  expect(effects.map((effect) => effect.label)).toEqual(['slow', 'open mesh', 'as it is']);
  expect(effects[1].fillTime).toBeCloseTo(2600, 1);
});

test('quasi-random normal samples have mean 0 and variance 1', () => {
  const z = Array.from({ length: 4000 }, (_, i) => normalQuantile(halton(i + 1, 3)));
  const mean = z.reduce((a, b) => a + b) / z.length;
  expect(Math.abs(mean)).toBeLessThan(0.01);
  expect(z.reduce((sum, v) => sum + v * v, 0) / z.length).toBeCloseTo(1, 1);
  expect(normalQuantile(0.9)).toBeCloseTo(1.28155, 3); // tables of the normal distribution
});

test('the likely time at a place widens with the doubt and holds what is taken', () => {
  const clock = clockOf(run);
  const fluidity = clock.fluidity({ from: 600, to: 2000 });
  const { from, to } = likelyTimes(fluidity, run);
  expect(from).toBeLessThan(2000);
  expect(to).toBeGreaterThan(2000);
  const sure = likelyTimes(fluidity, run, { permeability: 1, viscosity: 1, gelTime: 1, temperature: 0 });
  expect([sure.from, sure.to]).toEqual([expect.closeTo(2000, 3), expect.closeTo(2000, 3)]);
  expect(likelyTimes(1e9, run).to).toBe(Infinity);
});
