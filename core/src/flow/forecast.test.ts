import { describe, expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { disc } from '../test/disc.ts';
import { feedLine as line, plainZone } from '../test/layouts.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest } from './layout.ts';
import { createIsochrones } from './isochrones.ts';
import { valueAt } from './probe.ts';

const base: Omit<ForecastRequest, 'lines' | 'outline'> = {
  holes: [],
  zones: [plainZone({ T: 2e-12, S: 1e-3 })],
  density: 1130,
  feedPressure: 94_000,
  vacuumPressure: 2_000,
  nodeCount: 1500,
};
const ringArea = (ring: number[]) => {
  let twice = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    twice += ring[j] * ring[i + 1] - ring[i] * ring[j + 1];
  return twice / 2;
};

describe('point feed', () => {
  test('fills a disc in the radial time of its own radius, whatever the mesh', () => {
    // Adams & Rebenfeld 1987 with r0 the radius of the point, much smaller than the mesh.
    const [r0, R] = [0.006, 0.5];
    const outline = disc({ diameter: 2 * R, corners: 96 });
    const centre = outline.reduce((sum, p) => ({ x: sum.x + p.x / 96, y: sum.y + p.y / 96 }), { x: 0, y: 0 });
    const lines = [
      line({ points: [centre] }),
      line({ id: 'vent', name: 'Vent', kind: 'vent', points: [...outline, outline[0]] }),
    ];
    const r = 0.4;
    const expected = (1e-3 / (2 * 2e-12 * 92_000)) * (r * r * Math.log(r / r0) - (r * r - r0 * r0) / 2);
    for (const [nodeCount, tolerance] of [
      [800, 0.04],
      [3000, 0.015],
    ]) {
      const forecast = forecastFlow({ ...base, outline, lines, nodeCount });
      const reached = valueAt(forecast.mesh, forecast.arrival, { x: centre.x + r, y: centre.y });
      expect(Math.abs(reached / expected - 1)).toBeLessThan(tolerance);
    }
  });
});

describe('mesh', () => {
  const outline = rectangle({ length: 1, width: 0.4 });
  const at = (x: number) => [
    { x, y: 0 },
    { x, y: 0.4 },
  ];
  const layout = (x: number, drive = 94_000) =>
    forecastFlow({
      ...base,
      outline,
      feedPressure: drive,
      nodeCount: 300,
      lines: [line({ points: at(x) }), line({ id: 'vent', name: 'Vent', kind: 'vent', points: at(1) })],
    });

  test('serves again while no edge moves, and is another when one does', () => {
    const first = layout(0.2);
    const harder = layout(0.2, 140_000);
    expect(harder.mesh).toBe(first.mesh);
    expect(harder.fillTime).toBeLessThan(first.fillTime);
    const moved = layout(0.3);
    expect(moved.mesh).not.toBe(first.mesh);
    expect(layout(0.2).mesh.positions).toEqual(first.mesh.positions);
  });
});

describe('isochrones', () => {
  const outline = rectangle({ length: 1, width: 0.4 });
  const forecast = forecastFlow({
    ...base,
    outline,
    holes: [disc({ diameter: 0.1 }).map((p) => ({ x: p.x + 0.45, y: p.y + 0.15 }))],
    lines: [
      line({
        points: [
          { x: 0, y: 0 },
          { x: 0, y: 0.4 },
        ],
      }),
      line({
        id: 'vent',
        name: 'Vent',
        kind: 'vent',
        points: [
          { x: 1, y: 0 },
          { x: 1, y: 0.4 },
        ],
      }),
    ],
  });
  const isochrones = createIsochrones(forecast.mesh, forecast.arrival);

  test('the wet area matches the resin stored, at every sample', () => {
    for (const { time, stored } of forecast.samples.filter((_, i) => i > 25 && i % 12 === 0)) {
      const area = isochrones.wetBy(time).reduce((sum, ring) => sum + ringArea(ring), 0);
      expect(Math.abs(area * 1e-3 - stored)).toBeLessThan(0.015 * forecast.poreVolume);
    }
  });

  test('in the end it is the outline with its hole', () => {
    const rings = isochrones
      .wetBy(forecast.fillTime)
      .map(ringArea)
      .sort((a, b) => a - b);
    expect(rings).toHaveLength(2);
    expect(rings[1]).toBeCloseTo(0.4, 9);
    expect(rings[0]).toBeCloseTo(-Math.PI * 0.05 ** 2, 6);
    expect(isochrones.wetBy(-1)).toEqual([]);
  });
});

test('a dry region is reported with place and area in the units of the plan', () => {
  const forecast = forecastFlow({
    ...base,
    outline: rectangle({ length: 1, width: 1 }),
    lines: [
      line({
        points: [
          { x: 0.05, y: 0.05 },
          { x: 0.95, y: 0.05 },
          { x: 0.95, y: 0.95 },
          { x: 0.05, y: 0.95 },
          { x: 0.05, y: 0.05 },
        ],
      }),
      line({ id: 'vent', name: 'Vent', kind: 'vent', points: [{ x: 0, y: 0 }] }),
    ],
  });
  // The rim outside the ring may cut off slivers of its own; the middle is the first and by far the largest.
  const [region, ...slivers] = forecast.dryRegions;
  expect(region.place.x).toBeCloseTo(0.5, 1);
  expect(region.place.y).toBeCloseTo(0.5, 1);
  expect(region.area).toBeGreaterThan(0.5);
  for (const sliver of slivers) expect(sliver.area).toBeLessThan(0.03);
  // Boyle at the feed's own pressure, to the 2 % a step's gas is balanced to.
  expect(Math.abs(region.finalArea / ((region.area * 2_000) / 94_000) - 1)).toBeLessThan(0.04);
});

describe('the drawn front', () => {
  const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.5 }), nodeCount: 400 });
  /** A straight front at x = 0.5 whose arrival is off by up to a fifth of an edge at every node. */
  const noise = (i: number) => 0.2 * mesh.edgeLength * Math.sin(12.9898 * (i + 1) * (i + 3));
  const arrival = Float64Array.from({ length: mesh.nodeCount }, (_, i) => mesh.positions[3 * i] + noise(i));
  const [ring] = createIsochrones(mesh, arrival).wetBy(0.5);
  type Place = { x: number; y: number };
  /** Points of the front within the part, from its lower to its upper end. */
  const inside = (points: Place[]) =>
    points.filter(({ x, y }) => x > 0.3 && y > 0.02 && y < 0.48).sort((a, b) => a.y - b.y);
  const front = inside(ring.flatMap((x, k) => (k % 2 === 0 ? [{ x, y: ring[k + 1] }] : [])));
  /** How much longer than the straight line between its ends. */
  const wander = (points: Place[]) => {
    const length = points
      .slice(1)
      .reduce((sum, p, i) => sum + Math.hypot(p.x - points[i].x, p.y - points[i].y), 0);
    const [first, last] = [points[0], points[points.length - 1]];
    return length / Math.hypot(last.x - first.x, last.y - first.y) - 1;
  };
  /** Where the front cuts the edges of the triangles, as the nodes have it. */
  const cuts = new Map<string, Place>();
  mesh.triangles.forEach((i, e) => {
    const j = mesh.triangles[e - (e % 3) + ((e + 1) % 3)];
    const share = (0.5 - arrival[i]) / (arrival[j] - arrival[i]);
    const at = (k: number) =>
      mesh.positions[3 * i + k] + share * (mesh.positions[3 * j + k] - mesh.positions[3 * i + k]);
    if (share >= 0 && share < 1) cuts.set([i, j].sort((a, b) => a - b).join(), { x: at(0), y: at(1) });
  });

  test('wanders less than half as far as the nodes have it', () => {
    const raw = wander(inside([...cuts.values()]));
    expect(raw).toBeGreaterThan(0);
    expect(wander(front) / raw).toBeLessThan(0.45);
    expect(wander(front)).toBeLessThan(0.008);
  });

  test('keeps its place and its area', () => {
    front.forEach(({ x }) => expect(Math.abs(x - 0.5)).toBeLessThan(0.2 * mesh.edgeLength));
    expect(ringArea(ring)).toBeCloseTo(0.25, 2);
  });
});
