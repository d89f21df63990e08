import { describe, expect, test } from '@jest/globals';
import { forecastFlow } from '@wick/core/flow/forecast';
import { createIsochrones } from '@wick/core/flow/isochrones';
import { valueAt } from '@wick/core/flow/probe';
import { rectangle } from '@wick/core/geometry/shapes';
import { bandsOf, type BandRequest } from './bands.ts';

const line = { bore: 0.01, startsOpen: true, actions: [] };
const flow = forecastFlow({
  outline: rectangle({ length: 1, width: 0.3 }),
  holes: [],
  lines: [
    {
      ...line,
      id: 'feed',
      name: 'Feed',
      kind: 'feed',
      points: [
        { x: 0, y: 0 },
        { x: 0, y: 0.3 },
      ],
    },
    {
      ...line,
      id: 'vent',
      name: 'Vent',
      kind: 'vent',
      points: [
        { x: 1, y: 0 },
        { x: 1, y: 0.3 },
      ],
    },
  ],
  zones: [
    {
      name: 'Base',
      outline: null,
      soft: null,
      thickness: 2e-3,
      layers: [
        {
          name: 'Averaged',
          transmissibility: { xx: 2e-12, yy: 2e-12, xy: 0 },
          storage: 1e-3,
          toNext: 0,
          isSoft: true,
        },
      ],
    },
  ],
  density: 1100,
  feedPressure: 94_000,
  vacuumPressure: 2000,
  nodeCount: 500,
});
/** Constant viscosity of 1 Pa s: a fluidity time is a second, counted from the opening. */
const request = (changes: Partial<BandRequest> = {}): BandRequest => ({
  mesh: flow.mesh,
  arrival: flow.arrival,
  isochrones: createIsochrones(flow.mesh, flow.arrival),
  openTime: 600,
  endTime: 600 + flow.fillTime,
  runTimeAt: (time) => time - 600,
  ...changes,
});
const areaOf = (rings: number[][]) =>
  rings.reduce((sum, ring) => {
    let twice = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
    return sum + twice / 2;
  }, 0);

describe('bands of the front', () => {
  const bands = bandsOf(request());

  test('are few, at round minutes, the last one the whole part', () => {
    expect(bands.length).toBeGreaterThan(3);
    expect(bands.length).toBeLessThan(12);
    expect(areaOf(bands[0]!.rings)).toBeCloseTo(0.3, 6);
    for (const band of bands.slice(1)) expect(band.until % 60).toBe(0);
  });

  test('are painted largest first, each inside the one before', () => {
    const areas = bands.map((band) => areaOf(band.rings));
    for (let i = 1; i < areas.length; i++) expect(areas[i]!).toBeLessThan(areas[i - 1]!);
  });

  test('carry their minute where it belongs: between their own front and the earlier one', () => {
    bands.slice(0, -1).forEach((band, i) => {
      const arrival = 600 + valueAt(flow.mesh, flow.arrival, band.labelAt!);
      expect(arrival).toBeLessThanOrEqual(band.until + 1e-6);
      expect(arrival).toBeGreaterThanOrEqual(bands[i + 1]!.until - 1e-6);
    });
  });

  test('there are none when nothing can flow before gel', () => {
    expect(bandsOf(request({ endTime: 600 }))).toEqual([]);
    expect(bandsOf(request({ endTime: NaN }))).toEqual([]);
  });
});
