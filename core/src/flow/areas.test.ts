import { describe, expect, test } from '@jest/globals';
import { rectangle } from '../geometry/shapes.ts';
import { feedLine as line, plainZone, stripEnds } from '../test/layouts.ts';
import { createAreas } from './footprint.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest, LayoutLine } from './layout.ts';

const T = 2e-12;
const S = 1e-3;
const base: Omit<ForecastRequest, 'lines' | 'outline'> = {
  holes: [],
  zones: [plainZone({ T, S })],
  density: 1130,
  feedPressure: 94_000,
  vacuumPressure: 2_000,
  nodeCount: 900,
};
const outline = rectangle({ length: 0.8, width: 0.5 });
const ring = [
  { x: 0, y: 0 },
  { x: 0.8, y: 0 },
  { x: 0.8, y: 0.5 },
  { x: 0, y: 0.5 },
  { x: 0, y: 0 },
];
/** Beside the middle, so that the last of the air is shut in. */
const vent = line({ id: 'vent', name: 'Vent', kind: 'vent', points: [{ x: 0.3, y: 0.25 }], bore: 0.008 });

describe('dry areas', () => {
  test('a place is as dry as the driest of its nodes, and what lies off the part counts for nothing', () => {
    const areaOf = createAreas({ placeOf: Int32Array.of(0, 1, 0, 1, -1), area: Float64Array.of(2, 3) });
    const level = Float64Array.of(1, 0.5, 0.25, 0.75, 0);
    expect(areaOf(level.keys(), level)).toBeCloseTo(2 * 0.75 + 3 * 0.5, 12);
    expect(areaOf([0, 4], level)).toBe(0);
    expect(createAreas()([0], level)).toBeNaN();
  });

  test('a ring feed shuts in the same area whatever the bore of its line', () => {
    // The widest line holds three times what the laminate does. The time of shutting in is told to a sixteenth of a step.
    const shut = (bore: number, hose?: { length: number; bore: number }) => {
      const feed = line({ points: ring, bore, hose });
      const [region] = forecastFlow({ ...base, outline, lines: [feed, vent] }).dryRegions;
      return region!.area;
    };
    const ideal = shut(0.01);
    for (const bore of [0.012, 0.025])
      expect(Math.abs(shut(bore, { length: 0.3, bore: 0.025 }) / ideal - 1)).toBeLessThan(0.15);
  });

  test('and the same when the other half, beyond a feed, is three times thicker', () => {
    const half = { x: 0.8, y: 0 };
    const shut = (thick: number) => {
      const zones: ForecastRequest['zones'] = [
        plainZone({ T, S }),
        plainZone({ T: thick * T, S: thick * S, outline: outline.map((p) => ({ x: p.x + half.x, y: p.y })) }),
      ];
      const moved = (points: typeof ring) => points.map((p) => ({ x: p.x + half.x, y: p.y }));
      return forecastFlow({
        ...base,
        zones,
        outline: rectangle({ length: 1.6, width: 0.5 }),
        lines: [
          line({ points: ring }),
          line({ id: 'feed-2', name: 'Feed 2', points: moved(ring) }),
          vent,
          { ...vent, id: 'vent-2', name: 'Vent 2', points: moved(vent.points as typeof ring) },
        ],
      });
    };
    const areas = ({ dryRegions }: ReturnType<typeof shut>) =>
      [...dryRegions].sort((p, q) => p.place.x - q.place.x).map(({ area }) => area);
    const [even, thick] = [shut(1), shut(3)];
    expect(areas(even)).toHaveLength(2);
    areas(thick).forEach((area, n) => expect(Math.abs(area / areas(even)[n]! - 1)).toBeLessThan(0.02));
    const last = thick.samples[thick.samples.length - 1]!;
    const left = thick.dryRegions.reduce((sum, region) => sum + region.finalArea, 0);
    expect(last.wet).toBeCloseTo(1 - left / 0.8, 3);
  });
});

describe('a run that slows', () => {
  const stripLines = (length: number, width: number, feed: Partial<LayoutLine>): LayoutLine[] => {
    const [own, end] = stripEnds(length, width);
    return [{ ...own!, ...feed }, end!];
  };
  const strip = (
    hose: { length: number; bore: number },
    bore: number,
    tightness = 1,
    resin?: ForecastRequest['resin'],
  ) =>
    forecastFlow({
      ...base,
      resin,
      zones: [plainZone({ T: T / tightness, S })],
      nodeCount: 640,
      outline: rectangle({ length: 3, width: 1 }),
      lines: stripLines(3, 1, { bore, hose }),
    });

  test('is no run that stalls: behind a line that fills at once the strip takes its own time', () => {
    // Darcy on the strip; the line and its hose take next to nothing of the pressure.
    const expected = (S * 9) / (2 * T * 92_000);
    for (const [length, bore] of [
      [3, 0.012],
      [0.5, 0.016],
      [0.1, 0.025],
    ] as const) {
      const flow = strip({ length, bore }, 0.02);
      expect(flow.isFilled).toBe(true);
      expect(Math.abs(flow.fillTime / expected - 1)).toBeLessThan(0.03);
    }
  });

  test.each([100, 10_000])('nor behind a laminate %d times as tight, which slows it as much', (tightness) => {
    const flow = strip({ length: 0.5, bore: 0.016 }, 0.02, tightness);
    expect(flow.isFilled).toBe(true);
    expect(Math.abs(flow.fillTime / ((tightness * S * 9) / (2 * T * 92_000)) - 1)).toBeLessThan(0.03);
  });

  test('nor with a resin of its own, which a lull of a moment has no time to gel in', () => {
    const viscosity = 0.3;
    const flow = strip({ length: 0.5, bore: 0.016 }, 0.02, 100, {
      law: { gelState: 1, rate: () => 1e-12, viscosity: () => viscosity },
      temperature: () => 293,
      inletState: () => 0,
    });
    expect(flow.isFilled).toBe(true);
    expect(Math.abs(flow.fillTime / ((100 * viscosity * S * 9) / (2 * T * 92_000)) - 1)).toBeLessThan(0.03);
  });

  test('a run whose feeds are all shut for good does stall', () => {
    const shut = { id: 'shut', opening: 0, when: { kind: 'drawn' as const, volume: 2e-4, delay: 0 } };
    const flow = forecastFlow({
      ...base,
      outline,
      lines: stripLines(0.8, 0.5, { actions: [shut] }),
    });
    expect(flow.isFilled).toBe(false);
    expect(flow.samples.length).toBeLessThan(200);
  });
});
