import { polygonOf } from './arcs.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meshPart, type Mesh } from './mesh.ts';
import { signedArea, type Point } from './polygon.ts';
import { coneSector, gore, rectangle, trapezoid } from './shapes.ts';
import { disc } from '../test/disc.ts';

function meshArea({ triangles, positions }: Mesh): number {
  let area = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * triangles[t + k]);
    area +=
      ((positions[b] - positions[a]) * (positions[c + 1] - positions[a + 1]) -
        (positions[b + 1] - positions[a + 1]) * (positions[c] - positions[a])) /
      2;
  }
  return area;
}

function edgeSet({ triangles }: Mesh): Map<string, number> {
  const edges = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const key = [triangles[t + k], triangles[t + ((k + 1) % 3)]].sort((p, q) => p - q).join(' ');
      edges.set(key, (edges.get(key) ?? 0) + 1);
    }
  return edges;
}

/** Euler characteristic V - E + F: 1 for a disc, one less for each hole. */
const euler = (mesh: Mesh) => mesh.nodeCount - edgeSet(mesh).size + mesh.triangles.length / 3;

function smallestAngleShare({ triangles, positions }: Mesh, belowDegrees: number): number {
  let bad = 0;
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [0, 1, 2].map((j) => 3 * triangles[t + ((k + j) % 3)]);
      const u = [positions[b] - positions[a], positions[b + 1] - positions[a + 1]];
      const v = [positions[c] - positions[a], positions[c + 1] - positions[a + 1]];
      const angle = Math.acos(
        (u[0] * v[0] + u[1] * v[1]) / (Math.hypot(u[0], u[1]) * Math.hypot(v[0], v[1])),
      );
      if (angle < (belowDegrees * Math.PI) / 180) bad += 1;
    }
  return bad / (triangles.length / 3);
}

describe('mesh of a part', () => {
  const hole: Point[] = disc({ diameter: 0.2 }).map((p) => ({ x: p.x + 0.3, y: p.y + 0.2 }));
  test.each<[string, Point[], Point[][]]>([
    ['rectangle', rectangle({ length: 1, width: 0.6 }), []],
    ['trapezoid', trapezoid({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }), []],
    ['disc', disc({ diameter: 0.8 }), []],
    ['gore', gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }), []],
    ['cone sector', [...polygonOf(coneSector({ innerRadius: 0.1, outerRadius: 0.6, sectorAngle: 4 }))], []],
    ['plate with hole', rectangle({ length: 1, width: 0.6 }), [hole]],
    ['clockwise plate', rectangle({ length: 1, width: 0.6 }).reverse(), [[...hole].reverse()]],
  ])('%s: area, topology, size and shape', (_, outline, holes) => {
    const mesh = meshPart({ outline, holes, nodeCount: 1500 });
    const area = Math.abs(signedArea(outline)) - holes.reduce((sum, h) => sum + Math.abs(signedArea(h)), 0);
    expect(meshArea(mesh)).toBeCloseTo(area, 9);
    expect(euler(mesh)).toBe(1 - holes.length);
    expect(Math.abs(mesh.nodeCount / 1500 - 1)).toBeLessThan(0.08);
    expect(smallestAngleShare(mesh, 20)).toBeLessThan(0.01);
  });

  test('lines follow mesh edges, whether inside, on the outline, crossing, or sticking out', () => {
    const mesh = meshPart({
      outline: rectangle({ length: 1, width: 0.5 }),
      nodeCount: 800,
      lines: [
        {
          name: 'middle',
          points: [
            { x: 0.5, y: 0.1 },
            { x: 0.5, y: 0.4 },
          ],
        },
        {
          name: 'edge',
          points: [
            { x: 0, y: 0 },
            { x: 0, y: 0.5 },
          ],
        },
        {
          name: 'crossing',
          points: [
            { x: 0.3, y: 0.25 },
            { x: 1.4, y: 0.25 },
          ],
        },
        { name: 'point', points: [{ x: 0.2, y: 0.2 }] },
      ],
    });
    const span = (index: number, axis: number) => {
      const values = Array.from(mesh.lineNodes[index], (node) => mesh.positions[3 * node + axis]);
      return [Math.min(...values), Math.max(...values)];
    };
    expect(span(0, 1)).toEqual([0.1, 0.4]);
    expect(span(1, 1)).toEqual([0, 0.5]);
    expect(span(2, 0)[1]).toBeCloseTo(1, 9);
    expect(mesh.lineNodes[3]).toHaveLength(1);
    expect(meshArea(mesh)).toBeCloseTo(0.5, 9);
    expect(Array.from(mesh.lineNodes[0], (node) => mesh.positions[3 * node])).toEqual(
      Array(mesh.lineNodes[0].length).fill(0.5),
    );
  });

  test('random layouts keep area and topology', () => {
    const coordinate = fc.double({ min: -0.1, max: 1.1, noNaN: true });
    const line = fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 2, maxLength: 4 });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 4 }), (lines) => {
        const inside = lines.map((points, i) => ({
          name: `Feed ${i}`,
          points: [{ x: 0.5, y: 0.3 }, ...points],
        }));
        const mesh = meshPart({
          outline: rectangle({ length: 1, width: 0.6 }),
          lines: inside,
          nodeCount: 500,
        });
        expect(meshArea(mesh)).toBeCloseTo(0.6, 6);
        expect(euler(mesh)).toBe(1);
      }),
      { numRuns: 60, seed: 7 },
    );
  });

  test.each<[string, RegExp, () => unknown]>([
    [
      'bow tie',
      /crosses itself between edge 1 and edge 3/,
      () =>
        meshPart({
          outline: [
            { x: 0, y: 0 },
            { x: 1, y: 1 },
            { x: 1, y: 0 },
            { x: 0, y: 1 },
          ],
          nodeCount: 500,
        }),
    ],
    [
      'two corners',
      /at least three corners/,
      () =>
        meshPart({
          outline: [
            { x: 0, y: 0 },
            { x: 1, y: 1 },
          ],
          nodeCount: 500,
        }),
    ],
    [
      'NaN corner',
      /Corner 2 of the outline is not a number/,
      () =>
        meshPart({
          outline: [
            { x: 0, y: 0 },
            { x: NaN, y: 1 },
            { x: 1, y: 0 },
          ],
          nodeCount: 500,
        }),
    ],
    [
      'a kilometre',
      /is 1000 m across/,
      () => meshPart({ outline: rectangle({ length: 1000, width: 1 }), nodeCount: 500 }),
    ],
    [
      'flat',
      /encloses no area/,
      () =>
        meshPart({
          outline: [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
            { x: 2, y: 0 },
          ],
          nodeCount: 500,
        }),
    ],
    [
      'a million nodes',
      /1000000 nodes was asked for/,
      () => meshPart({ outline: rectangle({ length: 1, width: 1 }), nodeCount: 1e6 }),
    ],
    [
      'hole outside',
      /Hole 1 is not wholly inside/,
      () =>
        meshPart({
          outline: rectangle({ length: 1, width: 1 }),
          holes: [disc({ diameter: 0.5 }).map((p) => ({ x: p.x + 2, y: p.y }))],
          nodeCount: 500,
        }),
    ],
    [
      'holes overlap',
      /Hole 2 overlaps hole 1/,
      () =>
        meshPart({
          outline: rectangle({ length: 1, width: 1 }),
          holes: [0.2, 0.3].map((x) => disc({ diameter: 0.3 }).map((p) => ({ x: p.x + x, y: p.y + 0.2 }))),
          nodeCount: 500,
        }),
    ],
    [
      'line off the part',
      /Feed 9 touches no laminate/,
      () =>
        meshPart({
          outline: rectangle({ length: 1, width: 1 }),
          lines: [
            {
              name: 'Feed 9',
              points: [
                { x: 2, y: 2 },
                { x: 3, y: 2 },
              ],
            },
          ],
          nodeCount: 500,
        }),
    ],
  ])('%s is refused in one sentence', (_, message, attempt) => {
    expect(attempt).toThrow(message);
  });
});

test('slanted edges and lines that leave through them mesh at every size: whole area, no error of the triangulation', () => {
  // Points along a slanted edge are in line only up to rounding, which once left edges outside the hull.
  for (let k = 0; k < 40; k++) {
    const lean = 0.052 + 0.0015 * k;
    const outline = [
      { x: 0, y: 0 },
      { x: 0.9144, y: 0 },
      { x: 0.9144 + lean, y: 0.5 + 0.66 * lean },
      { x: 0, y: 0.5 },
    ];
    const line = {
      name: 'Vent',
      points: [
        { x: 0.9446, y: 0.41 },
        { x: 0.9446, y: 0.1145 },
      ],
    };
    for (const nodeCount of [400, 1500]) {
      expect(meshArea(meshPart({ outline, lines: [line], nodeCount }))).toBeCloseTo(
        Math.abs(signedArea(outline)),
        9,
      );
    }
  }
});
