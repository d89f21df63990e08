import { forecastFlow } from '../src/flow/forecast.ts';
import type { ForecastRequest, LayoutLine, ZoneLaminate } from '../src/flow/layout.ts';
import type { Point } from '../src/geometry/polygon.ts';
import { disc } from '../src/test/disc.ts';
import { feedLine, plainZone, strip } from '../src/test/layouts.ts';

const [T, S] = [1.5e-12, 1e-3];
const [LENGTH, WIDTH] = [1, 0.6];

type Place = readonly [number, number];
interface Case {
  readonly name: string;
  readonly lines: readonly LayoutLine[];
  readonly marks: readonly Place[];
  readonly holes?: readonly (readonly Point[])[];
  readonly zones?: readonly ZoneLaminate[];
}

const path = (...places: Place[]): Point[] => places.map(([x, y]) => ({ x, y }));
const feed = (points: Point[], changes: Partial<LayoutLine> = {}) => feedLine({ points, ...changes });
const vent = (points: Point[], id = 'vent') => feedLine({ id, name: id, kind: 'vent', points });
const race = (points: Point[]) => feedLine({ id: 'race', name: 'Race', kind: 'race', points, bore: 3e-3 });
const zone = (t: number, s: number, ...outline: Place[]) =>
  plainZone({ T: t * T, S: s * S, outline: outline.length > 0 ? path(...outline) : null });
const brake = (from: number): ZoneLaminate => ({
  ...zone(0.1, 0.5, [from, 0], [LENGTH, 0], [LENGTH, WIDTH], [from, WIDTH]),
  isBrake: true,
});
const hole = (x: number, diameter: number) =>
  disc({ diameter, corners: 32 }).map((p) => ({
    x: p.x + x - diameter / 2,
    y: p.y + WIDTH / 2 - diameter / 2,
  }));

const left = path([0, 0], [0, WIDTH]);
const right = path([LENGTH, 0], [LENGTH, WIDTH]);
const edges = [feed(left), vent(right)];
const around: Place[] = [
  [0, 0],
  [0, WIDTH],
  [LENGTH, WIDTH],
  [LENGTH, 0],
];
const ring = path(...around, [0, 0]);

const cases: readonly Case[] = [
  {
    name: 'fed at a corner',
    lines: [feed(path([0, 0])), vent(path([LENGTH, WIDTH]))],
    marks: [
      [0.3, 0.3],
      [0.7, 0.1],
      [0.15, 0.5],
      [0.95, 0.55],
    ],
  },
  {
    name: 'fed at an edge',
    lines: edges,
    marks: [
      [0.33, 0.31],
      [0.7, 0.1],
    ],
  },
  {
    name: 'hole, small',
    lines: edges,
    holes: [hole(0.45, 0.24)],
    marks: [
      [0.58, 0.3],
      [0.62, 0.3],
      [0.7, 0.3],
      [0.45, 0.5],
      [0.9, 0.3],
    ],
  },
  {
    name: 'hole, large',
    lines: edges,
    holes: [hole(0.4, 0.4)],
    marks: [
      [0.61, 0.3],
      [0.7, 0.3],
      [0.4, 0.55],
      [0.9, 0.3],
    ],
  },
  {
    name: 'zone across',
    lines: edges,
    zones: [zone(1, 1), zone(2, 4, [0.4, 0], [0.7, 0], [0.7, WIDTH], [0.4, WIDTH])],
    marks: [
      [0.4, 0.3],
      [0.55, 0.3],
      [0.7, 0.3],
      [0.9, 0.3],
    ],
  },
  {
    name: 'zone aslant',
    lines: edges,
    zones: [zone(1, 1), zone(0.1, 3, [0.2, 0], [0.5, 0], [0.8, WIDTH], [0.5, WIDTH])],
    marks: [
      [0.35, 0.3],
      [0.5, 0.3],
      [0.65, 0.3],
      [0.9, 0.3],
      [0.5, 0.58],
    ],
  },
  {
    name: 'zone within',
    lines: edges,
    zones: [zone(1, 1), zone(0.2, 2, [0.4, 0.2], [0.6, 0.2], [0.6, 0.4], [0.4, 0.4])],
    marks: [
      [0.4, 0.3],
      [0.5, 0.3],
      [0.6, 0.3],
      [0.7, 0.3],
      [0.9, 0.3],
    ],
  },
  {
    name: 'brake of 40 mm',
    lines: [feed(path([0, 0.3])), vent(right)],
    zones: [zone(20, 1), brake(0.96)],
    marks: [
      [0.5, 0.3],
      [0.95, 0.05],
      [0.95, 0.3],
      [LENGTH, 0.3],
    ],
  },
  {
    name: 'brake of 20 mm',
    lines: [feed(path([0, 0.3])), vent(right)],
    zones: [zone(20, 1), brake(0.98)],
    marks: [
      [0.5, 0.3],
      [0.95, 0.05],
      [0.97, 0.3],
      [LENGTH, 0.3],
    ],
  },
  {
    name: 'brake all round',
    lines: [feed(path([0.5, 0.3])), vent(ring)],
    zones: [
      { ...zone(0.1, 0.5), isBrake: true },
      zone(20, 1, [0.03, 0.03], [0.97, 0.03], [0.97, 0.57], [0.03, 0.57]),
    ],
    marks: [
      [0.5, 0.5],
      [0.9, 0.3],
      [0.5, 0.56],
      [0.96, 0.3],
      [0.95, 0.55],
    ],
  },
  {
    name: 'race along an edge',
    lines: [feed(left), race(path([0, 0], [LENGTH, 0])), vent(path([LENGTH, WIDTH]))],
    marks: [
      [0.3, 0],
      [0.6, 0],
      [0.95, 0],
      [0.5, 0.3],
      [0.9, 0.5],
    ],
  },
  {
    name: 'race inside',
    lines: [feed(left), race(path([0.2, 0.3], [0.8, 0.3])), vent(right)],
    marks: [
      [0.2, 0.3],
      [0.5, 0.3],
      [0.8, 0.3],
      [0.9, 0.3],
      [0.5, 0.5],
      [0.95, 0.05],
    ],
  },
  {
    name: 'point feed',
    lines: [feed(path([0.5, 0.3])), vent(path([0, 0])), vent(path([LENGTH, WIDTH]), 'other')],
    marks: [
      [0.4, 0.3],
      [0.2, 0.3],
      [0.9, 0.1],
    ],
  },
  {
    name: 'two feeds',
    lines: [feed(left), feed(path([0.55, 0], [0.55, 0.4]), { id: 'second' }), vent(right)],
    marks: [
      [0.27, 0.2],
      [0.3, 0.5],
      [0.8, 0.3],
      [0.97, 0.55],
    ],
  },
  {
    name: 'fed from within',
    lines: [feed(path([0.2, 0.3], [0.8, 0.3])), ...around.map((place, n) => vent(path(place), `vent ${n}`))],
    marks: [
      [0.5, 0.45],
      [0.1, 0.3],
      [0.9, 0.55],
      [0.5, 0.6],
    ],
  },
  {
    name: 'fed on three sides',
    lines: [feed(path(...around)), vent(path([0.5, 0]))],
    marks: [
      [0.5, 0.5],
      [0.5, 0.3],
      [0.5, 0.1],
      [0.3, 0.05],
    ],
  },
  {
    name: 'air shut in',
    lines: [feed(path(...around)), vent(path([0.2, 0]))],
    marks: [
      [0.5, 0.5],
      [0.5, 0.3],
      [0.2, 0.1],
      [0.6, 0.2],
    ],
  },
  {
    name: 'behind a hose',
    lines: [feed(left, { hose: { length: 2, bore: 6e-3 }, bore: 8e-3, inlet: 0.5 }), vent(right)],
    zones: [zone(100, 1)],
    marks: [
      [0.1, 0.3],
      [0.1, 0.58],
      [0.5, 0.3],
      [0.9, 0.05],
    ],
  },
  {
    name: 'vents all round',
    lines: [feed(path([0.5, 0.3])), vent(ring)],
    marks: [
      [0.4, 0.3],
      [0.2, 0.3],
      [0.9, 0.1],
    ],
  },
];

/** Everything that one mesh says: marks, the whole fill where no air is shut in, and when and how much air is. */
function read({ lines, marks, holes = [], zones = [zone(1, 1)] }: Case, nodeCount: number): number[] {
  const request: ForecastRequest = {
    ...{ outline: strip(LENGTH, WIDTH), holes, lines, zones, nodeCount },
    ...{ feedPressure: 94_000, vacuumPressure: 2000, density: 1130 },
    marks: marks.map(([x, y], n) => ({ id: `${n}`, name: `${n}`, x, y })),
  };
  const { marks: read, fillTime, dryRegions } = forecastFlow(request);
  const [largest] = dryRegions;
  return [...read.map(({ arrival }) => arrival), ...(largest ? [largest.time, largest.area] : [fillTime])];
}

/** Prints how far a usual mesh is off one ten times as fine, and how many of its numbers stand within 2 %. */
export function meshStudy(usual = 2000, fine = 20_000): void {
  console.log(`${usual} nodes against ${fine}`);
  let [within, total, whole] = [0, 0, 0];
  for (const one of cases) {
    const [rough, sharp] = [read(one, usual), read(one, fine)];
    const off = sharp.map((value, n) => 100 * (rough[n] / value - 1));
    const good = off.filter((share) => Math.abs(share) <= 2).length;
    [within, total, whole] = [within + good, total + off.length, whole + (good === off.length ? 1 : 0)];
    console.log(`  ${one.name.padEnd(18)} ${off.map((share) => `${share.toFixed(1)} %`).join(', ')}`);
  }
  console.log(`  ${within} of ${total} within 2 %; ${whole} of ${cases.length} cases whole`);
}
