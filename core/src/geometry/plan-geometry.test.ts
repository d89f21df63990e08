import { describe, expect, test } from '@jest/globals';
import flatten from '@flatten-js/core';
import fc from 'fast-check';
import { difference, intersection, union } from 'polyclip-ts';
import {
  arcOf,
  bulgeOfRadius,
  bulgeThrough,
  edgeLength,
  edgeMiddle,
  polygonOf,
  reversed,
  ringArea,
  ringBounds,
  ringLength,
  type Corner,
} from './arcs.ts';
import {
  aimEdge,
  bendEdge,
  isRectangle,
  mirroredRing,
  rotated,
  shifted,
  sizedTo,
  splitAlong,
  splitEdge,
  stretchRectangle,
} from './moves.ts';
import { intersect, offset, strip, regionArea, subtract, unite, type Region } from './overlay.ts';
import {
  boundsOf,
  contains,
  distance,
  requireSimplePolygon,
  nearestOnSegment,
  perimeter,
  signedArea,
  type Point,
} from './polygon.ts';
import { angleShape, circle, coneLaidFlat, gore, rectangle, ring as flatRing, trapezoid } from './shapes.ts';
import { snap } from './snap.ts';
import { closeChain, stitch } from './stitch.ts';

const slot: Corner[] = [
  { x: 0, y: 0 },
  { x: 0.3, y: 0, bulge: 1 },
  { x: 0.3, y: 0.1 },
  { x: 0, y: 0.1, bulge: 1 },
];
/** The same ring in the general-purpose package: its arcs are arcs there too. */
function asFlatten(ring: readonly Corner[]) {
  const polygon = new flatten.Polygon();
  polygon.addFace(
    ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const arc = arcOf(a, b);
      return arc
        ? new flatten.Arc(
            new flatten.Point(arc.centre.x, arc.centre.y),
            arc.radius,
            arc.start,
            arc.start + arc.sweep,
            arc.sweep > 0,
          )
        : new flatten.Segment(new flatten.Point(a.x, a.y), new flatten.Point(b.x, b.y));
    }),
  );
  return polygon;
}
const seeded = { seed: 7, endOnFailure: true };
const bulge = fc.double({ min: -1.5, max: 1.5, noNaN: true }).filter((b) => Math.abs(b) > 0.01);

describe('arcs', () => {
  test('a slot: area 2 r l + pi r^2, length 2 l + 2 pi r, and the same from flatten-js', () => {
    expect(ringArea(slot)).toBeCloseTo(0.03 + Math.PI * 0.0025, 12);
    expect(ringLength(slot)).toBeCloseTo(0.6 + Math.PI * 0.1, 12);
    expect(asFlatten(slot).area()).toBeCloseTo(ringArea(slot), 9);
    const chords = polygonOf(slot);
    expect(signedArea(chords) / ringArea(slot)).toBeGreaterThan(0.995);
    expect(polygonOf(slot)).toBe(chords);
  });

  test('bulges of random rings: area and length as flatten-js has them', () => {
    fc.assert(
      fc.property(bulge, bulge, (b1, b2) => {
        const ring = [
          { x: 0, y: 0, bulge: b1 },
          { x: 2, y: 0.3 },
          { x: 1.5, y: 2, bulge: b2 },
          { x: -0.2, y: 1.4 },
        ];
        const outside = asFlatten(ring);
        const length = [...outside.edges].reduce((sum, edge) => sum + edge.length, 0);
        expect(ringLength(ring)).toBeCloseTo(length, 9);
      }),
      seeded,
    );
  });

  test('a chord stands off its arc by 0.2 mm at most', () => {
    for (const diameter of [0.02, 0.4, 20]) {
      const ring = circle({ diameter });
      const centre = { x: diameter / 2, y: diameter / 2 };
      const chords = polygonOf(ring);
      chords.forEach((p, i) => {
        const middle = nearestOnSegment(centre, p, chords[(i + 1) % chords.length]);
        expect(diameter / 2 - distance(centre, middle)).toBeLessThan(2.001e-4);
      });
    }
  });

  test('a ring of arcs that would come to millions of points is drawn with fewer, and refused where it is checked', () => {
    const ring = Array.from({ length: 2000 }, (_, i) => ({
      x: 900 * Math.cos(i),
      y: 900 * Math.sin(i),
      bulge: 1,
    }));
    const polygon = polygonOf(ring);
    expect(polygon.length).toBeLessThan(35_000);
    expect(() => requireSimplePolygon(polygon, 'The outline')).toThrow(/2000 is the limit/);
  });

  test('an arc through a point passes it; half a circle has bulge 1; radius and back', () => {
    expect(bulgeThrough({ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 1, y: -1 })).toBeCloseTo(1, 12);
    expect(bulgeThrough({ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 1.2, y: 0 })).toBe(0);
    const b = bulgeOfRadius(0.6, 0.5);
    expect(arcOf({ x: 0, y: 0, bulge: b }, { x: 0.6, y: 0 })!.radius).toBeCloseTo(0.5, 12);
    expect(bulgeOfRadius(2, 0.1)).toBeCloseTo(1, 12);
    fc.assert(
      fc.property(bulge, (value) => {
        const [a, end] = [
          { x: 0.3, y: -1, bulge: value },
          { x: 2, y: 0.7 },
        ];
        const middle = edgeMiddle(a, end);
        expect(bulgeThrough(a, end, middle)).toBeCloseTo(value, 6);
        expect(edgeLength(a, end)).toBeGreaterThan(distance(a, end));
      }),
      seeded,
    );
  });

  test('the box of a circle is as wide as its diameter, of a slot as long as it and its ends', () => {
    const { minX, maxX, minY, maxY } = ringBounds(circle({ diameter: 0.4 }));
    for (const [value, wanted] of [
      [minX, 0],
      [minY, 0],
      [maxX, 0.4],
      [maxY, 0.4],
    ] as const)
      expect(value).toBeCloseTo(wanted, 12);
    const box = ringBounds(reversed(slot));
    expect(box.maxX - box.minX).toBeCloseTo(0.4, 12);
    expect(box.maxY - box.minY).toBeCloseTo(0.1, 12);
  });

  test('run the other way round it is the same ring', () => {
    expect(ringArea(reversed(slot))).toBeCloseTo(-ringArea(slot), 12);
    expect(ringLength(reversed(slot))).toBeCloseTo(ringLength(slot), 12);
  });
});

describe('booleans and offsets', () => {
  const square = rectangle({ length: 2, width: 1 });
  const region = (outline: readonly Corner[]): Region => [{ outline, holes: [] }];
  const pairs = (ring: readonly Point[]) => [ring.map(({ x, y }): [number, number] => [x, y])];
  const areaOf = (multi: [number, number][][][]) =>
    multi.reduce(
      (sum, polygon) =>
        sum +
        polygon.reduce(
          (inner, ring, i) =>
            inner + (i === 0 ? 1 : -1) * Math.abs(signedArea(ring.slice(0, -1).map(([x, y]) => ({ x, y })))),
          0,
        ),
      0,
    );

  test('random quadrilaterals: union, difference and intersection as polyclip-ts has them', () => {
    const near = (x: number, y: number) =>
      fc
        .tuple(
          fc.double({ min: -0.4, max: 0.4, noNaN: true }),
          fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        )
        .map(([dx, dy]) => ({ x: x + dx, y: y + dy }));
    const quad = fc.tuple(near(0, 0), near(2, 0), near(2, 2), near(0, 2)).map((corners) => [...corners]);
    fc.assert(
      fc.property(quad, quad, (a, b) => {
        const moved = shifted(b, { x: 0.7, y: 0.5 });
        const [p, q] = [pairs(a), pairs(moved)];
        expect(regionArea(unite(region(a), region(moved)))).toBeCloseTo(areaOf(union([p], [q]) as never), 9);
        expect(regionArea(subtract(region(a), region(moved)))).toBeCloseTo(
          areaOf(difference([p], [q]) as never),
          9,
        );
        expect(regionArea(intersect(region(a), region(moved)))).toBeCloseTo(
          areaOf(intersection([p], [q]) as never),
          9,
        );
      }),
      { ...seeded, numRuns: 60 },
    );
  });

  test('a round offset of a convex part has area A + P d + pi d^2 (Steiner)', () => {
    for (const outline of [square, trapezoid({ length: 3, startWidth: 1.2, endWidth: 0.4 })])
      for (const d of [0.02, 0.1, 0.5])
        expect(regionArea(offset(region(outline), d, 'round'))).toBeCloseTo(
          Math.abs(signedArea(outline)) + perimeter(outline) * d + Math.PI * d * d,
          2,
        );
  });

  test('a round offset is the part with a strip along each edge and a disc on each corner, joined by polyclip-ts', () => {
    const shapes = [
      angleShape({ length: 1, width: 0.8, legWidth: 0.2, footWidth: 0.3 }),
      gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4, corners: 5 }),
    ];
    for (const outline of shapes)
      for (const d of [0.03, 0.15]) {
        const around = outline.flatMap((a, i) => {
          const b = outline[(i + 1) % outline.length];
          const [nx, ny] = [((b.y - a.y) * d) / distance(a, b), ((a.x - b.x) * d) / distance(a, b)];
          const strip = [
            { x: a.x + nx, y: a.y + ny },
            { x: b.x + nx, y: b.y + ny },
            { x: b.x - nx, y: b.y - ny },
            { x: a.x - nx, y: a.y - ny },
          ];
          const disc = Array.from({ length: 64 }, (_, k) => ({
            x: a.x + d * Math.cos((Math.PI * k) / 32),
            y: a.y + d * Math.sin((Math.PI * k) / 32),
          }));
          return [[pairs(strip)], [pairs(disc)]];
        });
        const joined = areaOf(union([pairs(outline)], ...around) as never);
        expect(regionArea(offset(region(outline), d, 'round')) / joined).toBeCloseTo(1, 3);
      }
  });

  test('every corner of a flange lies its width from the part; a mitred rectangle stays one', () => {
    const outline = gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 });
    for (const [{ outline: grown }] of [offset(region(outline), 0.09, 'round')])
      for (const p of grown) {
        const away = Math.min(
          ...outline.map((a, i) => distance(p, nearestOnSegment(p, a, outline[(i + 1) % outline.length]))),
        );
        expect(away).toBeGreaterThan(0.0895);
        expect(away).toBeLessThan(0.0901);
      }
    const [{ outline: grown }] = offset(region(square), 0.1);
    expect(grown).toHaveLength(4);
    expect(signedArea(grown)).toBeCloseTo(2.2 * 1.2, 9);
    expect(regionArea(offset(region(square), -0.1))).toBeCloseTo(1.8 * 0.8, 9);
    expect(offset(region(square), -0.6)).toEqual([]);
  });

  test('a hole shrinks as its part grows; an outline that crosses itself is told', () => {
    const withHole: Region = [
      { outline: square, holes: [shifted(rectangle({ length: 0.5, width: 0.5 }), { x: 0.5, y: 0.25 })] },
    ];
    expect(regionArea(offset(withHole, 0.05))).toBeCloseTo(2.1 * 1.1 - 0.4 * 0.4, 9);
    const bow = [square[0], square[2], square[1], square[3]];
    const crossed = () => subtract(region(bow), region(shifted(square, { x: 0.31, y: 0.17 })));
    expect(crossed).toThrow(/cannot be combined: one of them crosses/);
  });

  test('a cut leaves two parts that make up the whole', () => {
    const { left, right } = splitAlong({ outline: slot, holes: [] }, { x: 0.1, y: -1 }, { x: 0.2, y: 1 });
    const whole = Math.abs(signedArea(polygonOf(slot)));
    expect(regionArea(left) + regionArea(right)).toBeCloseTo(whole, 9);
    expect(regionArea(left)).toBeCloseTo(0.1 * 0.1525 + (whole - 0.03) / 2, 9);
    expect(regionArea(left)).toBeGreaterThan(0);
  });
});

test('a strip along a line has the area of its length by its width and two round ends; round a point a disc', () => {
  const bent = [
    { x: 0, y: 0 },
    { x: 2, y: 0 },
    { x: 2, y: 1 },
  ];
  const d = 0.05;
  // The bend takes the square corner inside once, and adds a quarter disc outside.
  const expected = 2 * d * 3 + Math.PI * d * d - d * d + (Math.PI / 4) * d * d;
  expect(Math.abs(regionArea(strip(bent, d)) / expected - 1)).toBeLessThan(2e-3);
  expect(Math.abs(regionArea(strip([{ x: 1, y: 1 }], d)) / (Math.PI * d * d) - 1)).toBeLessThan(0.01);
});

describe('moves', () => {
  test('mirrored twice is where it was; a mirrored ring keeps its direction and area', () => {
    const mirrored = mirroredRing(slot, 0.7);
    expect(ringArea(mirrored)).toBeCloseTo(ringArea(slot), 12);
    const back = mirroredRing(mirrored, 0.7);
    back.forEach((p, i) => expect(distance(p, slot[i])).toBeLessThan(1e-12));
  });

  test('turning and shifting keep every length', () => {
    const turned = rotated(shifted(slot, { x: 3, y: -2 }), 1.1, { x: 0.4, y: 0.2 });
    expect(ringLength(turned)).toBeCloseTo(ringLength(slot), 12);
    expect(ringArea(turned)).toBeCloseTo(ringArea(slot), 12);
  });

  test('a corner put into an arc leaves the ring as it was', () => {
    const more = splitEdge(slot, 1);
    expect(more).toHaveLength(5);
    expect(ringArea(more)).toBeCloseTo(ringArea(slot), 12);
    expect(more[2].x).toBeCloseTo(0.35, 12);
  });

  test('an edge is bent through a point, straightened near its chord, and aimed by length and angle', () => {
    const bent = bendEdge(rectangle({ length: 2, width: 1 }), 0, { x: 1, y: -1 });
    expect(bent[0].bulge).toBeCloseTo(1, 12);
    expect(bendEdge(bent, 0, { x: 1, y: -0.001 })[0].bulge).toBeUndefined();
    const aimed = aimEdge(rectangle({ length: 2, width: 1 }), 0, { length: 3, angle: Math.PI / 6 });
    expect(aimed[1].x).toBeCloseTo(3 * Math.cos(Math.PI / 6), 12);
    expect(aimed[1].y).toBeCloseTo(1.5, 12);
  });
});

describe('templates', () => {
  test('areas by their textbook formulas', () => {
    expect(ringArea(circle({ diameter: 2 }))).toBeCloseTo(Math.PI, 12);
    const { outline, holes } = flatRing({ diameter: 1, holeDiameter: 0.4 });
    expect(ringArea(outline) - ringArea(holes[0])).toBeCloseTo((Math.PI / 4) * (1 - 0.16), 12);
    expect(contains(polygonOf(outline), polygonOf(holes[0])[0])).toBe(true);
    expect(signedArea(angleShape({ length: 1, width: 0.8, legWidth: 0.2, footWidth: 0.3 }))).toBeCloseTo(
      0.3 + 0.1,
      12,
    );
  });

  test('a cone laid flat has the lateral area pi (R + r) s and both rims', () => {
    const [wide, narrow, height] = [0.8, 0.2, 0.5];
    const cone = coneLaidFlat({ wideDiameter: wide, narrowDiameter: narrow, height });
    const slant = Math.hypot(height, (wide - narrow) / 2);
    expect(ringArea(cone)).toBeCloseTo((Math.PI * (wide + narrow) * slant) / 2, 12);
    const rim = edgeLength(cone[0], cone[1]) + edgeLength(cone[1], cone[2]);
    expect(rim).toBeCloseTo(Math.PI * wide, 12);
  });
});

describe('stitching', () => {
  const chain = (...points: [number, number][]) => ({
    corners: points.map(([x, y]) => ({ x, y })),
    isClosed: false,
  });

  test('pieces in any order make one ring; arcs are turned with their pieces', () => {
    const { rings, open } = stitch(
      [
        chain([0.3, 0.1], [0, 0.1]),
        {
          corners: [
            { x: 0.3, y: 0.1, bulge: -1 },
            { x: 0.3, y: 0 },
          ],
          isClosed: false,
        },
        chain([0, 0], [0.3, 0]),
        {
          corners: [
            { x: 0, y: 0.1, bulge: 1 },
            { x: 0, y: 0 },
          ],
          isClosed: false,
        },
      ],
      1e-4,
    );
    expect(open).toEqual([]);
    expect(Math.abs(ringArea(rings[0]))).toBeCloseTo(ringArea(slot), 9);
  });

  test('gaps wider than the tolerance stay open, with their width; closing draws them straight', () => {
    const broken = [chain([0, 0], [1, 0], [1, 1]), chain([0, 1], [0, 0.02])];
    const { rings, open } = stitch(broken, 0.01);
    expect(rings).toEqual([]);
    expect(open.map(({ gap }) => gap.width).sort()).toEqual([Math.SQRT2, 0.98].sort());
    expect(Math.abs(signedArea(closeChain(open[0].corners)))).toBeCloseTo(0.5, 9);
    expect(stitch(broken, 1.2).rings).toHaveLength(1);
    const near = [chain([0, 0], [1, 0], [1, 1]), chain([1, 1.001], [0, 1], [0, 0.001])];
    expect(stitch(near, 0.002).rings[0]).toHaveLength(4);
  });

  test('thousands of lines from one point are read in good time', () => {
    const star = Array.from({ length: 3000 }, (_, i) => chain([0, 0], [Math.cos(i), Math.sin(i)]));
    const { rings, open } = stitch(star, 1e-3);
    expect(rings.length + open.length).toBeGreaterThan(100);
  });
});

describe('snapping', () => {
  const targets = { rings: [rectangle({ length: 1, width: 0.6 })], lines: [], reach: 0.02, grid: 0.05 };

  test.each<[string, Point, string, Point]>([
    ['corner', { x: 0.99, y: 0.61 }, 'corner', { x: 1, y: 0.6 }],
    ['middle of an edge', { x: 0.51, y: 0.59 }, 'middle', { x: 0.5, y: 0.6 }],
    ['edge', { x: 0.33, y: 0.01 }, 'edge', { x: 0.33, y: 0 }],
    ['level of a corner, beyond the part', { x: 1.4, y: 0.605 }, 'level', { x: 1.4, y: 0.6 }],
    ['grid', { x: 0.26, y: 0.31 }, 'grid', { x: 0.25, y: 0.3 }],
  ])('onto a %s', (_, at, kind, point) => {
    const snapped = snap(at, targets);
    expect(snapped.kind).toBe(kind);
    expect(distance(snapped.point, point)).toBeLessThan(1e-12);
  });

  test('onto an arc, and free where there is nothing', () => {
    const round = snap({ x: 0.352, y: 0.03 }, { ...targets, rings: [slot], grid: null });
    expect(round.kind).toBe('edge');
    expect(distance(round.point, { x: 0.3, y: 0.05 })).toBeCloseTo(0.05, 4);
    expect(snap({ x: 5, y: 7 }, { ...targets, grid: null })).toEqual({
      point: { x: 5, y: 7 },
      kind: 'free',
      guides: [],
    });
  });

  test('continues an even spacing of lines', () => {
    const lines = [0.2, 0.5].map((x) => [
      { x, y: 0.1 },
      { x, y: 0.5 },
    ]);
    const snapped = snap({ x: 0.79, y: 0.33 }, { ...targets, rings: [], lines, grid: null });
    expect(snapped.kind).toBe('spacing');
    expect(snapped.point.x).toBeCloseTo(0.8, 12);
    expect(boundsOf([snapped.point]).minY).toBe(0.33);
  });
});

describe('sizes', () => {
  const plate = rectangle({ length: 1.2, width: 0.8 });
  const turned = rotated(plate, 0.4, { x: 0.3, y: -0.2 });
  const sides = (ring: readonly Corner[]) => ring.map((p, i) => distance(p, ring[(i + 1) % ring.length]));

  test('a rectangle is told from what is not quite one', () => {
    expect([plate, turned].map(isRectangle)).toEqual([true, true]);
    expect(isRectangle(trapezoid({ length: 2, startWidth: 1, endWidth: 0.9 }))).toBe(false);
    expect(isRectangle(plate.slice(0, 3))).toBe(false);
    expect(isRectangle(bendEdge(plate, 1, { x: 1.3, y: 0.4 }))).toBe(false);
    expect(isRectangle(plate.map((p, i) => (i === 2 ? { ...p, x: p.x + 0.001 } : p)))).toBe(false);
  });

  test.each([0, 1, 2, 3])('edge %i of a rectangle takes the opposite one along', (index) => {
    for (const ring of [plate, turned]) {
      const after = stretchRectangle(ring, index, 2.5);
      expect(isRectangle(after)).toBe(true);
      const [along, across] = [sides(after)[index], sides(after)[(index + 1) % 4]];
      expect(along).toBeCloseTo(2.5, 12);
      expect(across).toBeCloseTo(sides(ring)[(index + 1) % 4], 12);
      expect(after[index]).toEqual(ring[index]);
    }
  });

  test('any ring takes an over-all size along or across, its lower left side staying', () => {
    const rings = [
      plate,
      turned,
      gore({ length: 3, startWidth: 1.2, endWidth: 0.4 }),
      circle({ diameter: 0.8 }),
      bendEdge(plate, 0, { x: 0.6, y: -0.3 }),
      slot,
    ];
    for (const ring of rings)
      for (const axis of ['x', 'y'] as const) {
        const [before, after] = [ringBounds(ring), ringBounds(sizedTo(ring, axis, 1.7))];
        const [low, high] = axis === 'x' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
        expect(after[high] - after[low]).toBeCloseTo(1.7, 5);
        expect(after.minX).toBeCloseTo(before.minX, 9);
        expect(after.minY).toBeCloseTo(before.minY, 9);
      }
  });

  test('a disc stays a disc', () => {
    const disc = sizedTo(circle({ diameter: 0.8 }), 'y', 2);
    const { minX, maxX } = ringBounds(disc);
    expect(maxX - minX).toBeCloseTo(2, 5);
    expect(ringArea(disc)).toBeCloseTo(Math.PI, 4);
  });
});
