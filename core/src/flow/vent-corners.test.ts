import { describe, expect, test } from '@jest/globals';
import { rectangle } from '../geometry/shapes.ts';
import type { Point } from '../geometry/polygon.ts';
import { feedLine, plainZone } from '../test/layouts.ts';
import { forecastFlow } from './forecast.ts';
import { cornersBetweenVents } from './vent-corners.ts';

const vent = (id: string, ...points: Point[]) => feedLine({ id, name: id, kind: 'vent', points });
const at = (x: number, y: number) => ({ x, y });
const [a, b, c, d] = [at(0, 0), at(0.6, 0), at(0.6, 0.6), at(0, 0.6)];
const places = (...lines: ReturnType<typeof vent>[]) =>
  cornersBetweenVents(lines, 0.36).map(({ place }) => place);

describe('corners between vents', () => {
  test('are where one turns or two meet, and where one runs back into itself', () => {
    expect(places(vent('v', a, b, c))).toEqual([b]);
    expect(places(vent('v', a, b), vent('w', c, b))).toEqual([b]);
    expect(places(vent('v', a, b, c, d, a))).toEqual([a, b, c, d]);
  });

  test('are none where they run straight on, end, or stand alone', () => {
    expect(places(vent('v', a, at(0.3, 0), b))).toEqual([]);
    expect(places(vent('v', a, at(0.3, 0)), vent('w', at(0.3, 0), b))).toEqual([]);
    expect(places(vent('v', a, at(0.3, 0.02), b), vent('p', c))).toEqual([]);
    expect(places(feedLine({ points: [a, b, c] }))).toEqual([]);
  });

  test('reach 20 mm, on a small part a twentieth of its size', () => {
    const reach = (area: number) => {
      const [{ place, rim }] = cornersBetweenVents([vent('v', a, b, c)], area) as [
        ReturnType<typeof cornersBetweenVents>[number],
      ];
      return Math.hypot(rim[0]!.x - place.x, rim[0]!.y - place.y);
    };
    expect(reach(0.36)).toBeCloseTo(0.02, 12);
    expect(reach(0.01)).toBeCloseTo(0.005, 12);
  });
});

describe('a plate fed in its middle with vents all round', () => {
  const plate = (nodeCount: number, lines = [vent('Ring', a, b, c, d, a)]) =>
    forecastFlow({
      outline: rectangle({ length: 0.6, width: 0.6 }),
      holes: [],
      lines: [feedLine({ points: [at(0.3, 0.3)] }), ...lines],
      zones: [plainZone({ T: 1.5e-12, S: 1e-3 })],
      feedPressure: 94_000,
      vacuumPressure: 2000,
      density: 1130,
      nodeCount,
    });

  test('has a fill time that a finer mesh does not move on and on, and says what stays dry', () => {
    const [coarse, middle, fine] = [640, 2500, 6000].map((n) => plate(n));
    for (const { isFilled, findings } of [coarse!, middle!, fine!]) {
      expect(isFilled).toBe(true);
      expect(findings).toContainEqual({
        kind: 'cornersBetweenVents',
        count: 4,
        reach: expect.closeTo(0.02, 9),
      });
    }
    // The differences fall: waited for to the last node they were 2800 and 2600 s, and 50 % of the whole.
    expect(Math.abs(middle!.fillTime / fine!.fillTime - 1)).toBeLessThan(0.04);
    expect(Math.abs(coarse!.fillTime / fine!.fillTime - 1)).toBeLessThan(0.1);
  });

  test('with vents that are clamped once resin is there has no such corner', () => {
    const edge = (id: string, from: Point, to: Point) => ({
      ...vent(id, from, to),
      actions: [
        {
          opening: 0,
          when: { kind: 'passed' as const, what: id, at: 'first' as const, distance: 0, delay: 0 },
        },
      ],
    });
    const { findings } = plate(640, [edge('S', a, b), edge('E', b, c), edge('N', c, d), edge('W', d, a)]);
    expect(findings.map(({ kind }) => kind)).not.toContain('cornersBetweenVents');
  });
});
