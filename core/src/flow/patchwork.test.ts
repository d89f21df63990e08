import { expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { forecastFlow } from './forecast.ts';
import { betterOn } from './patchwork.ts';
import { valueAt } from './probe.ts';

const T = 1.5e-12;
const S = 1.2e-3;
const DROP = 9e4;
const across = (x: number) => [
  { x, y: 0 },
  { x, y: 0.2 },
];
const own = { bore: 0.01, startsOpen: true, actions: [] };

test('the second half at a quarter of the permeability: two zones in series', () => {
  // Steep between two columns of the grid, a thousandth of the length apart.
  const flow = forecastFlow({
    outline: rectangle({ length: 1, width: 0.2 }),
    holes: [],
    lines: [
      { id: 'f', name: 'f', kind: 'feed', points: across(0), ...own },
      { id: 'v', name: 'v', kind: 'vent', points: across(1), ...own },
    ],
    zones: [
      {
        ...{ name: 'Part', outline: null, soft: null, thickness: 2e-3 },
        layers: [
          { name: 'a', storage: S, toNext: 0, isSoft: true, transmissibility: { xx: T, yy: T, xy: 0 } },
        ],
      },
    ],
    patchwork: {
      ...{ origin: { x: 0, y: 0 }, spacing: 1e-3, columns: 1001, rows: 1 },
      factor: Array.from({ length: 1001 }, (_, c) => (c <= 500 ? 1 : 0.25)),
    },
    ...{ feedPressure: DROP, vacuumPressure: 0, density: 1, nodeCount: 1500 },
  });
  // Darcy: with the front d past the seam, dt/dd = S (a / T1 + d / T2) / dp.
  const past = (d: number) => (S / DROP) * ((0.5 * d) / T + (d * d) / (2 * 0.25 * T));
  const seam = (S * 0.25) / (2 * T * DROP);
  for (const x of [0.7, 0.9])
    expect(valueAt(flow.mesh, flow.arrival, { x, y: 0.1 }) / (seam + past(x - 0.5))).toBeCloseTo(1, 2);
});

test('straight between the places of the grid, level outside, and refused where a factor is missing', () => {
  const mesh = meshPart({ outline: rectangle({ length: 1, width: 1 }), lines: [], nodeCount: 200 });
  const grid = { origin: { x: 0, y: 0 }, spacing: 1, columns: 2, rows: 2, factor: [1, 2, 3, 4] };
  const better = betterOn(mesh, grid);
  better.forEach((f, t) => {
    const middle = (k: number) =>
      [0, 1, 2].reduce((sum, c) => sum + mesh.positions[3 * mesh.triangles[3 * t + c] + k] / 3, 0);
    expect(f).toBeCloseTo(1 + middle(0) + 2 * middle(1), 9);
  });
  expect(betterOn(mesh, { ...grid, spacing: 0.01 }).every((f) => f > 1 && f <= 4)).toBe(true);
  for (const factor of [
    [1, 2, 3],
    [1, 2, 3, 0],
    [1, 2, 3, NaN],
  ])
    expect(() => betterOn(mesh, { ...grid, factor })).toThrow('factor above zero');
});
