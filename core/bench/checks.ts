import { Matrix, solve } from 'ml-matrix';
import { forecastFlow } from '../src/flow/forecast.ts';
import type { ForecastRequest } from '../src/flow/layout.ts';
import { fill } from '../src/flow/fill.ts';
import type { FillRequest } from '../src/flow/fill-types.ts';
import { STANDARD_GRAVITY } from '../src/flow/gravity.ts';
import { createNetworkBuilder, sheetNetwork } from '../src/flow/network.ts';
import { createKernelSolver } from '../src/flow/obstacle-kernel.ts';
import { valueAt } from '../src/flow/probe.ts';
import { uniformSheet } from '../src/flow/sheet.ts';
import { meshPart } from '../src/geometry/mesh.ts';
import { rectangle } from '../src/geometry/shapes.ts';
import { disc } from '../src/test/disc.ts';
import { computeLayers } from '../src/laminate/layers.ts';
import { gebart, permeabilityAt } from '../src/laminate/permeability.ts';
import { computeStack } from '../src/laminate/stack.ts';
import { across, feedLine, plainZone, strip, stripEnds } from '../src/test/layouts.ts';
import { endGates, stripNetwork } from '../src/test/strip.ts';
import { benchStack } from './layered-plate.ts';
import { axes } from '../src/test/ellipse.ts';
import { frontChecks } from './front-checks.ts';
import { partChecks } from './part-checks.ts';
import { resinChecks } from './resin-checks.ts';

/** Prints the table of docs/methods.md: each case with what its source gives and what comes out here. */
const [T, S, DROP, N] = [1.5e-12, 1.2e-3, 9e4, 201];
const rows: string[] = [];
function row(name: string, source: string, expected: number, ours: number, scale = expected) {
  const digits = (value: number) => value.toPrecision(4);
  const error = (100 * (ours - expected)) / scale;
  rows.push(`| ${name} | ${source} | ${digits(expected)} | ${digits(ours)} | ${error.toFixed(2)} % |`);
}
const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);
const at = (x: number) => Math.round(x * (N - 1));
const chain = (changes: Partial<FillRequest> = {}, length = 1) =>
  fill({
    network: stripNetwork({ length, width: 0.2, nodes: N, T, S }),
    gates: endGates(N),
    feedPressure: DROP + 2000,
    vacuumPressure: 2000,
    ...changes,
  });
const plan = (changes: Partial<ForecastRequest>) =>
  forecastFlow({
    outline: strip(1, 0.2),
    holes: [],
    lines: stripEnds(1, 0.2),
    zones: [plainZone({ T, S })],
    feedPressure: DROP + 2000,
    vacuumPressure: 2000,
    density: 1130,
    nodeCount: 2000,
    ...changes,
  });

const flat = plan({});
row(
  'Strip, at 0.5 m, 2 000 nodes',
  'Darcy; Rudd et al. 1997',
  stripTime(0.5),
  valueAt(flat.mesh, flat.arrival, { x: 0.5, y: 0.1 }),
);
row('Strip, last corner', 'same', stripTime(1), flat.fillTime);

const zoned = plan({
  zones: [
    plainZone({ T, S }),
    plainZone({
      T: 4e-13,
      S: 8e-4,
      outline: rectangle({ length: 0.6, width: 1 }).map((p) => ({ x: p.x + 0.4, y: p.y - 0.4 })),
    }),
  ],
});
const d = 0.6;
row(
  'Two zones in series, last corner',
  'resistances add',
  stripTime(0.4) + (8e-4 / DROP) * ((0.4 / T) * d + (d * d) / 8e-13),
  zoned.fillTime,
);

const R = (128 * 3) / (Math.PI * 0.004 ** 4);
const hosed = createNetworkBuilder();
hosed.addNetwork(stripNetwork({ length: 1, width: 0.2, nodes: N, T, S }));
const pot = hosed.addNodes([1e-12]);
hosed.join(pot, 0, 1 / R);
const [feed, vent] = endGates(N);
const behindHose = chain({
  network: hosed.build(),
  gates: [{ ...feed!, supply: { pot, from: pot, junction: 0 } }, vent!],
});
row(
  'Hose in series, at 0.7 m',
  'Hagen-Poiseuille; resistances add',
  (S / DROP) * (0.49 / (2 * T) + R * 0.2 * 0.7),
  behindHose.arrival[at(0.7)]!,
);

const [mu0, g] = [0.3, 3];
const gel = 3 * mu0 * stripTime(1);
const thickening = chain({
  resin: {
    law: { gelState: 1, rate: () => 1 / gel, viscosity: (age) => mu0 * Math.exp(g * age) },
    temperature: () => 293,
    inletState: (time) => time / gel,
  },
});
row(
  'Exponential viscosity, at 0.7 m',
  'closed fluidity time',
  (-gel / g) * Math.log(1 - (stripTime(0.7) * g * mu0) / gel),
  thickening.arrival[at(0.7)]!,
);

const ring = disc({ diameter: 1, corners: 96 });
const middle = ring.reduce((sum, p) => ({ x: sum.x + p.x / 96, y: sum.y + p.y / 96 }), { x: 0, y: 0 });
const hole = disc({ diameter: 0.1 }).map((p) => ({ x: p.x + middle.x - 0.05, y: p.y + middle.y - 0.05 }));
const radial = plan({
  outline: ring,
  holes: [hole],
  lines: [
    feedLine({ points: [...hole, hole[0]!] }),
    feedLine({ id: 'v', name: 'Vent', kind: 'vent', points: [...ring, ring[0]!] }),
  ],
});
const radialTime = (r: number, r0: number) =>
  (S / (2 * T * DROP)) * (r * r * Math.log(r / r0) - (r * r - r0 * r0) / 2);
row(
  'Radial from 50 mm, at 0.4 m',
  'Adams & Rebenfeld 1987',
  radialTime(0.4, 0.05),
  valueAt(radial.mesh, radial.arrival, { x: middle.x + 0.4, y: middle.y }),
);
const point = plan({
  outline: ring,
  lines: [
    feedLine({ points: [middle] }),
    feedLine({ id: 'v', name: 'Vent', kind: 'vent', points: [...ring, ring[0]!] }),
  ],
  nodeCount: 3000,
});
row(
  'Point feed of 6 mm, at 0.4 m, 3 000 nodes',
  'same, r0 = 6 mm',
  radialTime(0.4, 0.006),
  valueAt(point.mesh, point.arrival, { x: middle.x + 0.4, y: middle.y }),
);

for (const [ratio, degrees] of [
  [4, 30],
  [10, 23],
  [20, 0],
  [20, 69],
] as const)
  row(
    `Ellipse, K1/K2 = ${ratio} turned by ${degrees}°: ratio of axes, 3 000 nodes`,
    'Weitzenboeck et al. 1999',
    Math.sqrt(ratio),
    axes(ratio, (degrees * Math.PI) / 180, 3000),
  );

const upward = chain(
  {
    feedPressure: 22_000,
    gravity: { density: 1130, elevation: Float64Array.from({ length: N }, (_, i) => (1.4 * i) / (N - 1)) },
  },
  1.4,
);
const H = 20_000 / (1130 * STANDARD_GRAVITY);
row(
  'Upward fill, at 0.98 m of 1.4 m',
  'Darcy with gravity',
  (S / (T * 1130 * STANDARD_GRAVITY)) * (H * Math.log(H / (H - 0.98)) - 0.98),
  upward.arrival[at(0.7)]!,
);

const tall = chain(
  {
    feedPressure: 22_000,
    gravity: { density: 1130, elevation: Float64Array.from({ length: N }, (_, i) => (3 * i) / (N - 1)) },
  },
  3,
);
row(
  'Upward front in a part of 3 m stands at, m',
  'hydrostatics, H = dp/(rho g)',
  H,
  tall.samples[tall.samples.length - 1]!.stored / (S * 0.2),
);

const stack = computeStack(benchStack);
const [columns, depth] = [161, 40];
const h = 0.8 / (columns - 1);
const V = stack.fibreVolumeFraction;
const { through } = permeabilityAt(benchStack.plies[0]!.fabric.permeability, V, 'bench');
const section = createNetworkBuilder();
const width = (column: number) => h * 0.1 * (column === 0 || column === columns - 1 ? 0.5 : 1);
for (let r = 0; r <= depth; r++) {
  const storage = r === 0 ? 1.2e-3 * 0.86 : (stack.laminateThickness / depth) * (1 - V);
  section.addNodes(Float64Array.from({ length: columns }, (_, i) => storage * width(i)));
  const inPlane = r === 0 ? 9e-12 : (stack.transmissibility.xx * (1 - stack.meshShare)) / depth;
  for (let i = 0; i + 1 < columns; i++)
    section.join(r * columns + i, r * columns + i + 1, (inPlane * 0.1) / h);
}
for (let r = 0; r < depth; r++)
  for (let i = 0; i < columns; i++) {
    const step = stack.laminateThickness / depth / through;
    section.join(r * columns + i, (r + 1) * columns + i, width(i) / (r === 0 ? step / 2 + 8e4 : step));
  }
const fine = fill({
  network: section.build(),
  gates: endGates(columns),
  feedPressure: 94_000,
  vacuumPressure: 2_000,
});
const layered = plan({
  outline: strip(0.8, 0.1),
  lines: [
    feedLine({ points: across(0, 0.1) }),
    feedLine({ id: 'v', name: 'Vent', kind: 'vent', points: across(0.8, 0.1) }),
  ],
  zones: [{ ...plainZone({ T, S }), layers: computeLayers(benchStack) }],
  feedPressure: 94_000,
  nodeCount: 1200,
});
for (const [name, layer, r] of [
  ['mesh front', 0, 0],
  ['mould-side front', 5, depth],
] as const)
  row(
    `Lag, ${name} at 0.5 m`,
    'section of 41 rows',
    fine.arrival[r * columns + Math.round(0.5 / h)]!,
    valueAt(layered.mesh, layered.layers[layer]!.arrival, { x: 0.5, y: 0.05 }),
  );

const b = 1e-7;
const closes = 4 * stripTime(1);
const D = T / (S * b);
const soft = chain({
  softness: {
    curves: [
      {
        spacing: 5e3,
        pores: Float64Array.from({ length: 30 }, (_, n) => 1 + b * 5e3 * n),
        flow: new Float64Array(30).fill(1),
      },
    ],
    curveOf: new Int32Array(N),
  },
  until: closes + 0.3 / D,
  actions: [{ gate: 0, opening: 0, when: { kind: 'time', time: closes } }],
});
const settled = Array.from({ length: 40 }, (_, n) => (n + 0.5) * Math.PI).reduce(
  (sum, l) => sum + ((2 * DROP) / l ** 2) * Math.cos(l * 0.25) * Math.exp(-0.3 * l * l),
  0,
);
row(
  'Settling after the feed shuts: pressure at a quarter, Pa (error of the first pressure)',
  'one-dimensional consolidation, Terzaghi 1943',
  settled,
  soft.final.pressure[at(0.25)]!,
  DROP,
);

const fibre = { fibreRadius: 8.5e-6, packing: 'quadratic' as const };
const byGebart = gebart(fibre, 0.5, 'fibre');
row('Gebart, along, quadratic, V 0.5, m²', 'Gebart 1992', ((8 * 8.5e-6 ** 2) / 57) * 0.5, byGebart.along);
row(
  'Gebart, across',
  'same',
  (16 / (9 * Math.PI * Math.SQRT2)) * (Math.sqrt(Math.PI / 4 / 0.5) - 1) ** 2.5 * 8.5e-6 ** 2,
  byGebart.across,
);
row(
  'Carman-Kozeny, 4e-11 m² at 0.5 to 0.6',
  'Carman 1937',
  (4e-11 * (0.4 ** 3 / 0.36)) / (0.5 ** 3 / 0.25),
  permeabilityAt({ fraction: 0.5, along: 4e-11, across: 4e-11 }, 0.6, 'cloth').along,
);

const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.6 }), nodeCount: 250 });
const network = sheetNetwork(
  mesh,
  uniformSheet(mesh.triangles.length / 3, { xx: 3, yy: 1, xy: 0.5, storage: 1 }),
);
const n = network.nodeCount;
const [A, rhs] = [Matrix.zeros(n, n), Matrix.zeros(n, 1)];
rhs.set(0, 0, 1);
for (let i = 0; i < n; i++)
  if (i === 0 || i === n - 1) A.set(i, i, 1);
  else
    for (let e = network.rowStart[i]!; e < network.rowStart[i + 1]!; e++) {
      A.set(i, network.columns[e]!, -network.conductance[e]!);
      A.set(i, i, A.get(i, i) + network.conductance[e]!);
    }
const dense = solve(A, rhs);
const pressure = new Float64Array(n).fill(0.5);
[pressure[0], pressure[n - 1]] = [1, 0];
const zero = new Float64Array(n);
const isGiven = new Uint8Array(n);
isGiven[0] = isGiven[n - 1] = 1;
createKernelSolver(network).solve(
  { capacity: zero, isGiven, floor: zero, compliance: zero, impulse: pressure, tolerance: 1e-12 },
  new Float64Array(n),
);
const worst = pressure.reduce(
  (most, p, i) => (Math.abs(p - dense.get(i, 0)) > Math.abs(pressure[most]! - dense.get(most, 0)) ? i : most),
  0,
);
row(
  'One pressure field, node that differs most',
  'ml-matrix, dense LU',
  dense.get(worst, 0),
  pressure[worst]!,
);

const obstacle = stripNetwork({ length: 399, width: 1, nodes: 400, T: 1, S: 1 });
const impulse = new Float64Array(400);
impulse[0] = (150 * 151) / 2 + 0.3 * 151;
const given = new Uint8Array(400);
given[0] = 1;
const none = new Float64Array(400);
createKernelSolver(obstacle).solve(
  {
    capacity: new Float64Array(400).fill(1),
    isGiven: given,
    floor: none,
    compliance: none,
    impulse,
    tolerance: 1e-9,
  },
  new Float64Array(400),
);
row(
  'Obstacle problem: impulse 50 nodes behind a free boundary at 150.3',
  'discrete parabola',
  (50 * 51) / 2 + 0.3 * 51,
  impulse[100]!,
);

partChecks(row);
frontChecks(row);
resinChecks(row);

console.log('| case | source | expected | ours | error |\n| --- | --- | --- | --- | --- |');
console.log(rows.join('\n'));
