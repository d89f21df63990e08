import { ringArea } from './arcs.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { planarGraph } from './planar-graph.ts';
import {
  boundsOf,
  contains,
  lineLength,
  nearestOnSegment,
  perimeter,
  requireSimplePolygon,
  segmentsCross,
  signedArea,
  type Point,
  firstCrossing,
} from './polygon.ts';
import { coneSector, gore, rectangle, trapezoid } from './shapes.ts';
import { disc } from '../test/disc.ts';

/** Whole millimetres, as positions are stored. */
const coordinate = fc.integer({ min: -5000, max: 5000 }).map((millimetres) => millimetres / 1000);
const point = fc.record({ x: coordinate, y: coordinate });

describe('polygon measures', () => {
  test('against formulas of elementary geometry', () => {
    expect(signedArea(rectangle({ length: 3, width: 2 }))).toBeCloseTo(6, 12);
    expect(signedArea(rectangle({ length: 3, width: 2 }).reverse())).toBeCloseTo(-6, 12);
    expect(perimeter(rectangle({ length: 3, width: 2 }))).toBeCloseTo(10, 12);
    expect(signedArea(trapezoid({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }))).toBeCloseTo(
      (3.4 * 1.6) / 2,
      12,
    );
    expect(signedArea(disc({ diameter: 2 }))).toBeCloseTo(Math.PI, 9);
    expect(
      lineLength([
        { x: 0, y: 0 },
        { x: 3, y: 4 },
        { x: 3, y: 5 },
      ]),
    ).toBe(6);
  });

  test('a cone laid flat has the area of its sector, r^2 angle / 2', () => {
    const area = ringArea(coneSector({ innerRadius: 0.1, outerRadius: 0.5, sectorAngle: 4 }));
    expect(area).toBeCloseTo(((0.25 - 0.01) * 4) / 2, 12);
  });

  test('a gore is as wide as asked at both ends and symmetric', () => {
    const outline = gore({ length: 3, startWidth: 1.2, endWidth: 0.4 });
    const at = (x: number) => outline.filter((p) => Math.abs(p.x - x) < 1e-9).map((p) => p.y);
    expect(Math.max(...at(0)) - Math.min(...at(0))).toBeCloseTo(1.2, 9);
    expect(Math.max(...at(3)) - Math.min(...at(3))).toBeCloseTo(0.4, 9);
    const box = boundsOf(outline);
    expect(box.minY + box.maxY).toBeCloseTo(1.2, 9);
  });

  test('area stays under shifting and turning', () => {
    fc.assert(
      fc.property(point, fc.double({ min: 0, max: 6, noNaN: true }), (by, angle) => {
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const moved = gore({ length: 2, startWidth: 1, endWidth: 0.5 }).map(({ x, y }) => ({
          x: c * x - s * y + by.x,
          y: s * x + c * y + by.y,
        }));
        expect(signedArea(moved)).toBeCloseTo(
          signedArea(gore({ length: 2, startWidth: 1, endWidth: 0.5 })),
          9,
        );
      }),
    );
  });
});

describe('points and segments', () => {
  test('the nearest point of a segment is nearer than any other of it', () => {
    fc.assert(
      fc.property(point, point, point, fc.double({ min: 0, max: 1, noNaN: true }), (p, a, b, t) => {
        const near = nearestOnSegment(p, a, b);
        const other = { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) };
        expect(Math.hypot(near.x - p.x, near.y - p.y)).toBeLessThanOrEqual(
          Math.hypot(other.x - p.x, other.y - p.y) + 1e-9,
        );
      }),
    );
  });

  test('inside is inside: a point of a disc by its distance to the middle', () => {
    const outline = disc({ diameter: 2, corners: 200 });
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 6.2, noNaN: true }),
        (r, angle) => {
          if (Math.abs(r - 1) < 1e-3) return;
          expect(contains(outline, { x: 1 + r * Math.cos(angle), y: 1 + r * Math.sin(angle) })).toBe(r < 1);
        },
      ),
    );
  });

  test('crossing is mutual, and sharing an end is not crossing', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        expect(segmentsCross(a, b, c, d)).toBe(segmentsCross(c, d, a, b));
      }),
    );
    const [o, x, y] = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 0, y: 1 },
    ];
    expect(segmentsCross(o, x, o, y)).toBe(false);
    expect(segmentsCross({ x: -1, y: 0.5 }, { x: 1, y: 0.5 }, o, y)).toBe(true);
  });
});

describe('outline check', () => {
  test.each<[RegExp, Point[]]>([
    [/at least three corners, it has 0/, []],
    [/has 2001 corners; 2000 is the limit/, disc({ diameter: 1, corners: 2001 })],
    [/is 0.001 m across/, rectangle({ length: 0.001, width: 0.001 })],
    [
      /Corner 3 of the outline is not a number/,
      [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 1, y: Infinity },
      ],
    ],
    [
      /crosses itself/,
      [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 0.2, y: 1 },
        { x: 0.8, y: 1 },
      ],
    ],
  ])('%s', (message, polygon) => {
    expect(() => requireSimplePolygon(polygon, 'The outline')).toThrow(message);
  });

  test('good outlines pass in either direction', () => {
    for (const polygon of [
      rectangle({ length: 2, width: 1 }),
      disc({ diameter: 1 }),
      gore({ length: 3, startWidth: 1, endWidth: 0.2 }),
    ]) {
      expect(() => requireSimplePolygon(polygon, 'The outline')).not.toThrow();
      expect(() => requireSimplePolygon([...polygon].reverse(), 'The outline')).not.toThrow();
    }
  });
});

describe('planar graph', () => {
  const lengths = (graph: ReturnType<typeof planarGraph>) =>
    graph.segments.reduce(
      (sum, { a, b }) =>
        sum + Math.hypot(graph.points[a].x - graph.points[b].x, graph.points[a].y - graph.points[b].y),
      0,
    );

  test('a cross of two lines has five points and four segments', () => {
    const graph = planarGraph(
      [
        {
          points: [
            { x: -1, y: 0 },
            { x: 1, y: 0 },
          ],
          closed: false,
        },
        {
          points: [
            { x: 0, y: -1 },
            { x: 0, y: 1 },
          ],
          closed: false,
        },
      ],
      1e-6,
    );
    expect([graph.points.length, graph.segments.length]).toEqual([5, 4]);
  });

  test('overlapping lines share their points, and a tee splits the line it meets', () => {
    const graph = planarGraph(
      [
        {
          points: [
            { x: 0, y: 0 },
            { x: 3, y: 0 },
          ],
          closed: false,
        },
        {
          points: [
            { x: 1, y: 0 },
            { x: 2, y: 0 },
          ],
          closed: false,
        },
        {
          points: [
            { x: 1.5, y: 0 },
            { x: 1.5, y: 1 },
          ],
          closed: false,
        },
      ],
      1e-6,
    );
    expect(graph.points).toHaveLength(6);
    expect(graph.segments.filter((segment) => segment.path === 0)).toHaveLength(4);
  });

  test('splitting keeps every length, and no two segments cross any more', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(point, point), { minLength: 2, maxLength: 6 }), (pairs) => {
        const paths = pairs.map(([a, b]) => ({ points: [a, b], closed: false }));
        const graph = planarGraph(paths, 1e-9);
        const wanted = pairs.reduce((sum, [a, b]) => sum + Math.hypot(a.x - b.x, a.y - b.y), 0);
        expect(Math.abs(lengths(graph) - wanted)).toBeLessThan(1e-5);
        const { points, segments } = graph;
        for (const s of segments)
          for (const t of segments) {
            if ([s.a, s.b].some((end) => end === t.a || end === t.b)) continue;
            const [a, b, c, d] = [points[s.a], points[s.b], points[t.a], points[t.b]];
            const middle = (p: Point, q: Point, share: number) => ({
              x: p.x + share * (q.x - p.x),
              y: p.y + share * (q.y - p.y),
            });
            expect(
              segmentsCross(
                middle(a, b, 1e-4),
                middle(a, b, 1 - 1e-4),
                middle(c, d, 1e-4),
                middle(c, d, 1 - 1e-4),
              ),
            ).toBe(false);
          }
      }),
      { numRuns: 60, seed: 11, endOnFailure: true },
    );
  });
});

describe('edges that cross', () => {
  test('are found as by trying every pair', () => {
    // On a coarse grid edges touch, overlap and share corners as often as they cross.
    const corner = fc.record({ x: fc.integer({ min: 0, max: 6 }), y: fc.integer({ min: 0, max: 6 }) });
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 12 }), (ring) => {
        const pairs = ring.flatMap((a, i) =>
          ring.slice(i + 1).flatMap((c, k) => {
            const j = i + 1 + k;
            return segmentsCross(a, ring[(i + 1) % ring.length]!, c, ring[(j + 1) % ring.length]!)
              ? [[i, j]]
              : [];
          }),
        );
        expect(firstCrossing(ring)).toEqual(pairs[0] ?? null);
      }),
      { numRuns: 2000 },
    );
  });
});
