import { describe, expect, test } from '@jest/globals';
import { pumpDown } from './bag-world.ts';
import { effectiveSpeed, endPressure, holdTime, regimeOf, volumeByExpansion } from './pump-down.ts';

const HOSE = { bore: 0.012, length: 5 };
const SPEED = 8 / 3600;
const none = { throughput: 0, moisture: 0, settling: 1 };

describe('a pump behind a hose', () => {
  test('8 m3/h through 12 mm x 5 m: 0.82 of it at 2 kPa, 0.12 at 100 Pa', () => {
    // k = pi d^4/(128 eta L); p_p = (-S + sqrt(S^2 + k^2 p^2))/k.
    const k = (Math.PI * 0.012 ** 4) / (128 * 1.82e-5 * 5);
    const share = (p: number) => (-SPEED + Math.sqrt(SPEED ** 2 + k ** 2 * p ** 2)) / k / p;
    for (const [pressure, rounded] of [
      [2000, 0.82],
      [100, 0.12],
    ] as const) {
      const found = effectiveSpeed(SPEED, HOSE, pressure) / SPEED;
      expect(found).toBeCloseTo(share(pressure), 10);
      expect(found).toBeCloseTo(rounded, 2);
    }
    expect(effectiveSpeed(SPEED, { ...HOSE, length: 0 }, 100)).toBe(SPEED);
  });

  test('viscous above 0.6 Pa m, molecular below 0.013', () => {
    expect([100, 10, 1].map((p) => regimeOf(0.012, p))).toEqual(['viscous', 'between', 'molecular']);
  });

  test('without a hose it falls by the closed form: p - p_u goes as exp(-S t/V)', () => {
    const times = [0, 5, 20, 60];
    const found = pumpDown({
      pump: { speed: SPEED, ultimatePressure: 200 },
      hose: { bore: 0.012, length: 0 },
      freeVolume: 0.0123,
      from: 94_000,
      sources: none,
      times,
    });
    times.forEach((t, i) => {
      const exact = 200 + (94_000 - 200) * Math.exp((-SPEED * t) / 0.0123);
      expect(found[i]! / exact).toBeCloseTo(1, 5);
    });
  });

  test('it ends where the leak and the pump balance, with or without a hose between', () => {
    const pump = { speed: SPEED, ultimatePressure: 200 };
    const throughput = 6.83e-3;
    expect(endPressure(pump, { ...HOSE, length: 0 }, throughput, 94_000)).toBeCloseTo(
      200 + throughput / SPEED,
      6,
    );
    const end = endPressure(pump, HOSE, throughput, 94_000);
    expect(effectiveSpeed(SPEED, HOSE, end) * (end - 200)).toBeCloseTo(throughput, 9);
    const [last] = pumpDown({
      ...{ pump, hose: HOSE, freeVolume: 0.0123, from: 94_000, times: [4000] },
      sources: { ...none, throughput },
    });
    expect(last! / end).toBeCloseTo(1, 4);
    expect(endPressure(pump, HOSE, 1e9, 94_000)).toBe(94_000);
  });

  test('moisture keeps the pressure up for a while, and then is gone', () => {
    const pressures = (moisture: number) =>
      pumpDown({
        pump: { speed: SPEED, ultimatePressure: 200 },
        ...{ hose: HOSE, freeVolume: 0.0123, from: 94_000, times: [300, 6000] },
        sources: { throughput: 0, moisture, settling: 600 },
      });
    const [dry, wet] = [pressures(0), pressures(20_000)];
    expect(wet[0]! - dry[0]!).toBeGreaterThan(50);
    expect(wet[1]! - dry[1]!).toBeLessThan(1);
  });

  test('what cannot be is refused', () => {
    expect(() => effectiveSpeed(NaN, HOSE, 100)).toThrow(/Speed of the pump/);
    expect(() => effectiveSpeed(SPEED, HOSE, 0)).toThrow(/Pressure/);
  });
});

test('without the pump 12.3 L hold from 20 to 100 mbar for 0.0123 x 8000 / Q seconds', () => {
  const request = { freeVolume: 0.0123, from: 2000, limit: 10_000, throughput: 9.2e-4 };
  expect(holdTime(request)).toBeCloseTo(98.4 / 9.2e-4, 6);
  expect(holdTime({ ...request, throughput: 0 })).toBe(Infinity);
  expect(holdTime({ ...request, from: 20_000 })).toBe(0);
});

describe('free volume by expansion', () => {
  test('1 L at 101 325 Pa into a bag at 1000 Pa that ends at 9000 Pa: 11.54 L', () => {
    // Boyle: the known litre's 92 325 Pa are the bag's 8000 Pa.
    const found = volumeByExpansion({ volume: 1e-3, pressure: 101_325 }, 1000, 9000);
    expect(found).toBeCloseTo((1e-3 * 92_325) / 8000, 12);
    expect(found).toBeCloseTo(0.01154, 5);
  });

  test('a pressure that did not rise says nothing', () => {
    expect(() => volumeByExpansion({ volume: 1e-3, pressure: 101_325 }, 1000, 1000)).toThrow(
      /Rise of pressure/,
    );
    expect(() => volumeByExpansion({ volume: 1e-3, pressure: 9000 }, 1000, 9000)).toThrow(/known volume/);
  });
});
