import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { meshPart } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import { rectangle } from '../geometry/shapes.ts';
import { feedLine, plainZone } from '../test/layouts.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest } from './layout.ts';
import { sheetNetwork } from './network.ts';
import { createKernelSolver } from './obstacle-kernel.ts';
import { valueAt } from './probe.ts';
import { uniformSheet } from './sheet.ts';

const [LENGTH, WIDTH] = [1, 0.6];
const place = fc.record({
  x: fc.double({ min: 0.05, max: 0.7, noNaN: true }),
  y: fc.double({ min: 0.05, max: 0.55, noNaN: true }),
});
const settings = (numRuns: number, seed: number) => ({ numRuns, seed, endOnFailure: true });
const vent = feedLine({
  id: 'vent',
  name: 'Vent',
  kind: 'vent',
  points: [
    { x: LENGTH, y: 0 },
    { x: LENGTH, y: WIDTH },
  ],
});
const run = (a: Point, b: Point, changes: Partial<ForecastRequest> = {}) =>
  forecastFlow({
    outline: rectangle({ length: LENGTH, width: WIDTH }),
    holes: [],
    lines: [feedLine({ points: [a, b] }), vent],
    zones: [plainZone({ T: 2e-12, S: 1e-3 })],
    feedPressure: 94_000,
    vacuumPressure: 2_000,
    density: 1130,
    nodeCount: 500,
    steps: 60,
    ...changes,
  });
const probes = [0.15, 0.5, 0.85].flatMap((x) => [0.1, 0.3, 0.5].map((y) => ({ x, y })));

describe('over random feeds', () => {
  test('mirrored across the middle, the plate fills mirrored', () => {
    fc.assert(
      fc.property(place, place, (a, b) => {
        const flip = (p: Point) => ({ x: p.x, y: WIDTH - p.y });
        const [one, other] = [run(a, b), run(flip(a), flip(b))];
        for (const p of probes) {
          const [s, t] = [valueAt(one.mesh, one.arrival, p), valueAt(other.mesh, other.arrival, flip(p))];
          expect(Math.abs(s - t)).toBeLessThan(0.04 * one.fillTime);
        }
        expect(Math.abs(other.fillTime / one.fillTime - 1)).toBeLessThan(0.03);
      }),
      settings(6, 21),
    );
  });

  test('half the pressure, or twice the viscosity, takes twice the time', () => {
    fc.assert(
      fc.property(place, place, (a, b) => {
        const thick = (viscosity: number) =>
          run(a, b, {
            resin: {
              law: { gelState: 1, rate: () => 1e-12, viscosity: () => viscosity },
              temperature: () => 293,
              inletState: () => 0,
            },
          }).fillTime;
        // All absolute pressures, for what is trapped is pressed by their ratio.
        const half = { feedPressure: 47_000, vacuumPressure: 1_000 };
        expect(run(a, b, half).fillTime / run(a, b).fillTime).toBeCloseTo(2, 5);
        expect(thick(0.4) / thick(0.2)).toBeCloseTo(2, 4);
      }),
      settings(4, 22),
    );
  });

  test('the stored resin never falls, each step balances, and everything is wet in the end', () => {
    fc.assert(
      fc.property(place, place, fc.boolean(), (a, b, sloped) => {
        const { samples, massError, isFilled, arrival, dryRegions } = run(a, b, {
          rise: sloped ? { x: 0.1, y: 0.2 } : null,
        });
        expect(massError).toBeLessThan(1e-6);
        for (let i = 1; i < samples.length; i++) {
          expect(samples[i]!.time).toBeGreaterThan(samples[i - 1]!.time);
          // Gas that is shut in is balanced to a fiftieth of its own, of a thousandth of the part and more.
          expect(samples[i]!.stored).toBeGreaterThanOrEqual(samples[i - 1]!.stored * (1 - 3e-5));
        }
        expect(isFilled).toBe(true);
        expect(dryRegions.length > 0 || arrival.every(Number.isFinite)).toBe(true);
      }),
      settings(8, 23),
    );
  });

  test('a mesh four times finer changes the fill time by little', () => {
    fc.assert(
      fc.property(place, place, (a, b) => {
        fc.pre(Math.hypot(a.x - b.x, a.y - b.y) > 0.15);
        const [coarse, fine] = [run(a, b), run(a, b, { nodeCount: 2000 })];
        expect(Math.abs(coarse.fillTime / fine.fillTime - 1)).toBeLessThan(0.05);
      }),
      settings(5, 24),
    );
  });
});

test('one pressure field, solved again by a general-purpose matrix library', () => {
  // ml-matrix, dense LU: the steady field between a feed and a vent on a full plate.
  const mesh = meshPart({ outline: rectangle({ length: LENGTH, width: WIDTH }), nodeCount: 250 });
  const network = sheetNetwork(
    mesh,
    uniformSheet(mesh.triangles.length / 3, { xx: 3, yy: 1, xy: 0.5, storage: 1 }),
  );
  const n = network.nodeCount;
  const given = new Map([
    [0, 1],
    [n - 1, 0],
  ]);
  const [A, b] = [Matrix.zeros(n, n), Matrix.zeros(n, 1)];
  for (let i = 0; i < n; i++) {
    if (given.has(i)) {
      A.set(i, i, 1);
      b.set(i, 0, given.get(i)!);
      continue;
    }
    for (let e = network.rowStart[i]!; e < network.rowStart[i + 1]!; e++) {
      A.set(i, network.columns[e]!, -network.conductance[e]!);
      A.set(i, i, A.get(i, i) + network.conductance[e]!);
    }
  }
  const expected = solve(A, b);
  const zero = new Float64Array(n);
  const impulse = new Float64Array(n).fill(0.5);
  for (const [node, pressure] of given) impulse[node] = pressure;
  createKernelSolver(network).solve(
    {
      capacity: zero,
      isGiven: Uint8Array.from({ length: n }, (_, i) => (given.has(i) ? 1 : 0)),
      floor: zero,
      compliance: zero,
      impulse,
      tolerance: 1e-12,
    },
    new Float64Array(n),
  );
  impulse.forEach((p, i) => expect(Math.abs(p - expected.get(i, 0))).toBeLessThan(1e-9));
});

describe('bad numbers give one sentence with a way out', () => {
  const feed = { x: 0.1, y: 0.1 };
  const far = { x: 0.1, y: 0.5 };
  const at = (changes: Partial<ForecastRequest>) => () => run(feed, far, changes);
  const zone = plainZone({ T: 2e-12, S: 1e-3 });
  test.each<[string, () => unknown, RegExp]>([
    ['zero permeability', at({ zones: [plainZone({ T: 0, S: 1e-3 })] }), /no permeability somewhere.*Check/],
    [
      'no pores',
      at({ zones: [{ ...zone, layers: [{ ...zone.layers[0]!, storage: 0 }] }] }),
      /Storage .* above zero/,
    ],
    [
      'a feed on no laminate',
      () => run({ x: 3, y: 3 }, { x: 4, y: 3 }),
      /Feed touches no laminate\. Drag it/,
    ],
    ['no feed', at({ lines: [vent] }), /There is no feed.*Place/],
    ['no vent', at({ lines: [feedLine({ points: [feed, far] })] }), /There is no vent.*Place/],
    [
      'a self-crossing outline',
      at({
        outline: [
          { x: 0, y: 0 },
          { x: 1, y: 0.6 },
          { x: 1, y: 0 },
          { x: 0, y: 0.6 },
        ],
      }),
      /crosses itself between edge/,
    ],
    ['a million nodes', at({ nodeCount: 1e6 }), /1000000 nodes.*60000 can be computed/],
    ['NaN nodes', at({ nodeCount: NaN }), /NaN nodes/],
    ['a vacuum above the feed', at({ vacuumPressure: 95_000 }), /must be above the vacuum/],
    [
      'an opening of 300 %',
      at({
        lines: [
          feedLine({ points: [feed, far], actions: [{ opening: 3, when: { kind: 'time', time: 1 } }] }),
          vent,
        ],
      }),
      /0 to 100 %/,
    ],
  ])('%s', (_, work, says) => expect(work).toThrow(says));
});
