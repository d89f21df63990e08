import { describe, expect, test } from '@jest/globals';
import { chokedShare, passTime, type BagConditions, type BagParts } from './bag-world.ts';
import { endPressure } from './pump-down.ts';
import { pressureAfter } from './rise.ts';

const parts: BagParts = {
  freeVolume: 0.012,
  pump: { speed: 8 / 3600, ultimatePressure: 200 },
  hose: { bore: 0.012, length: 5 },
  hasCheckValve: true,
  settling: 300,
};
const ambient = 94_000;
const pulled: BagConditions = { valve: 'pull', pumpRuns: true, throughput: 6e-4, ambient };
const shut: BagConditions = { ...pulled, valve: 'shut' };

describe('a bag that is pumped, shut, let go', () => {
  test('shut, it rises by leak and moisture as the drop test reads it', () => {
    const start = { time: 0, pressure: 1500, moisture: 400 };
    const rise = { start: 1500, slope: 6e-4 / 0.012, moisture: 400, settling: 300 };
    for (const duration of [60, 300, 900, 3600])
      expect(passTime(start, parts, shut, duration).pressure).toBeCloseTo(pressureAfter(rise, duration), 1);
  });

  test('in many steps it comes to what one long one comes to', () => {
    let state = { time: 0, pressure: ambient, moisture: 250 };
    const once = passTime(state, parts, pulled, 600);
    for (let n = 0; n < 60; n++) state = passTime(state, parts, pulled, 10);
    expect(state.time).toBe(600);
    expect(state.pressure / once.pressure).toBeCloseTo(1, 3);
    expect(state.moisture).toBeCloseTo(250 * Math.exp(-2), 6);
  });

  test('pumped without a hose it falls as exp(-S t/V), and behind one ends where pump and leak agree', () => {
    const dry = { time: 0, pressure: 40_000, moisture: 0 };
    const plain = { ...parts, hose: { bore: 0.012, length: 0 } };
    const tight = { ...pulled, throughput: 0 };
    const { speed, ultimatePressure } = parts.pump;
    for (const duration of [5, 20, 60]) {
      const exact =
        ultimatePressure + (40_000 - ultimatePressure) * Math.exp((-speed * duration) / parts.freeVolume);
      expect(passTime(dry, plain, tight, duration).pressure / exact).toBeCloseTo(1, 5);
    }
    const end = endPressure(parts.pump, parts.hose, 6e-4, ambient);
    expect(passTime(dry, parts, pulled, 7200).pressure / end).toBeCloseTo(1, 2);
  });

  test('a pump that stops is held by a check valve, and not without', () => {
    const good = { time: 0, pressure: 1000, moisture: 0 };
    const stopped = { ...pulled, pumpRuns: false };
    // Q t / V with 6e-4 Pa m3/s for 10 min in 12 L: 30 Pa.
    expect(passTime(good, parts, stopped, 600).pressure).toBeCloseTo(1030, 0);
    const open = passTime(good, { ...parts, hasCheckValve: false }, stopped, 60);
    expect(open.pressure).toBeGreaterThan(0.99 * ambient);
  });

  test('let go, it is back at ambient, and no leak brings it higher', () => {
    const back = passTime({ time: 0, pressure: 1000, moisture: 0 }, parts, { ...shut, valve: 'letGo' }, 60);
    expect(back.pressure / ambient).toBeCloseTo(1, 4);
    const torn = passTime({ time: 0, pressure: 1000, moisture: 0 }, parts, { ...shut, throughput: 50 }, 600);
    expect(torn.pressure / ambient).toBeCloseTo(1, 3);
  });

  test('a leak is choked under half of ambient and ends at ambient', () => {
    expect(chokedShare(1000, ambient)).toBe(1);
    expect(chokedShare(ambient / 2, ambient)).toBe(1);
    // Three quarters of ambient: sqrt(1 - (0.25/0.5)^2).
    expect(chokedShare(0.75 * ambient, ambient)).toBeCloseTo(Math.sqrt(0.75), 12);
    expect(chokedShare(ambient, ambient)).toBe(0);
  });

  test('no volume is refused by name', () => {
    const none = { ...parts, freeVolume: 0 };
    expect(() => passTime({ time: 0, pressure: 1e3, moisture: 0 }, none, shut, 1)).toThrow(/Free volume/);
  });
});
