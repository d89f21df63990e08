import { describe, expect, test } from '@jest/globals';
import { axes, turned } from '../test/ellipse.ts';
import type { Mesh } from '../geometry/mesh.ts';
import { stretchOf } from './stretch.ts';

describe('a front in an uneven laminate', () => {
  test.each([
    [10, 0.4],
    [20, 0],
    [20, 1.2],
  ])('K1/K2 = %d turned by %d: an ellipse of axes sqrt(K1/K2), within 2 %%', (ratio, angle) => {
    // Weitzenboeck et al. 1999; the feed is round, which costs half a per cent.
    expect(Math.abs(axes(ratio, angle, 3000) / Math.sqrt(ratio) - 1)).toBeLessThan(0.02);
  });

  test('a plan is stretched by the fourth root each way, and laid back as it was', () => {
    const layer = { name: '', storage: 1e-3, toNext: 0, isSoft: true };
    expect(stretchOf([{ ...layer, transmissibility: turned(1.3, 1) }])).toBeNull();
    const { of } = stretchOf([{ ...layer, transmissibility: turned(16, 0) }])!;
    expect(of({ x: 1, y: 1 }).x).toBeCloseTo(0.5, 12);
    expect(of({ x: 1, y: 1 }).y).toBeCloseTo(2, 12);
    const tilted = stretchOf([{ ...layer, transmissibility: turned(16, 0.7) }])!;
    const there = tilted.of({ x: 0.3, y: -0.2 });
    const mesh = { positions: Float64Array.of(there.x, there.y, 0) } as Mesh;
    expect(tilted.back(mesh).positions[0]).toBeCloseTo(0.3, 12);
    expect(tilted.back(mesh).positions[1]).toBeCloseTo(-0.2, 12);
  });
});
