import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { endGates, stripNetwork } from '../test/strip.ts';
import { fill } from './fill.ts';
import { kernelBinary } from './kernel-binary.ts';
import { sheetNetwork } from './network.ts';
import { createKernelSolver } from './obstacle-kernel.ts';
import { createObstacleSolver } from './obstacle.ts';
import { uniformSheet } from './sheet.ts';

test('the compiled solver takes the same steps to the same answer as its oracle, over random obstacles', () => {
  const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.6 }), nodeCount: 300 });
  const network = sheetNetwork(
    mesh,
    uniformSheet(mesh.triangles.length / 3, { xx: 2, yy: 0.7, xy: 0.3, storage: 1 }),
  );
  const solvers = [createObstacleSolver(network), createKernelSolver(network)];
  const n = network.nodeCount;
  const fraction = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(fc.integer({ min: 0, max: n - 1 }), fraction, fraction, fraction, (feed, head, gas, give) => {
      const runs = solvers.map((solver) => {
        const step = {
          capacity: network.storage.map((v, i) => v * (0.2 + ((i * 37) % 11) / 11)),
          isGiven: Uint8Array.from({ length: n }, (_, i) => (i === feed || i === (feed + 7) % n ? 1 : 0)),
          floor: Float64Array.from({ length: n }, (_, i) => (i % 5 === 0 ? 0.01 * gas : 0)),
          compliance: network.storage.map((v, i) => (i % 3 === 0 ? v * give : 0)),
          impulse: Float64Array.from({ length: n }, (_, i) => (i === feed ? head : i % 4 === 0 ? 0.2 : 0)),
          tolerance: 1e-10,
        };
        const inflow = new Float64Array(n);
        return { spent: solver.solve(step, inflow), impulse: step.impulse, inflow };
      });
      expect(runs[1]!.spent).toEqual(runs[0]!.spent);
      for (const key of ['impulse', 'inflow'] as const)
        runs[1]![key].forEach((v, i) => expect(Math.abs(v - runs[0]![key][i]!)).toBeLessThan(1e-9));
    }),
    { numRuns: 25, seed: 11, endOnFailure: true },
  );
});

test('a whole fill is the same with either', () => {
  const request = {
    network: stripNetwork({ length: 1, width: 0.2, nodes: 60, T: 1e-12, S: 1e-3 }),
    gates: endGates(60),
    feedPressure: 92_000,
    vacuumPressure: 2_000,
  };
  const [plain, compiled] = [createObstacleSolver, createKernelSolver].map((createSolver) =>
    fill({ ...request, createSolver }),
  );
  expect(compiled!.samples.length).toBe(plain!.samples.length);
  compiled!.arrival.forEach((time, i) => expect(time).toBeCloseTo(plain!.arrival[i]!, 6));
});

test('the bytes in the repository are those that the source compiles to', async () => {
  const { compileKernel } = (await import('../../kernel/build.mjs')) as { compileKernel(): Promise<string> };
  expect(await compileKernel()).toBe(kernelBinary);
});
