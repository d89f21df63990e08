import { expect, test } from '@jest/globals';
import { createRandom } from '../random.ts';
import { heardLevel, shownBy } from './gauge-reading.ts';

test('a gauge shows steps of its own, about the true value', () => {
  const random = createRandom(5);
  const shown = Array.from({ length: 4000 }, () => shownBy({ resolution: 100, noise: 60 }, 1234, random));
  expect(shown.every((value) => Math.abs(value % 100) < 1e-9)).toBe(true);
  expect(shown.reduce((a, b) => a + b) / shown.length).toBeCloseTo(1234, -1);
  expect(shownBy({ resolution: 100, noise: 0 }, 1234, random)).toBe(1200);
});

test('a leak is heard near by, less from further away, and under a running pump hardly at all', () => {
  const leak = { throughput: 2e-3, away: 0.1 };
  const quiet = heardLevel([], false);
  expect(heardLevel([leak], false)).toBeGreaterThan(quiet + 15);
  // Ten times as far: 20 dB less of the leak's own.
  const powerOf = (level: number) => 10 ** (level / 10);
  const own = (away: number) => powerOf(heardLevel([{ ...leak, away }], false)) - powerOf(quiet);
  expect(10 * Math.log10(own(0.1) / own(1))).toBeCloseTo(20, 9);
  expect(heardLevel([leak], true) - heardLevel([], true)).toBeLessThan(heardLevel([leak], false) - quiet);
});
