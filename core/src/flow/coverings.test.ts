import { describe, expect, test } from '@jest/globals';
import { polygonOf } from '../geometry/arcs.ts';
import { rectangle } from '../geometry/shapes.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest, LayoutLine } from './layout.ts';

const outline = polygonOf(rectangle({ length: 1, width: 0.2 }));
const line = (id: string, kind: 'feed' | 'vent', points: LayoutLine['points']): LayoutLine => ({
  id,
  name: id,
  kind,
  points,
  bore: 0.012,
  hose: null,
  startsOpen: true,
  actions: [],
});
const layer = (transmissibility: number, storage: number) => ({
  name: 'Averaged',
  transmissibility: { xx: transmissibility, yy: transmissibility, xy: 0 },
  storage,
  toNext: 0,
  isSoft: true,
});
const DROP = 9e4;
const meshed = { T: 4e-12, S: 1.4e-3 };
const bare = { T: 5e-13, S: 1e-3 };
const request = (changes: Partial<ForecastRequest> = {}): ForecastRequest => ({
  outline,
  holes: [],
  lines: [
    line('feed', 'feed', [
      { x: 0, y: 0 },
      { x: 0, y: 0.2 },
    ]),
    line('vent', 'vent', [
      { x: 1, y: 0 },
      { x: 1, y: 0.2 },
    ]),
  ],
  zones: [
    {
      name: 'Base',
      outline: null,
      layers: [layer(meshed.T, meshed.S)],
      soft: null,
      thickness: 3e-3,
      uncovered: [{ layers: [layer(bare.T, bare.S)], soft: null }],
    },
  ],
  feedPressure: DROP + 2000,
  vacuumPressure: 2000,
  density: 1100,
  nodeCount: 1500,
  ...changes,
});
const meshTo = (x: number) => ({ outline: polygonOf(rectangle({ length: x, width: 0.2 })), holes: [] });

describe('mesh that lies within areas only', () => {
  test('ends where the area ends: two zones in series, their resistances add (Darcy)', () => {
    const length = 0.6;
    const flow = forecastFlow(request({ coverings: [[meshTo(length)]] }));
    // Mesh: S x^2 / (2 T dp). Bare: each metre meets the mesh's resistance and its own.
    const first = (meshed.S * length ** 2) / (2 * meshed.T * DROP);
    const beyond = 1 - length;
    const second = (bare.S / DROP) * ((length * beyond) / meshed.T + beyond ** 2 / (2 * bare.T));
    expect(Math.abs(flow.fillTime / (first + second) - 1)).toBeLessThan(0.01);
  });

  test('of two coverings each ends where it ends: three zones in series', () => {
    const [base] = request().zones;
    const both = { T: meshed.T + 2e-12, S: meshed.S + 3e-4 };
    const only = ({ T, S }: typeof bare) => ({ layers: [layer(T, S)], soft: null });
    const flow = forecastFlow(
      request({
        zones: [{ ...base, ...only(both), uncovered: [only({ T: 0, S: 0 }), only(meshed), only(bare)] }],
        coverings: [[meshTo(0.7)], [meshTo(0.3)]],
      }),
    );
    // Each stretch meets the resistance of those before it and its own.
    const stretches = [both, meshed, bare].map((sheet, n) => ({ ...sheet, length: [0.3, 0.4, 0.3][n]! }));
    let [time, before] = [0, 0];
    for (const { T, S, length } of stretches) {
      time += (S / DROP) * (length * before + length ** 2 / (2 * T));
      before += length / T;
    }
    expect(Math.abs(flow.fillTime / time - 1)).toBeLessThan(0.01);
  });

  test('with no area it lies everywhere; an area over all of the part is the same', () => {
    const plain = forecastFlow(request());
    const covered = forecastFlow(request({ coverings: [[{ ...meshTo(3), holes: [] }]] }));
    expect(plain.fillTime / ((meshed.S * 1) / (2 * meshed.T * DROP))).toBeCloseTo(1, 2);
    expect(covered.fillTime / plain.fillTime).toBeCloseTo(1, 6);
  });

  test('a zone trigger means the zone whether mesh lies on it or not', () => {
    const far = polygonOf(rectangle({ length: 0.3, width: 0.2 })).map((p) => ({ x: p.x + 0.7, y: p.y }));
    const [base] = request().zones;
    const waiting = request({
      zones: [base, { ...base, name: 'Far', outline: far }],
      coverings: [[meshTo(0.85)]],
      lines: [
        ...request().lines,
        {
          ...line('late', 'feed', [{ x: 0.3, y: 0.1 }]),
          startsOpen: false,
          actions: [{ opening: 1, when: { kind: 'zoneFull', zone: 1, delay: 0 } }],
        },
      ],
    });
    const flow = forecastFlow(waiting);
    const opened = flow.events.find(({ lineId, kind }) => lineId === 'late' && kind === 'opens');
    expect(opened!.filled).toBeGreaterThan(0.97);
  });

  test('resin stored is what the areas hold', () => {
    const flow = forecastFlow(request({ coverings: [[meshTo(0.5)]] }));
    expect(flow.poreVolume).toBeCloseTo(0.2 * 0.5 * (meshed.S + bare.S), 8);
    expect(flow.massError).toBeLessThan(1e-6);
  });
});

test('a vent all round does not wait for corners that vacuum stands on both sides of', () => {
  const flow = forecastFlow(
    request({
      lines: [
        line('feed', 'feed', [
          { x: 0.2, y: 0.1 },
          { x: 0.8, y: 0.1 },
        ]),
        line('vent', 'vent', [...outline, outline[0]!]),
      ],
      nodeCount: 400,
    }),
  );
  expect(flow.isFilled).toBe(true);
  expect(flow.dryRegions).toEqual([]);
  // Nor is such a corner the last place, however late it is.
  const corner = Math.min(...outline.map((p) => Math.hypot(p.x - flow.lastPlace.x, p.y - flow.lastPlace.y)));
  expect(corner).toBeGreaterThan(1e-6);
});
