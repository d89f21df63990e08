import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hoseConductance, roundBore } from './channels.ts';
import { createWeight, STANDARD_GRAVITY } from './gravity.ts';
import { poreSlope, pressureForPores, readCurve, type SoftCurve } from './softness.ts';
import { stripNetwork } from '../test/strip.ts';

describe('curve of a soft laminate', () => {
  const curve: SoftCurve = {
    spacing: 1000,
    pores: Float64Array.from({ length: 21 }, (_, n) => 1 + 0.002 * n + 0.0004 * n * n),
    flow: Float64Array.from({ length: 21 }, (_, n) => 1 + 0.1 * n),
  };

  test('pressure and pores undo each other, inside the table and carried on past it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 19_999, noNaN: true }), (pressure) => {
        expect(pressureForPores(curve, readCurve(curve.pores, 1000, pressure))).toBeCloseTo(pressure, 6);
      }),
      { numRuns: 50, seed: 4, endOnFailure: true },
    );
    const end = curve.pores[20]!;
    const slope = poreSlope(curve, 19_500);
    expect(pressureForPores(curve, end + 500 * slope)).toBeCloseTo(20_500, 6);
  });

  test('is read straight between entries and stays at its ends', () => {
    expect(readCurve(curve.flow, 1000, 2500)).toBeCloseTo(1.25, 12);
    expect([readCurve(curve.flow, 1000, -5), readCurve(curve.flow, 1000, 1e9)]).toEqual([1, 3]);
    expect(poreSlope(curve, 0)).toBeCloseTo(0.0024 / 1000, 12);
  });
});

describe('open ways', () => {
  test('a bore by Hagen-Poiseuille, a hose by its length', () => {
    // pi (10 mm)^4 / 128 = 2.454e-10 m4.
    expect(roundBore(0.01).conductance / 2.4544e-10).toBeCloseTo(1, 4);
    expect(roundBore(0.01).area / 7.854e-5).toBeCloseTo(1, 4);
    expect(hoseConductance({ length: 2, bore: 0.01 })).toBeCloseTo(roundBore(0.01).conductance / 2, 20);
    expect(Number.isFinite(hoseConductance({ length: 0, bore: 0.01 }))).toBe(true);
  });
});

describe('weight', () => {
  const network = stripNetwork({ length: 1, width: 1, nodes: 5, T: 2, S: 1 });
  const elevation = Float64Array.of(0, 0.25, 0.5, 0.75, 1);
  const density = 1 / STANDARD_GRAVITY;
  const flow = (level: number[]) => {
    const weight = createWeight(network, { elevation, density });
    weight.start(Float64Array.from(level));
    return Array.from(weight.flow);
  };

  test('dry laminate passes none; between full nodes what goes down comes in', () => {
    expect(flow([0, 0, 0, 0, 0])).toEqual([0, 0, 0, 0, 0]);
    // k = T / h = 8, dz = 1/4: 2 down every branch.
    expect(flow([1, 1, 1, 1, 1])).toEqual([2, 0, 0, 0, -2]);
    // Over the last full node the front stands half a branch up, and as far again as the next node is full.
    expect(flow([1, 1, 0, 0, 0])).toEqual([2, -1, -1, 0, 0]);
    expect(flow([1, 1, 0.4, 0, 0])[2]).toBeCloseTo(-1.8 + 0, 12);
  });

  test('a node that would give more than it holds is solved again with less, at last with what it has', () => {
    const weight = createWeight(network, { elevation, density });
    const level = Float64Array.of(0, 0.3, 0, 0, 0);
    const step = 1;
    weight.start(level);
    expect(weight.flow[1]! * step).toBeLessThan(-0.3 * network.storage[1]!);
    for (let round = 0; round < 20; round++) {
      const next = level.map((share, i) => share + (step * weight.flow[i]!) / network.storage[i]!);
      const inflow = new Float64Array(5);
      const rest = weight.settle({ level, next, impulse: inflow, inflow, step });
      if (rest === 'settled') return expect(next.every((share) => share >= -0.03)).toBe(true);
    }
    throw new Error('not settled');
  });
});
