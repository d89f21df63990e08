import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allNodes } from '../geometry/mesh-places.ts';
import { meshPart, type Mesh } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import { rectangle } from '../geometry/shapes.ts';
import { disc } from '../test/disc.ts';
import { fill } from './fill.ts';
import type { FillResult } from './fill-types.ts';
import { plainGates } from '../test/plain-gates.ts';
import { sheetNetwork } from './network.ts';
import { uniformSheet, type SheetProperties } from './sheet.ts';
import { valueAt } from './probe.ts';

const T = 1.5e-12; // permeability x thickness, m3
const S = 1.2e-3; // porosity x thickness, m
const DROP = 9e4;

interface Line {
  name: string;
  kind: 'feed' | 'vent';
  points: Point[];
  opens?: 'atStart' | 'whenReached';
  closesWhenReached?: boolean;
}

function run(setup: {
  outline: Point[];
  holes?: Point[][];
  lines: Line[];
  nodeCount?: number;
  sheet?: (mesh: Mesh) => SheetProperties;
  extraLines?: { name: string; points: Point[]; isDriven: false }[];
  drop?: number;
  vacuum?: number;
  steps?: number;
}): { mesh: Mesh; result: FillResult } {
  const {
    outline,
    holes,
    lines,
    nodeCount = 2000,
    extraLines = [],
    drop = DROP,
    vacuum = 2000,
    steps,
  } = setup;
  const mesh = meshPart({ outline, holes, lines: [...lines, ...extraLines], nodeCount });
  const sheet =
    setup.sheet?.(mesh) ?? uniformSheet(mesh.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: S });
  const { gates, actions } = plainGates(
    lines.map((line, index) => ({ ...line, nodes: mesh.lineNodes[index] })),
  );
  const network = sheetNetwork(mesh, sheet);
  return {
    mesh,
    result: fill({
      network,
      gates,
      actions,
      vacuumPressure: vacuum,
      feedPressure: vacuum + drop,
      steps,
      footprint: {
        placeOf: allNodes(mesh),
        area: sheetNetwork(mesh, uniformSheet(mesh.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: 1 }))
          .storage,
      },
    }),
  };
}

const stripLines = (length: number, width: number): Line[] => [
  {
    name: 'Feed',
    kind: 'feed',
    points: [
      { x: 0, y: 0 },
      { x: 0, y: width },
    ],
  },
  {
    name: 'Vent',
    kind: 'vent',
    points: [
      { x: length, y: 0 },
      { x: length, y: width },
    ],
  },
];
const strip = (nodeCount = 2000, drop = DROP, steps?: number) =>
  run({ outline: rectangle({ length: 1, width: 0.2 }), lines: stripLines(1, 0.2), nodeCount, drop, steps });
/** Darcy on a strip, in fluidity time: t = S x^2 / (2 T dp). Rudd et al. 1997. */
const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);

describe('against closed forms', () => {
  test('strip: within 0.5 % at 2000 nodes', () => {
    const { mesh, result } = strip(2000, DROP, 200);
    for (const x of [0.4, 0.5, 0.6, 0.7, 0.8, 0.9])
      expect(Math.abs(valueAt(mesh, result.arrival, { x, y: 0.1 }) / stripTime(x) - 1)).toBeLessThan(5e-3);
    expect(Math.abs(result.fillTime / stripTime(1) - 1)).toBeLessThan(5e-3);
    expect(result.isFilled).toBe(true);
    expect(result.trapped).toEqual([]);
  });

  test('two zones in series: within 0.5 %', () => {
    // Resistances add: t = S1 L1^2/(2 T1 dp) + S2/dp [(L1/T1) d + d^2/(2 T2)], d the distance into the second zone (Darcy).
    const [T2, S2, L1] = [4e-13, 0.8e-3, 0.4];
    const { mesh, result } = run({
      outline: rectangle({ length: 1, width: 0.2 }),
      lines: stripLines(1, 0.2),
      steps: 200,
      extraLines: [
        {
          name: 'joint',
          isDriven: false,
          points: [
            { x: L1, y: 0 },
            { x: L1, y: 0.2 },
          ],
        },
      ],
      sheet: (made) => {
        const sheet = uniformSheet(made.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: S });
        for (let t = 0; t < made.triangles.length / 3; t++) {
          const x = [0, 1, 2].reduce((sum, k) => sum + made.positions[3 * made.triangles[3 * t + k]] / 3, 0);
          if (x < L1) continue;
          sheet.transmissibility.set([T2, T2, 0], 3 * t);
          sheet.storage[t] = S2;
        }
        return sheet;
      },
    });
    const expected = (x: number) => {
      const d = x - L1;
      return d <= 0 ? stripTime(x) : stripTime(L1) + (S2 / DROP) * ((L1 / T) * d + (d * d) / (2 * T2));
    };
    for (const x of [0.35, 0.5, 0.6, 0.7, 0.8, 0.9])
      expect(Math.abs(valueAt(mesh, result.arrival, { x, y: 0.1 }) / expected(x) - 1)).toBeLessThan(5e-3);
    expect(Math.abs(result.fillTime / expected(1) - 1)).toBeLessThan(5e-3);
  });

  test('radial from r0: within 2 %', () => {
    // t = S/(2 T dp) [r^2 ln(r/r0) - (r^2 - r0^2)/2]. Adams & Rebenfeld 1987.
    const [r0, R] = [0.05, 0.5];
    const hole = disc({ diameter: 2 * r0 }).map((p) => ({ x: p.x + R - r0, y: p.y + R - r0 }));
    const outline = disc({ diameter: 2 * R, corners: 96 });
    const { mesh, result } = run({
      outline,
      holes: [hole],
      lines: [
        { name: 'Feed', kind: 'feed', points: [...hole, hole[0]] },
        { name: 'Vent', kind: 'vent', points: [...outline, outline[0]] },
      ],
    });
    const centre = {
      x: outline.reduce((s, p) => s + p.x, 0) / 96,
      y: outline.reduce((s, p) => s + p.y, 0) / 96,
    };
    for (const r of [0.15, 0.2, 0.3, 0.4, 0.45])
      for (const angle of [0.3, 2, 4]) {
        const expected = (S / (2 * T * DROP)) * (r * r * Math.log(r / r0) - (r * r - r0 * r0) / 2);
        const ours = valueAt(mesh, result.arrival, {
          x: centre.x + r * Math.cos(angle),
          y: centre.y + r * Math.sin(angle),
        });
        expect(Math.abs(ours / expected - 1)).toBeLessThan(0.02);
      }
  });

  test('anisotropic, rotated: the front from a small feed is an ellipse of axes sqrt(K1/K2)', () => {
    // Weitzenboeck et al. 1999. Sides measured at equal arrival time; K1 = 4 K2 turned by 30 degrees.
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const [k1, k2] = [4e-12, 1e-12];
    const outline = rectangle({ length: 1, width: 1 });
    const hole = disc({ diameter: 0.04, corners: 16 }).map((p) => ({ x: p.x + 0.48, y: p.y + 0.48 }));
    const { mesh, result } = run({
      outline,
      holes: [hole],
      lines: [
        { name: 'Feed', kind: 'feed', points: [...hole, hole[0]] },
        { name: 'Vent', kind: 'vent', points: [...outline, outline[0]] },
      ],
      nodeCount: 4000,
      sheet: (made) =>
        uniformSheet(made.triangles.length / 3, {
          xx: k1 * c * c + k2 * s * s,
          yy: k1 * s * s + k2 * c * c,
          xy: (k1 - k2) * c * s,
          storage: S,
        }),
    });
    const along = (r: number) => valueAt(mesh, result.arrival, { x: 0.5 + r * c, y: 0.5 + r * s });
    const across = (r: number) => valueAt(mesh, result.arrival, { x: 0.5 - r * s, y: 0.5 + r * c });
    const target = along(0.36);
    let [low, high] = [0.05, 0.4];
    for (let i = 0; i < 40; i++) {
      const middle = (low + high) / 2;
      if (across(middle) < target) low = middle;
      else high = middle;
    }
    expect(Math.abs(0.36 / low / 2 - 1)).toBeLessThan(0.05);
  });
});

describe('properties', () => {
  test('resin in equals resin stored and vented, to 1e-6 a step', () => {
    const { result } = strip();
    expect(result.massError).toBeLessThan(1e-6);
    for (const { entered, stored, vented } of result.samples.slice(1))
      expect(Math.abs(entered - stored - vented)).toBeLessThan(1e-6 * entered);
    expect(result.samples[result.samples.length - 1].stored).toBeCloseTo(0.2 * S, 9);
  });

  test('refinement converges on the strip', () => {
    const error = (nodeCount: number) => Math.abs(strip(nodeCount).result.fillTime / stripTime(1) - 1);
    expect(error(4000)).toBeLessThan(2e-3);
    expect(error(4000)).toBeLessThan(error(300));
  });

  test('half the pressure takes twice the time', () => {
    const [full, half] = [strip(600), strip(600, DROP / 2)];
    expect(half.result.fillTime / full.result.fillTime).toBeCloseTo(2, 6);
  });

  test('arrival does not depend on the number of steps by more than 1 %', () => {
    const at = (steps: number) =>
      run({ outline: rectangle({ length: 1, width: 0.2 }), lines: stripLines(1, 0.2), nodeCount: 800, steps })
        .result.fillTime;
    expect(Math.abs(at(40) / at(160) - 1)).toBeLessThan(0.01);
  });

  test('over random layouts: mass balances, and every wet node has a neighbour wet earlier or lies on a feed', () => {
    const inside = fc.record({
      x: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      y: fc.double({ min: 0.1, max: 0.5, noNaN: true }),
    });
    fc.assert(
      fc.property(inside, inside, (a, b) => {
        const { mesh, result } = run({
          outline: rectangle({ length: 1, width: 0.6 }),
          lines: [
            { name: 'Feed', kind: 'feed', points: [a, b] },
            {
              name: 'Vent',
              kind: 'vent',
              points: [
                { x: 1, y: 0 },
                { x: 1, y: 0.6 },
              ],
            },
          ],
          nodeCount: 400,
        });
        expect(result.massError).toBeLessThan(1e-6);
        const earliest = new Float64Array(mesh.nodeCount).fill(Infinity);
        mesh.triangles.forEach((i, e) => {
          for (const k of [1, 2]) {
            const j = mesh.triangles[e - (e % 3) + ((e + k) % 3)];
            earliest[i] = Math.min(
              earliest[i],
              Number.isNaN(result.arrival[j]) ? Infinity : result.arrival[j],
            );
          }
        });
        const feed = new Set(mesh.lineNodes[0]);
        result.arrival.forEach((time, i) => {
          if (!feed.has(i) && time > 0) expect(earliest[i]).toBeLessThanOrEqual(time * 1.02);
        });
      }),
      { numRuns: 12, seed: 3, endOnFailure: true },
    );
  });
});

describe('dry regions and gates', () => {
  const plate = rectangle({ length: 1, width: 1 });
  const threeSides: Line = {
    name: 'Feed',
    kind: 'feed',
    points: [
      { x: 0, y: 0.1 },
      { x: 0, y: 1 },
      { x: 1, y: 1 },
      { x: 1, y: 0.1 },
    ],
  };

  test('a plate fed on three sides, vented only at two corners, traps air: place, area and time are told', () => {
    const { result, mesh } = run({
      outline: plate,
      lines: [
        threeSides,
        {
          name: 'Vent left',
          kind: 'vent',
          closesWhenReached: true,
          points: [
            { x: 0.02, y: 0 },
            { x: 0.08, y: 0 },
          ],
        },
        {
          name: 'Vent right',
          kind: 'vent',
          closesWhenReached: true,
          points: [
            { x: 0.92, y: 0 },
            { x: 0.98, y: 0 },
          ],
        },
      ],
    });
    expect(result.trapped).toHaveLength(1);
    const [region] = result.trapped;
    const xs = Array.from(region.nodes, (i) => mesh.positions[3 * i]);
    const ys = Array.from(region.nodes, (i) => mesh.positions[3 * i + 1]);
    const mean = (values: number[]) => values.reduce((a, b) => a + b) / values.length;
    expect(mean(xs)).toBeCloseTo(0.5, 1);
    expect(mean(ys)).toBeLessThan(0.5);
    expect(region.volume / S).toBeGreaterThan(0.3);
    expect(region.time).toBeGreaterThan(0);
    expect(region.time).toBeLessThan(result.fillTime);
    // Boyle: trapped at 20 mbar, and with the vents clamped all comes to rest at the feed's 920 mbar; 2 % is the step's own tolerance.
    expect(Math.abs(region.finalVolume / region.volume / (2000 / 92_000) - 1)).toBeLessThan(0.03);
    expect(Math.abs(region.finalPressure / 92_000 - 1)).toBeLessThan(0.03);
    for (const { area } of region.history) expect(area).toBeLessThanOrEqual(region.area);
    // One storage everywhere: the area is the volume over it.
    expect(region.area).toBeCloseTo(region.volume / S, 9);
    expect(Number.isNaN(result.arrival[region.voidNodes[0]])).toBe(true);
  });

  test('with a vent in the middle of the fourth side nothing is trapped', () => {
    const { result } = run({
      outline: plate,
      lines: [
        threeSides,
        {
          name: 'Vent',
          kind: 'vent',
          points: [
            { x: 0.3, y: 0 },
            { x: 0.7, y: 0 },
          ],
        },
      ],
    });
    expect(result.trapped).toEqual([]);
    expect(result.isFilled).toBe(true);
  });

  test('a second feed that opens when the front passes it shortens the fill', () => {
    const second: Line = {
      name: 'Feed 2',
      kind: 'feed',
      points: [
        { x: 0.5, y: 0 },
        { x: 0.5, y: 0.2 },
      ],
      opens: 'whenReached',
    };
    const { result } = run({
      outline: rectangle({ length: 1, width: 0.2 }),
      lines: [...stripLines(1, 0.2), second],
      nodeCount: 1000,
    });
    const opened = result.events.find((event) => event.gate === 2 && event.kind === 'opens')!;
    expect(Math.abs(opened.time / stripTime(0.5) - 1)).toBeLessThan(0.03);
    // Then the second half fills as a strip of its own.
    expect(Math.abs(result.fillTime / (2 * stripTime(0.5)) - 1)).toBeLessThan(0.03);
  });

  test('a vent in mid-part that stays open keeps the far side dry; clamped when reached, it fills', () => {
    const lines = (closesWhenReached: boolean): Line[] => [
      stripLines(1, 0.2)[0],
      {
        name: 'Vent',
        kind: 'vent',
        points: [
          { x: 0.8, y: 0 },
          { x: 0.8, y: 0.2 },
        ],
        closesWhenReached,
      },
    ];
    const outline = rectangle({ length: 1, width: 0.2 });
    const open = run({ outline, lines: lines(false), nodeCount: 600 });
    const clamped = run({ outline, lines: lines(true), nodeCount: 600 });
    expect(open.result.isFilled).toBe(false);
    expect(valueAt(open.mesh, open.result.arrival, { x: 0.9, y: 0.1 })).toBeNaN();
    expect(clamped.result.isFilled).toBe(true);
    expect(clamped.result.trapped).toHaveLength(1);
  });

  const vent: Line = {
    name: 'Vent',
    kind: 'vent',
    points: [
      { x: 1, y: 0 },
      { x: 1, y: 1 },
    ],
  };
  const feed: Line = {
    name: 'Feed',
    kind: 'feed',
    points: [
      { x: 0, y: 0 },
      { x: 0, y: 1 },
    ],
  };
  test.each<[RegExp, Line[], object]>([
    [/There is no feed/, [vent], {}],
    [/There is no vent/, [feed], {}],
    [/Let one feed open at the start/, [{ ...feed, opens: 'whenReached' }, vent], {}],
    [
      /Feed and Vent touch each other/,
      [
        feed,
        {
          ...vent,
          points: [
            { x: 0, y: 0.5 },
            { x: 1, y: 0.5 },
          ],
        },
      ],
      {},
    ],
    [/must be above the vacuum/, [feed, vent], { drop: -5 }],
    [/must be above the vacuum/, [feed, vent], { drop: NaN }],
    [
      /no permeability somewhere/,
      [feed, vent],
      { sheet: (mesh: Mesh) => uniformSheet(mesh.triangles.length / 3, { xx: 0, yy: 0, xy: 0, storage: S }) },
    ],
    [
      /Storage .* must be a number above zero/,
      [feed, vent],
      {
        sheet: (mesh: Mesh) => uniformSheet(mesh.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: NaN }),
      },
    ],
  ])('%s', (message, lines, rest) => {
    expect(() => run({ outline: plate, lines, nodeCount: 200, ...rest })).toThrow(message);
  });
});
