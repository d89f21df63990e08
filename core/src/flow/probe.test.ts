import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { disc } from '../test/disc.ts';
import { createIsochrones } from './isochrones.ts';
import { valueAt } from './probe.ts';

const hole = disc({ diameter: 0.2, corners: 24 }).map((p) => ({ x: p.x + 0.4, y: p.y + 0.2 }));
const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.6 }), holes: [hole], nodeCount: 700 });
const plane = Float64Array.from(
  { length: mesh.nodeCount },
  (_, i) => 2 * mesh.positions[3 * i] + mesh.positions[3 * i + 1],
);

describe('reading a field at a place', () => {
  test('a plane is read exactly everywhere on the part, and nowhere else', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.2, max: 1.2, noNaN: true }),
        fc.double({ min: -0.2, max: 0.8, noNaN: true }),
        (x, y) => {
          const value = valueAt(mesh, plane, { x, y });
          const fromHole = Math.hypot(x - 0.5, y - 0.3);
          const isInside = x > 0 && x < 1 && y > 0 && y < 0.6;
          const isOutside = x < -1e-6 || x > 1 + 1e-6 || y < -1e-6 || y > 0.6 + 1e-6;
          if (isInside && fromHole > 0.11) expect(value).toBeCloseTo(2 * x + y, 9);
          if (isOutside || fromHole < 0.09) expect(value).toBeNaN();
        },
      ),
      { seed: 2 },
    );
  });

  test('where a corner has no value there is none', () => {
    const some = plane.map((value, i) => (mesh.positions[3 * i] > 0.7 ? NaN : value));
    expect(valueAt(mesh, some, { x: 0.9, y: 0.3 })).toBeNaN();
    expect(valueAt(mesh, some, { x: 0.2, y: 0.3 })).toBeCloseTo(0.7, 9);
  });
});

describe('isochrones of a plane', () => {
  const areaOf = (rings: number[][]) =>
    rings.reduce((sum, ring) => {
      let twice = 0;
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
        twice += ring[j] * ring[i + 1] - ring[i] * ring[j + 1];
      return sum + twice / 2;
    }, 0);

  test('cut the part along a straight line: the area before x = c is c times the width', () => {
    const along = Float64Array.from({ length: mesh.nodeCount }, (_, i) => mesh.positions[3 * i]);
    const isochrones = createIsochrones(mesh, along);
    for (const x of [0.05, 0.17, 0.29, 0.38]) expect(areaOf(isochrones.wetBy(x))).toBeCloseTo(0.6 * x, 6);
    const withoutHole = 0.6 * 0.83 - Math.PI * 0.01;
    expect(areaOf(isochrones.wetBy(0.83))).toBeCloseTo(withoutHole, 6);
  });

  test('every ring is closed: its points lie on the line or on the edge of the part', () => {
    for (const ring of createIsochrones(mesh, plane).wetBy(1.1))
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i], ring[i + 1]];
        const onLine = Math.abs(2 * x + y - 1.1) < 1e-9;
        const onRim =
          x < 1e-9 || x > 1 - 1e-9 || y < 1e-9 || y > 0.6 - 1e-9 || Math.hypot(x - 0.5, y - 0.3) < 0.105;
        expect(onLine || onRim).toBe(true);
      }
  });
});
