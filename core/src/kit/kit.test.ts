import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { intersection } from 'polyclip-ts';
import { regionArea, type Region } from '../geometry/overlay.ts';
import { distance, signedArea, type Point } from '../geometry/polygon.ts';
import { gore, rectangle, trapezoid } from '../geometry/shapes.ts';
import { piecesOf, plyArea, plyRegion, type CutPiece, type PlyCut } from './cut-pieces.ts';
import { nest } from './nest.ts';

const degrees = (angle: number) => (angle * Math.PI) / 180;
const region = (outline: readonly Point[]): Region => [{ outline, holes: [] }];
const cut = (outline: readonly Point[], angle: number): PlyCut => ({
  order: 3,
  name: 'Cloth',
  materialId: 'cloth',
  angle: degrees(angle),
  region: region(outline),
});
const areaOf = (pieces: readonly CutPiece[]) =>
  pieces.reduce((sum, { outline }) => sum + Math.abs(signedArea(outline)), 0);

describe('pieces of a ply', () => {
  const strip = rectangle({ length: 1.4, width: 0.3 });

  test('along the roll a part narrower than it is one piece; area and measures stay', () => {
    const [piece, ...more] = piecesOf(cut(strip, 0), 1.27);
    expect(more).toEqual([]);
    expect(piece!.label).toBe('3');
    expect([piece!.length, piece!.width].map((v) => Number(v.toFixed(9)))).toEqual([1.4, 0.3]);
    expect(piecesOf(cut(strip, 90), 1.5)[0]!.width).toBeCloseTo(1.4, 9);
  });

  test('a narrow bias ply is pieced from about the roll width times the root of two on (common practice, no source)', () => {
    const roll = 1;
    const bias = (length: number) => piecesOf(cut(rectangle({ length, width: 0.001 }), 45), roll);
    expect(bias(0.99 * Math.SQRT2 * roll)).toHaveLength(1);
    const pieced = bias(1.01 * Math.SQRT2 * roll);
    expect(pieced.map((piece) => piece.label)).toEqual(['3a', '3b']);
    pieced.forEach((piece) => expect(piece.width).toBeLessThanOrEqual(roll));
  });

  test('strips make up the ply, and lap by what was asked', () => {
    const outline = gore({ length: 3.4, startWidth: 1.2, endWidth: 0.4 });
    const plain = piecesOf(cut(outline, 30), 0.8);
    expect(areaOf(plain)).toBeCloseTo(Math.abs(signedArea(outline)), 6);
    const lapped = piecesOf(cut(strip, 90), 0.8, 0.05);
    expect(lapped).toHaveLength(2);
    expect(areaOf(lapped)).toBeCloseTo(0.3 * (1.4 + 0.05), 9);
  });
});

describe('where a ply lies', () => {
  const part = { outline: rectangle({ length: 2, width: 1 }), holes: [] };
  const box = (x: number, y: number, l: number, w: number) =>
    region(rectangle({ length: l, width: w }).map((p) => ({ x: p.x + x, y: p.y + y })));

  test('drops of 20 mm a ply take 2 (l + w) d - 4 d^2 off each', () => {
    for (const inset of [0, 0.02, 0.04]) {
      const own = plyRegion({ part, own: [part], inset, cutAway: [] });
      expect(regionArea(own)).toBeCloseTo(2 - 6 * inset + 4 * inset * inset, 9);
    }
  });

  test('a patch standing out over the edge is drawn in only inside the part', () => {
    const own = plyRegion({ part, own: box(-0.1, 0.2, 0.5, 0.4), inset: 0.05, cutAway: [] });
    expect(regionArea(own)).toBeCloseTo(0.35 * 0.3, 9);
  });

  test('is cut away where a later zone has a laminate without it', () => {
    const left = plyRegion({ part, own: [part], inset: 0, cutAway: [box(0.5, 0.25, 0.5, 0.5)] });
    expect(plyArea({ ...cut([], 0), region: left })).toBeCloseTo(1.75, 9);
  });
});

describe('nesting on the roll', () => {
  const pieces = (outlines: readonly (readonly Point[])[], roll: number) =>
    outlines.flatMap((outline, i) => piecesOf({ ...cut(outline, 0), order: i + 1 }, roll));
  const ringOf = (points: readonly Point[]) => [points.map(({ x, y }): [number, number] => [x, y])];

  test('four squares two abreast use the roll fully but for the blade', () => {
    const square = rectangle({ length: 0.5, width: 0.49 });
    const { length, usedShare } = nest(pieces([square, square, square, square], 1), 1, 0.005);
    expect(length).toBeCloseTo(1.005, 6);
    expect(usedShare).toBeCloseTo((4 * 0.5 * 0.49) / 1.005, 6);
  });

  test('two right triangles turned into each other take little more than their rectangle', () => {
    const triangle = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 0, y: 0.8 },
    ];
    const { length, placed } = nest(pieces([triangle, triangle], 0.8), 0.8, 0);
    expect(placed.some(({ shape }) => shape.isTurned)).toBe(true);
    expect(length).toBeLessThan(1.02);
  });

  test('random plies: none overlap, none leave the roll, and no less roll is used than their area needs', () => {
    const size = fc.double({ min: 0.1, max: 0.9, noNaN: true });
    const shape = fc
      .tuple(size, size, size)
      .map(([length, startWidth, endWidth]) => trapezoid({ length, startWidth, endWidth }));
    fc.assert(
      fc.property(fc.array(shape, { minLength: 2, maxLength: 9 }), (shapes) => {
        const all = pieces(shapes, 1);
        const { placed, length, tooWide } = nest(all, 1);
        expect(tooWide).toEqual([]);
        expect(placed).toHaveLength(all.length);
        expect(length).toBeGreaterThanOrEqual(areaOf(all));
        const lying = placed.map(({ shape: { outline }, at }) =>
          outline.map(({ x, y }) => ({ x: x + at.x, y: y + at.y })),
        );
        for (const p of lying.flat()) expect(Math.min(p.x, p.y, 1 - p.y)).toBeGreaterThan(-1e-9);
        lying.forEach((a, i) =>
          lying.slice(i + 1).forEach((b) => {
            const common = intersection([ringOf(a)] as never, [ringOf(b)] as never);
            expect(common).toEqual([]);
          }),
        );
      }),
      { seed: 11, numRuns: 40, endOnFailure: true },
    );
  });

  test('what is wider than the roll is told, not lost', () => {
    const wide: CutPiece = { ...pieces([rectangle({ length: 1, width: 0.5 })], 1)[0]!, width: 1.2 };
    expect(nest([wide], 1).tooWide).toEqual([wide]);
    expect(() => nest([wide], NaN)).toThrow(/Roll width/);
    expect(distance(wide.outline[0]!, { x: 0, y: 0 })).toBeGreaterThanOrEqual(0);
  });
});
