import { expect, test } from '@jest/globals';
import { createObstacleSolver } from './obstacle.ts';
import type { FlowNetwork } from './network.ts';

/** A chain of nodes with unit conductances and unit storage. */
function chain(nodeCount: number): FlowNetwork {
  const rows = Array.from({ length: nodeCount }, (_, i) =>
    [i - 1, i + 1].filter((j) => j >= 0 && j < nodeCount),
  );
  const rowStart = Int32Array.from([
    0,
    ...rows.map(
      (
        (sum) => (row) =>
          (sum += row.length)
      )(0),
    ),
  ]);
  return {
    nodeCount,
    rowStart,
    columns: Int32Array.from(rows.flat()),
    conductance: new Float64Array(rows.flat().length).fill(1),
    storage: new Float64Array(nodeCount).fill(1),
  };
}

test('obstacle problem with a known free boundary: discrete parabola on a chain', () => {
  // U'' = 1 behind the front, U = U' = 0 at it: with m full nodes beyond the feed, U at the feed is m (m + 1) / 2.
  const n = 400;
  const full = 150;
  const solver = createObstacleSolver(chain(n));
  const impulse = new Float64Array(n);
  impulse[0] = (full * (full + 1)) / 2 + 0.3 * (full + 1);
  const isGiven = new Uint8Array(n);
  isGiven[0] = 1;
  const inflow = new Float64Array(n);
  const zero = new Float64Array(n);
  const capacity = new Float64Array(n).fill(1);
  solver.solve({ capacity, isGiven, floor: zero, compliance: zero, impulse, tolerance: 1e-9 }, inflow);
  for (let i = 1; i <= full; i++) expect(inflow[i]).toBe(1);
  expect(inflow[full + 1]).toBeCloseTo(0.3, 6);
  expect(inflow[full + 2]).toBe(0);
  for (const i of [1, 50, 100, full]) {
    const behind = full - i;
    expect(impulse[i]).toBeCloseTo((behind * (behind + 1)) / 2 + 0.3 * (behind + 1), 4);
  }
});

test('a guess far beyond the solution is taken back', () => {
  const n = 60;
  const solver = createObstacleSolver(chain(n));
  const impulse = new Float64Array(n).fill(50);
  impulse[0] = 10;
  const isGiven = new Uint8Array(n);
  isGiven[0] = 1;
  const inflow = new Float64Array(n);
  const zero = new Float64Array(n);
  const capacity = new Float64Array(n).fill(1);
  solver.solve({ capacity, isGiven, floor: zero, compliance: zero, impulse, tolerance: 1e-10 }, inflow);
  // m (m + 1) / 2 = 10 for m = 4: exactly four full nodes.
  expect(Array.from(inflow.subarray(1, 6), Math.round)).toEqual([1, 1, 1, 1, 0]);
  expect(Math.min(...impulse)).toBeGreaterThanOrEqual(0);
});
