import { describe, expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { plainGates } from '../test/plain-gates.ts';
import { fill } from './fill.ts';
import { askOf, holdGas, missOf } from './held-gas.ts';
import { createNetworkBuilder, sheetNetwork } from './network.ts';

const FEED = 95_000;
const VACUUM = 1000;

/** A square metre with slow squares in rows: the front closes round each of them and shuts its gas in. */
function patched(rows: number, nodeCount: number) {
  const edge = (name: string, x: number) => ({ name, points: [0, 1].map((y) => ({ x, y })) });
  const mesh = meshPart({
    outline: rectangle({ length: 1, width: 1 }),
    lines: [edge('Feed', 0), edge('Vent', 1)],
    nodeCount,
  });
  const middle = (t: number, axis: number) =>
    [0, 1, 2].reduce((sum, k) => sum + mesh.positions[3 * mesh.triangles[3 * t + k]! + axis]! / 3, 0);
  const count = mesh.triangles.length / 3;
  const transmissibility = new Float64Array(3 * count);
  for (let t = 0; t < count; t++) {
    const off = [0, 1].map((axis) => Math.abs(((middle(t, axis) * rows) % 1) - 0.5));
    const isSlow = Math.max(...off) < 0.3;
    transmissibility.set([isSlow ? 5e-16 : 1e-12, isSlow ? 5e-16 : 1e-12, 0], 3 * t);
  }
  const network = sheetNetwork(mesh, { transmissibility, storage: new Float64Array(count).fill(1e-3) });
  const { gates } = plainGates([
    { name: 'Feed', kind: 'feed', nodes: mesh.lineNodes[0]! },
    { name: 'Vent', kind: 'vent', nodes: mesh.lineNodes[1]! },
  ]);
  return fill({ network, gates, feedPressure: FEED, vacuumPressure: VACUUM });
}

describe('gas that the front shuts in', () => {
  test.each([
    [2, 1200],
    [3, 1500],
  ])('in %i rows of slow squares keeps its pressure times volume in every pocket', (rows, nodeCount) => {
    const { trapped, massError } = patched(rows, nodeCount);
    expect(trapped).toHaveLength(rows ** 2);
    expect(massError).toBeLessThan(1e-5);
    for (const { volume, finalVolume, finalPressure } of trapped) {
      expect(finalVolume).toBeLessThan(volume);
      expect(finalPressure).toBeLessThan(FEED);
      // Boyle: shut in at the vacuum's pressure; a step balances it to a fiftieth.
      expect(Math.abs((finalPressure * finalVolume) / (VACUUM * volume) - 1)).toBeLessThan(0.021);
    }
    // The first row lies where the resin stands higher, and has long come to rest.
    const first = trapped.slice(0, rows);
    for (const { finalPressure } of first) expect(finalPressure).toBeGreaterThan(0.5 * FEED);
  });
});

test('gas that is driven into a place too small for it comes to rest on a slope too', () => {
  // A chain with a pocket beside it: its large end by the feed, where the resin presses more, its small one by the vent.
  const [CHAIN, SLOW] = [1e-12, 1e-16];
  const [near, far] = [5, 6];
  const builder = createNetworkBuilder();
  builder.addNodes(Float64Array.of(1e-6, 1e-6, 1e-6, 1e-6, 1e-6, 2e-6, 1e-8));
  for (let i = 0; i < 4; i++) builder.join(i, i + 1, CHAIN);
  builder.join(1, near, SLOW);
  builder.join(3, far, SLOW);
  builder.join(near, far, SLOW / 1000);
  const network = builder.build();
  const { gates } = plainGates([
    { name: 'Feed', kind: 'feed', nodes: Int32Array.of(0) },
    { name: 'Vent', kind: 'vent', nodes: Int32Array.of(4) },
  ]);
  const run = (slope: number) => {
    let calls = 0;
    return fill({
      network,
      gates,
      actions: [{ gate: 0, opening: 0, when: { kind: 'time', time: 1e6 } }],
      ...{ feedPressure: FEED, vacuumPressure: VACUUM },
      gravity: { density: 1130, elevation: Float64Array.from({ length: 7 }, (_, i) => slope * i) },
      onProgress: () => ++calls < 500,
    });
  };
  const [level, sloping] = [run(0), run(1e-3)];
  for (const { trapped, massError } of [level, sloping]) {
    expect(massError).toBeLessThan(1e-5);
    expect(trapped).toHaveLength(1);
    // It was driven out of the near end, and takes more room than the far one has: Boyle holds all the same.
    const [{ volume, finalVolume, finalPressure, voidNodes }] = trapped;
    expect(Array.from(voidNodes)).toEqual([far]);
    expect(finalVolume).toBeGreaterThan(1.03 * network.storage[far]!);
    expect(Math.abs((finalPressure * finalVolume) / (VACUUM * volume) - 1)).toBeLessThan(0.021);
  }
  // A fall of a few millimetres is nothing beside the vacuum.
  expect(sloping.trapped[0].finalVolume / level.trapped[0].finalVolume).toBeCloseTo(1, 1);
});

describe('gas that is held', () => {
  const network = sheetNetwork(meshPart({ outline: rectangle({ length: 1, width: 1 }), nodeCount: 60 }), {
    transmissibility: new Float64Array(3 * 200).fill(0).map((_, i) => (i % 3 === 2 ? 0 : 1e-12)),
    storage: new Float64Array(200).fill(1e-3),
  });
  const level = new Float64Array(network.nodeCount).fill(1);
  level.set([0.5, 0.25], 3);
  const nodes = Int32Array.of(2, 3, 4);
  const room = [0.5 * network.storage[3]!, 0.75 * network.storage[4]!];
  const content = VACUUM * (room[0]! + room[1]!);

  test('is shared out by room, with none in full nodes', () => {
    const held = holdGas(network, { nodes, level, content });
    expect(Array.from(held.nodes)).toEqual([3, 4]);
    held.content.forEach((own, n) => expect(own).toBeCloseTo(VACUUM * room[n]!, 15));
    held.pressure.forEach((own) => expect(own).toBeCloseTo(VACUUM, 9));
  });

  test('asks for the tangent of Boyle’s law: taken there, the node loses what its gas is pressed by', () => {
    const held = holdGas(network, { nodes, level, content });
    held.pressure.fill(20_000);
    const step = 30;
    const asked = { capacity: level.map(() => 0), compliance: level.map(() => 0), floor: level.map(() => 1) };
    askOf(held, VACUUM, { ...asked, step });
    const inflow = (pressure: number) =>
      asked.capacity[3]! + asked.compliance[3]! * (pressure - VACUUM) * step;
    const left = (pressure: number) => (VACUUM * room[0]!) / pressure;
    expect(inflow(20_000) / (room[0]! - left(20_000))).toBeCloseTo(1, 9);
    // Slope by a central difference of p V = C.
    const slope = (left(19_990) - left(20_010)) / 20;
    expect((inflow(20_100) - inflow(20_000)) / (100 * slope)).toBeCloseTo(1, 4);
    expect(asked.floor[3]).toBe(0);
  });

  test('fits when every room is what its pressure leaves it, and is let go where it takes more than the node has', () => {
    const solved = (pressure: number, share: number) => ({
      level: level.map((own) => (own < 1 ? 1 - (1 - own) * share : 1)),
      impulse: level.map(() => pressure - VACUUM),
      ...{ step: 1, vacuum: VACUUM },
    });
    const miss = (pressure: number, share: number) =>
      missOf(network, holdGas(network, { nodes, level, content }), solved(pressure, share));
    expect(miss(4000, 0.25)).toBeCloseTo(0, 12);
    expect(miss(4000, 0.275)).toBeCloseTo(0.1, 12);
    expect(miss(500, 2.5)).toBe(Infinity);
  });
});
