import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ResinSystem } from '../resin/resin-system.ts';
import { effectsOf } from './changes.ts';
import { halton, normalQuantile } from './sampling.ts';
import { usualRule } from '../test/usual-rule.ts';
import { chanceRange, type JudgingRule } from './rule.ts';
import {
  clockOf,
  judge as judgeBy,
  likelyTimes,
  usableTimeOf,
  usualDoubt,
  withSampledChance,
  type Doubt,
  type RunConditions,
  type SolvedFlow,
} from './verdict.ts';

const judge = (
  flow: SolvedFlow,
  run: RunConditions,
  doubt: Doubt = usualDoubt,
  rule: JudgingRule = usualRule,
) => judgeBy(flow, run, doubt, rule);

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
  samples: [
    { time: 0, wet: 0 },
    { time: seconds / 0.3, wet: 1 },
  ],
  dryRegions: [],
  ...changes,
});
const run = { resin, temperature: T20, openTime: 600 };

describe('the clock of a run', () => {
  const pot = { mass: 5, ambient: T20 };

  test('is worked out once for all that say the same', () => {
    expect(clockOf({ ...run, resin: { ...resin }, pot: { ...pot } })).toBe(clockOf({ ...run, pot }));
  });

  test('is another as soon as anything in it is another, however many were asked for', () => {
    const halved = { ...resin, gelPoints: [{ temperature: T20, time: 3000 }] };
    for (let n = 0; n < 40; n++) {
      expect(clockOf(run).gelTime).toBeCloseTo(6000, 6);
      expect(clockOf({ ...run, resin: halved }).gelTime).toBeCloseTo(3000, 6);
      // A pot of the same resin warms itself, and a larger one more.
      const small = clockOf({ ...run, pot: { ...pot, mass: 0.1 + n / 100 } }).gelTime;
      expect(small).toBeLessThan(6000);
      expect(clockOf({ ...run, pot: { ...pot, mass: 8 } }).gelTime).toBeLessThan(small);
    }
  });
});

describe('verdict', () => {
  test.each([
    // Usable to gel at 6000 s, for it hardly thickens: of that 43, 70, 90 and more than 100 % are gone at the last corner.
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
    expect(verdict.lifeUsed).toBeCloseTo(2600 / 6000, 4);
    expect(verdict.timeUsed).toBeCloseTo(2600 / 6000, 4);
    // Of the flow only what follows the opening counts.
    expect(verdict.flowUsed).toBeCloseTo(2000 / 5400, 4);
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
    const trapped = judge(flow(1000, { dryRegions: [{ finalArea: 1e-4 }, { finalArea: 2e-4 }] }), run);
    expect(trapped).toMatchObject({ band: 'airTrapped', chance: 0, shutIn: expect.closeTo(3e-4, 12) });
    expect(judge(flow(1000, { dryRegions: [{ finalArea: 1e-4 }] }), run).band).toBe('comfortable');
    expect(
      judge(flow(1000, { dryRegions: [{ finalArea: 1e-4 }] }), run, usualDoubt, {
        ...usualRule,
        shutInArea: 0,
      }).band,
    ).toBe('airTrapped');
  });
});

describe('life used and flow used', () => {
  /** Eighteen times thicker at gel, no time before the opening: life used r leaves flow used (1 - 18^-r) / (1 - 18^-1). */
  const growing = { ...run, resin: { ...resin, gelViscosityRatio: 18 }, openTime: 0 };
  const onlyPermeability = { permeability: 1.4, viscosity: 1, gelTime: 1, temperature: 0 };
  const at = (r: number, doubt = onlyPermeability) => {
    const clock = clockOf(growing);
    const fillTime = clock.fluidity({ from: 0, to: r * clock.gelTime });
    return judge({ ...flow(1), fillTime }, growing, doubt);
  };

  test.each([
    // Derived by hand: chance that a lognormal factor, one in ten beyond 1.4, exceeds b.
    [0.3, 0.62, 96],
    [0.5, 0.81, 78],
    [0.8, 0.955, 56],
  ])('life used %d is flow used %d, and leaves %d in 100', (r, b, inHundred) => {
    const verdict = at(r);
    const expected = (1 - 18 ** -r) / (1 - 1 / 18);
    expect(verdict.lifeUsed).toBeCloseTo(r, 4);
    expect(verdict.flowUsed).toBeCloseTo(expected, 6);
    expect(Math.abs(verdict.flowUsed - b)).toBeLessThan(0.01);
    expect(Math.abs(100 * verdict.chance - inHundred)).toBeLessThan(1.5);
    expect(verdict.chanceRange.from).toBeLessThan(verdict.chance);
    expect(verdict.chanceRange.to).toBeGreaterThan(verdict.chance);
  });

  test('usable until 0.8 Pa s or three times fresh, whichever comes first', () => {
    const time = (fresh: number, growth: number) => {
      const clock = clockOf({
        ...growing,
        resin: {
          ...growing.resin,
          gelViscosityRatio: growth,
          viscosityPoints: [{ temperature: T20, viscosity: fresh }],
        },
      });
      return usableTimeOf(clock, usualRule) / clock.gelTime;
    };
    // mu = fresh x growth^a.
    expect(time(0.2, 18)).toBeCloseTo(Math.log(3) / Math.log(18), 5);
    expect(time(0.4, 18)).toBeCloseTo(Math.log(2) / Math.log(18), 5);
    // A resin that is thicker than that when fresh may grow threefold; one that never thickens so far is usable to gel.
    expect(time(1.2, 18)).toBeCloseTo(Math.log(3) / Math.log(18), 5);
    expect(time(0.2, 2)).toBe(1);
  });

  test('least sure is what moves the margin: a warm resin runs sooner and gels sooner, and the two nearly cancel', () => {
    const doubt = { permeability: 1.05, viscosity: 1.02, gelTime: 1.3, temperature: 5 };
    expect(at(0.5, doubt).drivers[0]!.input).toBe('gelTime');
  });

  test('over random runs no band is better than its chance, its time or its air allows', () => {
    const share = fc.double({ min: 0, max: 1.2, noNaN: true });
    fc.assert(
      fc.property(share, share, fc.double({ min: 1, max: 3, noNaN: true }), share, (r, wait, doubt, air) => {
        const own = { ...growing, openTime: 0.3 * wait * 6000 };
        const clock = clockOf(own);
        const fillTime =
          clock.fluidity({ from: own.openTime, to: own.openTime + r * 5000 }) * (r > 1 ? 1.5 : 1);
        const verdict = judge(
          { ...flow(1), fillTime, dryRegions: air > 0.8 ? [{ finalArea: air * 3e-4 }] : [] },
          own,
          { ...usualDoubt, permeability: doubt },
        );
        const { band, chance, timeUsed, shutIn } = verdict;
        if (band === 'comfortable') expect(chance >= 0.95 && timeUsed <= 0.5 && shutIn <= 2e-4).toBe(true);
        if (band === 'tight') expect(chance >= 0.8 && timeUsed <= 0.8 && shutIn <= 2e-4).toBe(true);
        if (band === 'airTrapped') expect(shutIn).toBeGreaterThan(2e-4);
        if (band === 'willNotFill') expect(verdict.fillTime).toBe(Infinity);
        expect(verdict.lifeUsed <= 1).toBe(verdict.fillTime < Infinity);
      }),
      { numRuns: 40, seed: 5 },
    );
  });
});

test('sampled runs take the place of the looked-up chance, and the band follows', () => {
  const verdict = judge(flow(2000), run);
  const sampled = (chance: number) =>
    withSampledChance(
      verdict,
      { count: 200, chance, chanceRange: chanceRange(200 * chance, 200) },
      usualRule,
    );
  expect(verdict.band).toBe('comfortable');
  expect(sampled(0.96)).toMatchObject({ band: 'comfortable', chance: 0.96, runs: 200 });
  expect(sampled(0.9).band).toBe('tight');
  expect(sampled(0.5).band).toBe('gamble');
  const dry = judge(flow(2000, { isFilled: false }), run);
  expect(
    withSampledChance(dry, { count: 200, chance: 1, chanceRange: { from: 1, to: 1 } }, usualRule).band,
  ).toBe('drySpot');
});

test('the range of a chance: Wilson 1927, worked by hand', () => {
  // 81 of 263: centre (81 + 1.9208) / (263 + 3.8415) = 0.3108; half width 0.0551 (Agresti & Coull 1998, from memory).
  const { from, to } = chanceRange(81, 263);
  expect((from + to) / 2).toBeCloseTo(82.9208 / 266.8415, 4);
  expect(from).toBeCloseTo(0.2553, 3);
  expect(to).toBeCloseTo(0.3662, 3);
  expect(chanceRange(400, 400).from).toBeCloseTo(400 / (400 + 1.959964 ** 2), 6);
  expect(chanceRange(0, 0)).toEqual({ from: 0, to: 1 });
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
