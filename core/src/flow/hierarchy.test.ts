import { expect, test } from '@jest/globals';
import { createHierarchy } from './hierarchy.ts';
import { createNetworkBuilder } from './network.ts';
import { createObstacleSolver } from './obstacle.ts';

/** A strip of columns, three nodes high, joined a thousand times more strongly up and down than along. */
function columns(count: number) {
  const builder = createNetworkBuilder();
  builder.addNodes(new Float64Array(3 * count).fill(1));
  for (let c = 0; c < count; c++)
    for (let l = 0; l < 3; l++) {
      if (l < 2) builder.join(3 * c + l, 3 * c + l + 1, 1000);
      if (c + 1 < count) builder.join(3 * c + l, 3 * c + 3 + l, 1);
    }
  return builder.build();
}

test('what is joined strongly stays together: no column of odd height lends a node to its neighbour', () => {
  const [fine] = createHierarchy(columns(64));
  for (let c = 0; c < 64; c++) {
    const own = [0, 1, 2].map((l) => fine!.coarse[3 * c + l]);
    expect(new Set(own).size).toBe(1);
  }
});

test('so layers that are cut off from all others take few rounds', () => {
  const network = columns(300);
  const n = network.nodeCount;
  const step = {
    capacity: new Float64Array(n).fill(1),
    isGiven: Uint8Array.from({ length: n }, (_, i) => (i < 3 ? 1 : 0)),
    floor: new Float64Array(n),
    compliance: new Float64Array(n),
    impulse: Float64Array.from({ length: n }, (_, i) => (i < 3 ? 4e4 : 0)),
    tolerance: 1e-6,
  };
  const { solves, iterations } = createObstacleSolver(network).solve(step, new Float64Array(n));
  // A strip fed at its end: x = sqrt(2 U), each column taking 3 and giving 3 on.
  const wet = Array.from({ length: 300 }, (_, c) => step.impulse[3 * c]!).filter((u) => u > 0).length;
  expect(Math.abs(wet - Math.sqrt(2 * 4e4))).toBeLessThan(2);
  expect(iterations / solves).toBeLessThan(15);
});
