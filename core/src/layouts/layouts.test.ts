import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { polygonOf } from '../geometry/arcs.ts';
import {
  apart,
  nearestOnLine,
  pointAlong,
  straightened,
  straightenedRing,
  stretchOf,
} from '../geometry/along.ts';
import { distance, lineLength, perimeter, signedArea, type Point } from '../geometry/polygon.ts';
import { circle, gore, rectangle, ring } from '../geometry/shapes.ts';
import { sideAtOffset, sidesOf } from '../geometry/sides.ts';
import { framesOf, isInside, middleOf, roomAt, spansAcross, type PartShape } from './frame.ts';
import { fitTemplate, templateNames, type LineDraft, type TemplateRequest } from './templates.ts';

const box = (length: number, width: number): readonly Point[] => polygonOf(rectangle({ length, width }));
const plain = (outline: readonly Point[], holes: (readonly Point[])[] = []): PartShape => ({
  outline,
  holes,
});
const turnedBy = (points: readonly Point[], angle: number): Point[] =>
  points.map(({ x, y }) => ({
    x: Math.cos(angle) * x - Math.sin(angle) * y,
    y: Math.sin(angle) * x + Math.cos(angle) * y,
  }));
const request = (
  template: TemplateRequest['template'],
  changes: Partial<TemplateRequest> = {},
): TemplateRequest => ({
  template,
  count: 3,
  direction: 'long',
  reversed: false,
  inset: 0.05,
  ...changes,
});
const ofKind = (drafts: readonly LineDraft[], kind: LineDraft['kind']) =>
  drafts.filter((line) => line.kind === kind);

describe('along a line', () => {
  const bent = [
    { x: 0, y: 0 },
    { x: 3, y: 0 },
    { x: 3, y: 1 },
  ];

  test('shares of the length, stretches and the nearest place, by hand', () => {
    expect(pointAlong(bent, 0.5)).toEqual({ x: 2, y: 0 });
    expect(pointAlong(bent, 1)).toEqual({ x: 3, y: 1 });
    expect(stretchOf(bent, 0.25, 1)).toEqual([
      { x: 1, y: 0 },
      { x: 3, y: 0 },
      { x: 3, y: 1 },
    ]);
    expect(nearestOnLine({ x: 1, y: 2 }, bent)).toEqual({ point: { x: 1, y: 0 }, distance: 2 });
    expect(nearestOnLine({ x: 1, y: 2 }, [{ x: 1, y: 1 }]).distance).toBe(1);
    expect(
      apart(bent, [
        { x: 0, y: 2 },
        { x: 3, y: 2 },
      ]),
    ).toBe(1);
  });

  test('a stretch is as long as its shares say', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.45, noNaN: true }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        (a, b) => {
          expect(lineLength(stretchOf(bent, a, b))).toBeCloseTo(4 * (b - a), 9);
        },
      ),
      { seed: 4, endOnFailure: true },
    );
  });

  test('points within the tolerance of a chord go, the rest stays within it (Douglas & Peucker 1973)', () => {
    const wavy = Array.from({ length: 60 }, (_, i) => ({ x: i / 10, y: 0.01 * Math.sin(i) }));
    expect(straightened(wavy, 0.02)).toEqual([wavy[0], wavy[59]]);
    const kept = straightened(wavy, 0.004);
    for (const p of wavy) expect(nearestOnLine(p, kept).distance).toBeLessThanOrEqual(0.004 + 1e-12);
    const disc = polygonOf(circle({ diameter: 1 }));
    const coarse = straightenedRing(disc, 0.01);
    expect(coarse.length).toBeLessThan(disc.length);
    // A chord that lies within s of its arc cuts off less than s times its length.
    expect(Math.abs(Math.abs(signedArea(disc)) - Math.abs(signedArea(coarse)))).toBeLessThan(
      0.01 * perimeter(disc),
    );
  });
});

describe('sides of an outline', () => {
  test('a rectangle has four, the longest first; a disc none', () => {
    const sides = sidesOf(box(2, 1));
    expect(sides.map(lineLength)).toEqual([2, 2, 1, 1]);
    expect(sidesOf(polygonOf(circle({ diameter: 1 })))).toEqual([]);
  });

  test('drawn in by an offset it lies inside at that distance, whichever way the outline runs', () => {
    for (const outline of [box(2, 1), [...box(2, 1)].reverse(), turnedBy(box(2, 1), 0.7)])
      for (const side of sidesOf(outline)) {
        const inner = sideAtOffset(outline, side, 0.08)!;
        expect(lineLength(inner)).toBeCloseTo(lineLength(side) - 0.16, 9);
        for (const p of inner) expect(roomAt(plain(outline), p)).toBeCloseTo(0.08, 9);
      }
  });

  test('a curved side keeps its distance by its mitres; a short one has none left', () => {
    const outline = polygonOf(gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 }));
    const inner = sideAtOffset(outline, sidesOf(outline)[0]!, 0.05)!;
    // At its ends the acute corner of the foot is nearer.
    for (let s = 0.1; s < 0.95; s += 0.1)
      expect(Math.abs(roomAt(plain(outline), pointAlong(inner, s)) - 0.05)).toBeLessThan(5e-4);
    expect(sideAtOffset(box(2, 0.1), sidesOf(box(2, 0.1))[3]!, 0.06)).toBeNull();
  });
});

describe('the frame of a part', () => {
  test('finds a turned rectangle’s own axes', () => {
    for (const angle of [0, 0.3, 1.2, 2.5]) {
      const { long, short } = framesOf(plain(turnedBy(box(3, 1), angle)));
      expect([long.length, long.width, short.length]).toEqual([
        expect.closeTo(3, 9),
        expect.closeTo(1, 9),
        expect.closeTo(1, 9),
      ]);
      const p = long.toPlan(0.7, -0.2);
      expect([long.along(p), long.across(p)]).toEqual([expect.closeTo(0.7, 9), expect.closeTo(-0.2, 9)]);
    }
  });

  test('spans across leave holes out', () => {
    const hole = box(0.4, 0.4).map((p) => ({ x: p.x + 1.3, y: p.y + 0.3 }));
    const part = plain(box(3, 1), [hole]);
    const { long } = framesOf(part);
    expect(spansAcross(part, long, 0.5).map(([a, b]) => b - a)).toEqual([expect.closeTo(1, 9)]);
    const [a, b] = spansAcross(part, long, 1.5);
    expect([a![1] - a![0], b![1] - b![0]].sort()).toEqual([expect.closeTo(0.3, 9), expect.closeTo(0.3, 9)]);
  });

  test('the middle has half the width round it in a strip, and all of the radius in a disc', () => {
    expect(middleOf(plain(box(3, 1))).room).toBeCloseTo(0.5, 2);
    const { place, room } = middleOf(plain(polygonOf(circle({ diameter: 2 }))));
    expect(room).toBeGreaterThan(0.97);
    expect(distance(place, { x: 1, y: 1 })).toBeLessThan(0.03);
  });
});

describe('templates', () => {
  test('each kind is fitted to a rectangle as it is drawn on paper', () => {
    const part = plain(box(3, 1));
    const edge = fitTemplate(part, request('edgeToEdge'));
    expect(edge[0]!.points).toEqual([
      { x: expect.closeTo(0.05, 9), y: expect.closeTo(0.05, 9) },
      { x: expect.closeTo(0.05, 9), y: expect.closeTo(0.95, 9) },
    ]);
    expect(ofKind(edge, 'vent')[0]!.points.every((p) => p.x > 2.85)).toBe(true);
    const parallel = fitTemplate(part, request('parallel', { count: 4 }));
    expect(ofKind(parallel, 'feed').map(({ opens }) => opens)).toEqual([
      'start',
      'passed',
      'passed',
      'passed',
    ]);
    const xs = ofKind(parallel, 'feed').map(({ points }) => points[0]!.x);
    expect(xs[2]! - xs[1]!).toBeCloseTo(xs[1]! - xs[0]!, 9);
    const outward = fitTemplate(part, request('outward'));
    expect(ofKind(outward, 'feed').map(({ opens }) => opens)).toEqual(['passed', 'start', 'passed']);
    expect(ofKind(outward, 'feed')[1]!.points[0]!.x).toBeCloseTo(1.5, 9);
    expect(ofKind(outward, 'vent')).toHaveLength(2);
    const spine = fitTemplate(part, request('spine'));
    expect(ofKind(spine, 'feed').every(({ onTee }) => onTee)).toBe(true);
    expect(spine).toHaveLength(5);
    expect(ofKind(fitTemplate(part, request('radial', { count: 6 })), 'feed')).toHaveLength(6);
    expect(fitTemplate(part, request('point'))[0]!.points).toHaveLength(1);
  });

  test('turned parts get turned layouts; from the other end the same the other way round', () => {
    const straight = fitTemplate(plain(box(3, 1)), request('edgeToEdge', { reversed: true }));
    expect(straight[0]!.points[0]!.x).toBeCloseTo(2.95, 9);
    const angle = 0.4;
    const turned = fitTemplate(plain(turnedBy(box(3, 1), angle)), request('centreRing'));
    const still = fitTemplate(plain(box(3, 1)), request('centreRing'));
    const expected = turnedBy(still[0]!.points, angle);
    turned[0]!.points.forEach((p, i) => expect(distance(p, expected[i]!)).toBeLessThan(1e-9));
  });

  test('on any part feeds lie inside it and vents on its edge, or there is no layout', () => {
    const shapes = [
      polygonOf(gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 })),
      polygonOf(circle({ diameter: 0.8 })),
      box(5, 0.3),
      [
        { x: 0, y: 0 },
        { x: 2, y: 0 },
        { x: 2, y: 0.6 },
        { x: 0.6, y: 0.6 },
        { x: 0.6, y: 2 },
        { x: 0, y: 2 },
      ],
    ];
    for (const outline of shapes)
      for (const template of templateNames)
        for (const direction of ['long', 'short'] as const) {
          const drafts = fitTemplate(plain(outline), request(template, { direction }));
          for (const { kind, points } of drafts)
            for (const p of points) {
              const room = roomAt(plain(outline), p);
              if (kind === 'feed') expect(room).toBeGreaterThan(0);
              else expect(Math.abs(room)).toBeLessThan(1e-6);
            }
        }
    expect(fitTemplate(plain(box(1, 0.1)), request('edgeToEdge', { inset: 0.06 }))).toEqual([]);
  });

  test('a ring part keeps its lines off the hole', () => {
    const { outline, holes } = ring({ diameter: 2, holeDiameter: 0.8 });
    const part = plain(
      polygonOf(outline),
      holes.map((hole) => polygonOf(hole)),
    );
    for (const { points } of ofKind(fitTemplate(part, request('parallel')), 'feed'))
      for (let s = 0; s <= 1; s += 0.1) expect(isInside(part, pointAlong(points, s))).toBe(true);
  });
});
