import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meshPart, type Mesh } from '../geometry/mesh.ts';
import { gore, rectangle } from '../geometry/shapes.ts';
import { disc } from '../test/disc.ts';
import { createMultigrid } from './aggregation-multigrid.ts';
import { sheetNetwork, type FlowNetwork } from './network.ts';
import { uniformSheet } from './sheet.ts';

const plate = meshPart({ outline: rectangle({ length: 1, width: 0.4 }), nodeCount: 600 });
const flowInto = ({ rowStart, columns, conductance }: FlowNetwork, i: number, p: Float64Array) => {
  let sum = 0;
  for (let e = rowStart[i]; e < rowStart[i + 1]; e++) sum += conductance[e] * (p[columns[e]] - p[i]);
  return sum;
};
const field = ({ nodeCount, positions }: Mesh, of: (x: number, y: number) => number) =>
  Float64Array.from({ length: nodeCount }, (_, i) => of(positions[3 * i], positions[3 * i + 1]));
const onEdge = ({ positions }: Mesh, i: number) => {
  const [x, y] = [positions[3 * i], positions[3 * i + 1]];
  return x < 1e-9 || x > 1 - 1e-9 || y < 1e-9 || y > 0.4 - 1e-9;
};

describe('network of a sheet', () => {
  test('holds all the pores, and joins nodes alike both ways with no negative branch', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (ratio, angle) => {
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const sheet = {
            xx: ratio * c * c + s * s,
            yy: ratio * s * s + c * c,
            xy: (ratio - 1) * c * s,
            storage: 2e-3,
          };
          const network = sheetNetwork(plate, uniformSheet(plate.triangles.length / 3, sheet));
          expect(network.storage.reduce((a, b) => a + b)).toBeCloseTo(0.4 * 2e-3, 12);
          for (let i = 0; i < network.nodeCount; i++)
            for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++) {
              const j = network.columns[e];
              const row = network.columns.subarray(network.rowStart[j], network.rowStart[j + 1]);
              const back = network.conductance[network.rowStart[j] + row.indexOf(i)];
              expect(network.conductance[e]).toBeGreaterThanOrEqual(0);
              expect(Math.abs(back - network.conductance[e])).toBeLessThan(1e-12);
            }
        },
      ),
      { numRuns: 8, seed: 5, endOnFailure: true },
    );
  });

  test('patch test: a straight pressure field drives the same flow through every inner node', () => {
    for (const outline of [rectangle({ length: 1, width: 0.4 })]) {
      const mesh = meshPart({ outline, nodeCount: 500 });
      const network = sheetNetwork(
        mesh,
        uniformSheet(mesh.triangles.length / 3, { xx: 1, yy: 1, xy: 0, storage: 1 }),
      );
      const p = field(mesh, (x, y) => 3 * x - 2 * y);
      for (let i = 0; i < mesh.nodeCount; i++)
        if (!onEdge(mesh, i)) expect(Math.abs(flowInto(network, i, p))).toBeLessThan(1e-9);
    }
  });

  test('flow from one end to the other is T W dp / L, also for a turned anisotropic sheet', () => {
    const sheet = { xx: 3e-12, yy: 1e-12, xy: 5e-13, storage: 1e-3 };
    const network = sheetNetwork(plate, uniformSheet(plate.triangles.length / 3, sheet));
    // Pressure that falls along x and leaves no flow across: the sides then carry what the tensor turns aside.
    const p = field(plate, (x, y) => 1e5 * (1 - x + (sheet.xy / sheet.yy) * y));
    let entering = 0;
    for (let i = 0; i < plate.nodeCount; i++)
      if (plate.positions[3 * i] < 1e-9) entering -= flowInto(network, i, p);
    const along = sheet.xx - sheet.xy ** 2 / sheet.yy;
    expect(Math.abs(entering / (along * 0.4 * 1e5) - 1)).toBeLessThan(0.02);
  });

  test('properties may change from triangle to triangle', () => {
    const sheet = uniformSheet(plate.triangles.length / 3, { xx: 1, yy: 1, xy: 0, storage: 1 });
    sheet.storage.fill(2, 0, 10);
    const network = sheetNetwork(plate, sheet);
    expect(network.storage.reduce((a, b) => a + b)).toBeGreaterThan(0.4);
  });
});

describe('multigrid', () => {
  const meshes = [
    plate,
    meshPart({ outline: disc({ diameter: 1 }), nodeCount: 2000 }),
    meshPart({ outline: gore({ length: 3, startWidth: 1.2, endWidth: 0.3 }), nodeCount: 1200 }),
  ];
  /** Everything active but the nodes left of x. */
  const activeRightOf = ({ nodeCount, positions }: Mesh, x: number) =>
    Uint8Array.from({ length: nodeCount }, (_, i) => (positions[3 * i] > x ? 1 : 0));

  test.each(meshes.map((mesh) => [mesh.nodeCount, mesh] as const))(
    '%d nodes: symmetric, positive, zero where inactive',
    (_, mesh) => {
      const network = sheetNetwork(
        mesh,
        uniformSheet(mesh.triangles.length / 3, { xx: 1, yy: 1, xy: 0, storage: 1 }),
      );
      const active = activeRightOf(mesh, 0.3);
      const multigrid = createMultigrid(network);
      multigrid.update(active);
      const a = field(mesh, (x, y) => Math.sin(7 * x + 3 * y)).map((v, i) => v * active[i]);
      const b = field(mesh, (x, y) => Math.cos(5 * x * y) - 0.4).map((v, i) => v * active[i]);
      const [ma, mb] = [new Float64Array(mesh.nodeCount), new Float64Array(mesh.nodeCount)];
      multigrid.apply(a, ma);
      multigrid.apply(b, mb);
      const dot = (u: Float64Array, v: Float64Array) => u.reduce((sum, value, i) => sum + value * v[i], 0);
      expect(Math.abs(dot(ma, b) - dot(a, mb))).toBeLessThan(1e-9 * Math.abs(dot(ma, a)) + 1e-9);
      expect(dot(ma, a)).toBeGreaterThan(0);
      active.forEach((on, i) => on === 0 && expect(ma[i]).toBe(0));
    },
  );

  test('stationary iteration with it converges on a changed active set', () => {
    const mesh = meshes[1];
    const network = sheetNetwork(
      mesh,
      uniformSheet(mesh.triangles.length / 3, { xx: 1, yy: 1, xy: 0, storage: 1 }),
    );
    const multigrid = createMultigrid(network);
    multigrid.update(activeRightOf(mesh, 0.9));
    const active = activeRightOf(mesh, 0.2);
    multigrid.update(active);
    const u = new Float64Array(mesh.nodeCount);
    const z = new Float64Array(mesh.nodeCount);
    const norm = () =>
      active.reduce(
        (sum, on, i) => sum + (on ? Math.abs(network.storage[i] + flowInto(network, i, u)) : 0),
        0,
      );
    const before = norm();
    for (let k = 0; k < 60; k++) {
      const r = Float64Array.from(active, (on, i) => (on ? network.storage[i] + flowInto(network, i, u) : 0));
      multigrid.apply(r, z);
      for (let i = 0; i < u.length; i++) u[i] += 0.6 * z[i];
    }
    expect(norm()).toBeLessThan(1e-3 * before);
  });
});
