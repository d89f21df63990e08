import { meshStudy } from './mesh-study.ts';
import { meshPart } from '../src/geometry/mesh.ts';
import { rectangle } from '../src/geometry/shapes.ts';
import { fill } from '../src/flow/fill.ts';
import type { FillRequest } from '../src/flow/fill-types.ts';
import { createObstacleSolver } from '../src/flow/obstacle.ts';
import { demoLayers } from './layered-plate.ts';
import { sheetNetwork } from '../src/flow/network.ts';
import { uniformSheet } from '../src/flow/sheet.ts';
import { valueAt } from '../src/flow/probe.ts';
import { judge, usualDoubt, type SolvedFlow } from '../src/verdict/verdict.ts';
import { usualRule } from '../src/test/usual-rule.ts';
import { adviceBench } from './advice.ts';
import { batchBench } from './batches.ts';
import { dropTestBench } from './drop-tests.ts';
import { classicalFill } from './classical-fill.ts';

/** Prints times and ratios; asserts nothing. The classical scheme at 5 000 nodes takes minutes: --quick leaves it at 1 500. */
const quick = process.argv.includes('--quick');
const sheet = { xx: 2e-12, yy: 2e-12, xy: 0, storage: 1.2e-3 };
const drop = 9e4;
const probes = [
  { x: 0.3, y: 0.3 },
  { x: 0.6, y: 0.1 },
  { x: 0.5, y: 0.5 },
  { x: 0.1, y: 0.8 },
  { x: 0.8, y: 0.7 },
];

function timed<T>(work: () => T): { result: T; ms: number } {
  const start = performance.now();
  const result = work();
  return { result, ms: performance.now() - start };
}
const best = <T>(work: () => T, runs = 3) =>
  Array.from({ length: runs }, () => timed(work)).sort((a, b) => a.ms - b.ms)[0];

/** Square metre fed by a short line across one corner, vented at the opposite one. */
function plate(nodeCount: number) {
  const mesh = meshPart({
    outline: rectangle({ length: 1, width: 1 }),
    nodeCount,
    lines: [
      {
        name: 'feed',
        points: [
          { x: 0, y: 0.1 },
          { x: 0, y: 0 },
          { x: 0.1, y: 0 },
        ],
      },
      {
        name: 'vent',
        points: [
          { x: 1, y: 0.95 },
          { x: 1, y: 1 },
        ],
      },
    ],
  });
  const network = sheetNetwork(mesh, uniformSheet(mesh.triangles.length / 3, sheet));
  const [feed, vent] = mesh.lineNodes;
  const solve = (steps?: number, createSolver?: FillRequest['createSolver']) =>
    fill({
      network,
      steps,
      createSolver,
      gates: [
        { name: 'feed', kind: 'feed', nodes: feed, startsOpen: true },
        { name: 'vent', kind: 'vent', nodes: vent, startsOpen: true },
      ],
      feedPressure: drop,
      vacuumPressure: 0,
    });
  return { mesh, network, gates: { feed, vent }, solve };
}

console.log('Corner-fed plate, isotropic, one layer');
const small = plate(quick ? 1500 : 5000);
small.solve();
const ours = best(() => small.solve());
const finer = plate(4 * small.mesh.nodeCount);
const reference = finer.solve();
const errors = probes.map(
  (p) => valueAt(small.mesh, ours.result.arrival, p) / valueAt(finer.mesh, reference.arrival, p) - 1,
);
console.log(
  `  ${small.mesh.nodeCount} nodes: ${ours.ms.toFixed(0)} ms, ${ours.result.solves} solves, mass error ${ours.result.massError.toExponential(1)}`,
);
console.log(
  `  5 probes against a 4x finer mesh: ${errors.map((e) => `${(100 * e).toFixed(2)} %`).join(', ')}`,
);
const classical = timed(() => classicalFill(small.network, small.gates, drop));
const off = probes.map(
  (p) => valueAt(small.mesh, classical.result, p) / valueAt(finer.mesh, reference.arrival, p) - 1,
);
console.log(
  `  one volume at a time: ${(classical.ms / 1000).toFixed(1)} s; probes ${off.map((e) => `${(100 * e).toFixed(2)} %`).join(', ')}`,
);
console.log(`  ratio ${(classical.ms / ours.ms).toFixed(0)} : 1`);

const oracle = best(() => small.solve(undefined, createObstacleSolver), 2);
console.log(
  `  the same solver in TypeScript: ${oracle.ms.toFixed(0)} ms, ${(oracle.ms / ours.ms).toFixed(1)} times as long`,
);

console.log('Growth');
const sizes = [1000, 5000, 20_000].map((nodeCount) => {
  const { mesh, solve } = plate(nodeCount);
  const { ms } = best(() => solve(), 2);
  console.log(`  ${mesh.nodeCount} nodes: ${ms.toFixed(0)} ms`);
  return { n: mesh.nodeCount, ms };
});
const exponent = (a: { n: number; ms: number }, b: { n: number; ms: number }) =>
  Math.log(b.ms / a.ms) / Math.log(b.n / a.n);
console.log(
  `  exponent ${exponent(sizes[0], sizes[2]).toFixed(2)} from 1 000 to 20 000, ${exponent(sizes[1], sizes[2]).toFixed(2)} from 5 000`,
);

console.log('Six layers, three feeds in sequence behind hoses');
const layered = [300, 1000, 3000].map((nodeCount) => {
  const { ms, result } = best(() => demoLayers(nodeCount), 2);
  console.log(`  ${result.mesh.nodeCount} places, ${6 * result.mesh.nodeCount} nodes: ${ms.toFixed(0)} ms`);
  return { n: result.mesh.nodeCount, ms };
});
console.log(`  exponent ${exponent(layered[0], layered[2]).toFixed(2)}`);
const [inLayers, flat] = [best(() => demoLayers(833), 3), best(() => demoLayers(5000, false), 3)];
console.log(
  `  5 000 nodes in six layers: ${inLayers.ms.toFixed(0)} ms, averaged: ${flat.ms.toFixed(0)} ms; ratio ${(inLayers.ms / flat.ms).toFixed(2)} : 1`,
);
const places = best(() => demoLayers(5000), 1);
console.log(
  `  5 000 places in six layers, 30 000 nodes: ${places.ms.toFixed(0)} ms, ${(places.ms / flat.ms).toFixed(1)} times the averaged ones`,
);

console.log('New temperature on a solved layout');
const poreVolume = small.network.storage.reduce((a, b) => a + b, 0);
const flow: SolvedFlow = { ...ours.result, poreVolume, dryRegions: [] };
const resin = {
  name: 'bench',
  density: 1130,
  viscosityPoints: [
    { temperature: 288, viscosity: 0.5 },
    { temperature: 303, viscosity: 0.2 },
  ],
  gelPoints: [
    { temperature: 288, time: 11_000 },
    { temperature: 303, time: 4000 },
  ],
  gelViscosityRatio: 18,
  hardenerParts: 30,
};
const look = best(
  () => judge(flow, { resin, temperature: 293 + Math.random(), openTime: 400 }, usualDoubt, usualRule),
  20,
);
console.log(
  `  verdict with its range from 400 samples: ${look.ms.toFixed(2)} ms, ${(ours.ms / look.ms).toFixed(0)} times quicker than solving again`,
);

console.log('Coarse forecast while dragging');
const coarse = best(() => plate(800).solve(40), 5);
console.log(`  mesh and fill at 800 nodes: ${coarse.ms.toFixed(0)} ms`);

batchBench();
dropTestBench(quick ? 60 : 400);
await adviceBench(quick ? 5 : 30);
if (!quick) meshStudy();
