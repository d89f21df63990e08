import { describe, expect, test } from '@jest/globals';
import { feedLine, plainZone } from '../test/layouts.ts';
import { forecastFlow } from '../flow/forecast.ts';
import type { ForecastRequest } from '../flow/layout.ts';
import { STANDARD_GRAVITY } from '../flow/gravity.ts';
import { areaOf, meshShell, type ShellPoint } from './shell.ts';
import { readObj, readStl, type TriangleSoup } from './surface-file.ts';

const bytesOf = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
type Corner = [number, number, number];
const quad = (a: Corner, b: Corner, c: Corner, d: Corner) => [...a, ...b, ...c, ...a, ...c, ...d];
const soupOf = (...quads: number[][]): TriangleSoup => Float64Array.from(quads.flat());
/** A strip 1 m long and 0.2 m wide, folded up by a right angle in the middle. */
const folded = soupOf(
  quad([0, 0, 0], [0.5, 0, 0], [0.5, 0.2, 0], [0, 0.2, 0]),
  quad([0.5, 0, 0], [0.5, 0, 0.5], [0.5, 0.2, 0.5], [0.5, 0.2, 0]),
);
const across = (x: number, z: number): ShellPoint[] => [
  { x, y: 0, z },
  { x, y: 0.2, z },
];
const [T, S, DROP] = [1.5e-12, 1.2e-3, 9e4];

function run(soup: TriangleSoup, ends: [ShellPoint[], ShellPoint[]], changes: Partial<ForecastRequest> = {}) {
  const lines = [feedLine({}), feedLine({ id: 'vent', name: 'Vent', kind: 'vent' })];
  const shell = meshShell({
    soup,
    nodeCount: 1500,
    lines: lines.map(({ name }, i) => ({ name, points: ends[i]! })),
  });
  const flow = forecastFlow({
    outline: [],
    holes: [],
    lines,
    zones: [plainZone({ T, S })],
    feedPressure: DROP + 2000,
    vacuumPressure: 2000,
    density: 1e-9,
    shell,
    nodeCount: 1500,
    ...changes,
  });
  const at = (p: ShellPoint) => {
    let best = 0;
    const away = (i: number) =>
      Math.hypot(
        shell.positions[3 * i] - p.x,
        shell.positions[3 * i + 1] - p.y,
        shell.positions[3 * i + 2] - p.z,
      );
    for (let i = 1; i < shell.nodeCount; i++) if (away(i) < away(best)) best = i;
    return { time: flow.arrival[best], node: best };
  };
  return { shell, flow, at };
}
const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);

describe('flow on a shell', () => {
  test('a folded strip fills as the flat one, round the fold', () => {
    const { shell, flow, at } = run(folded, [across(0, 0), across(0.5, 0.5)]);
    expect(areaOf(shell.positions, shell.triangles)).toBeCloseTo(0.2, 12);
    expect(Math.abs(flow.fillTime / stripTime(1) - 1)).toBeLessThan(0.01);
    for (const z of [0.1, 0.25, 0.4]) {
      const { time, node } = at({ x: 0.5, y: 0.1, z });
      expect(Math.abs(time / stripTime(0.5 + shell.positions[3 * node + 2]) - 1)).toBeLessThan(0.02);
    }
  });

  test('fibre directions are projected: a wall permeable along x only lets resin up its slope, not across', () => {
    // A plane rising at 45 degrees along x; 0.2 m wide, 1 m up the slope.
    const up = Math.SQRT1_2;
    const slope = soupOf(quad([0, 0, 0], [up, 0, up], [up, 0.2, up], [0, 0.2, 0]));
    const zone = plainZone({ T, S });
    const [layer] = zone.layers;
    const along = { ...zone, layers: [{ ...layer!, transmissibility: { xx: T, yy: T / 8, xy: 0 } }] };
    const ends: [ShellPoint[], ShellPoint[]] = [across(0, 0), across(up, up)];
    const { flow } = run(slope, ends, { zones: [along] });
    expect(Math.abs(flow.fillTime / stripTime(1) - 1)).toBeLessThan(0.01);
    const sideways: [ShellPoint[], ShellPoint[]] = [
      [
        { x: 0, y: 0, z: 0 },
        { x: up, y: 0, z: up },
      ],
      [
        { x: 0, y: 0.2, z: 0 },
        { x: up, y: 0.2, z: up },
      ],
    ];
    const cross = run(slope, sideways, { zones: [along] }).flow;
    expect(Math.abs(cross.fillTime / (8 * stripTime(0.2)) - 1)).toBeLessThan(0.02);
  });

  test('a wall fills against its weight: t = S/(T rho g) [H ln(H/(H-x)) - x]', () => {
    const wall = soupOf(quad([0, 0, 0], [0, 0, 1], [0, 0.2, 1], [0, 0.2, 0]));
    const [density, drop] = [1130, 20_000];
    const { flow } = run(wall, [across(0, 0), across(0, 1)], { density, feedPressure: drop + 2000 });
    const H = drop / (density * STANDARD_GRAVITY);
    const expected = (S / (T * density * STANDARD_GRAVITY)) * (H * Math.log(H / (H - 1)) - 1);
    expect(Math.abs(flow.fillTime / expected - 1)).toBeLessThan(0.02);
  });
});

describe('surface files', () => {
  const ascii = (soup: TriangleSoup) => {
    const facets = Array.from({ length: soup.length / 9 }, (_, t) => {
      const corner = (k: number) => `vertex ${soup.subarray(9 * t + 3 * k, 9 * t + 3 * k + 3).join(' ')}`;
      return `facet normal 0 0 0\nouter loop\n${[0, 1, 2].map(corner).join('\n')}\nendloop\nendfacet`;
    });
    return bytesOf(`solid strip\n${facets.join('\n')}\nendsolid`);
  };
  const binary = (soup: TriangleSoup) => {
    const count = soup.length / 9;
    const view = new DataView(new ArrayBuffer(84 + 50 * count));
    view.setUint32(80, count, true);
    soup.forEach((v, n) => view.setFloat32(84 + 50 * Math.floor(n / 9) + 12 + 4 * (n % 9), v, true));
    return new Uint8Array(view.buffer);
  };

  test('text and binary STL and OBJ give the same triangles', () => {
    const obj = [
      'v 0 0 0',
      'v 0.5 0 0',
      'v 0.5 0.2 0',
      'v 0 0.2 0',
      'f 1/1/1 2/2/2 3/3 -1',
      'usemtl none',
    ].join('\n');
    const flat = soupOf(quad([0, 0, 0], [0.5, 0, 0], [0.5, 0.2, 0], [0, 0.2, 0]));
    expect(Array.from(readStl(ascii(folded)))).toEqual(Array.from(folded));
    readStl(binary(folded)).forEach((v, n) => expect(v).toBeCloseTo(folded[n]!, 6));
    expect(Array.from(readObj(obj))).toEqual(Array.from(flat));
  });

  test.each<[string, () => unknown, RegExp]>([
    ['cut off', () => readStl(binary(folded).slice(0, 150)), /cut off/],
    ['empty', () => readStl(new Uint8Array()), /neither a text STL/],
    ['no facet', () => readStl(bytesOf('solid x\nendsolid')), /holds no triangle/],
    ['half a facet', () => readStl(bytesOf('solid x\nvertex 0 0 0\nvertex 1 0 0')), /not complete/],
    [
      'a word for a number',
      () => readStl(bytesOf('solid x\nvertex a 0 0\nvertex 1 0 0\nvertex 0 1 0')),
      /Triangle 1 has a corner/,
    ],
    ['a vertex that is not there', () => readObj('v 0 0 0\nf 1 2 3'), /Line 2 .* vertex 2/],
    ['no area', () => meshShell({ soup: new Float64Array(9), lines: [], nodeCount: 100 }), /no area/],
    [
      'three skins at an edge',
      () =>
        meshShell({
          soup: soupOf(
            [0, 0, 0, 1, 0, 0, 0, 1, 0],
            [0, 0, 0, 1, 0, 0, 0, -1, 0],
            [0, 0, 0, 1, 0, 0, 0, 0, 1],
          ),
          lines: [],
          nodeCount: 100,
        }),
      /Three triangles meet/,
    ],
    ['a line in the air', () => run(folded, [across(0, 3), across(0.5, 0.5)]), /off the surface/],
  ])('%s is refused', (_, read, message) => expect(read).toThrow(message));

  test('a skin whose triangles are turned at random comes out turned alike', () => {
    const mixed = folded.slice();
    const first = mixed.slice(0, 3);
    mixed.copyWithin(0, 3, 6);
    mixed.set(first, 3);
    const { triangles } = meshShell({ soup: mixed, lines: [], nodeCount: 200 });
    const seen = new Set<string>();
    triangles.forEach((i, e) => {
      const key = `${i} ${triangles[e - (e % 3) + ((e + 1) % 3)]}`;
      expect(seen.has(key)).toBe(false);
      seen.add(key);
    });
  });
});
