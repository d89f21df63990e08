import { describe, expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { plainGates } from '../test/plain-gates.ts';
import { fill } from './fill.ts';
import type { FillRequest, FillStart } from './fill-types.ts';
import { sheetNetwork } from './network.ts';
import { valueAt } from './probe.ts';
import { uniformSheet } from './sheet.ts';

const T = 1.5e-12; // permeability x thickness, m3
const S = 1.2e-3; // porosity x thickness, m
const DROP = 9e4;
const edge = (x: number) => [
  { x, y: 0 },
  { x, y: 0.2 },
];
const lines = [
  { name: 'Feed', kind: 'feed' as const, points: edge(0) },
  { name: 'Vent', kind: 'vent' as const, points: edge(1) },
];
const mesh = meshPart({ outline: rectangle({ length: 1, width: 0.2 }), lines, nodeCount: 1500 });
const network = sheetNetwork(
  mesh,
  uniformSheet(mesh.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: S }),
);
const { gates } = plainGates(lines.map((line, index) => ({ ...line, nodes: mesh.lineNodes[index] })));
const request: FillRequest = { network, gates, vacuumPressure: 0, feedPressure: DROP, steps: 200 };
/** Darcy on a strip, in fluidity time: t = S x^2 / (2 T dp). Rudd et al. 1997. */
const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);

/** A strip whose feed is shut when the front stands at the middle. */
const half = fill({
  ...request,
  actions: [{ gate: 0, opening: 0, when: { kind: 'time', time: stripTime(0.5) } }],
});
const stateOf = ({ final, samples }: typeof half): FillStart => {
  const { entered, vented } = samples.at(-1)!;
  return { ...final, cure: undefined, time: stripTime(0.5), drawn: entered, vented };
};

describe('a run that starts half-way', () => {
  const rest = fill({ ...request, start: { ...stateOf(half), opening: [1, 1] } });

  test('the shut half holds half of the resin', () => {
    expect(half.isFilled).toBe(false);
    expect(stateOf(half).drawn / (S * 0.2)).toBeCloseTo(0.5, 2);
  });

  test('goes on as the strip does: within 0.5 % of the closed form', () => {
    for (const x of [0.6, 0.7, 0.8, 0.9])
      expect(Math.abs(valueAt(mesh, rest.arrival, { x, y: 0.1 }) / stripTime(x) - 1)).toBeLessThan(5e-3);
    expect(Math.abs(rest.fillTime / stripTime(1) - 1)).toBeLessThan(5e-3);
    expect(rest.isFilled).toBe(true);
  });

  test('what was wet counts from the start, and the whole part has been drawn at the end', () => {
    expect(valueAt(mesh, rest.arrival, { x: 0.2, y: 0.1 })).toBeCloseTo(stripTime(0.5), 6);
    expect(rest.samples[0]).toMatchObject({ time: stripTime(0.5), entered: stateOf(half).drawn });
    const { entered, vented } = rest.samples.at(-1)!;
    expect((entered - vented) / (S * 0.2)).toBeCloseTo(1, 6);
  });

  test('twice the pressure takes half of the rest', () => {
    const faster = fill({ ...request, feedPressure: 2 * DROP, start: { ...stateOf(half), opening: [1, 1] } });
    const left = (time: number) => time - stripTime(0.5);
    expect(left(faster.fillTime) / left(stripTime(1))).toBeCloseTo(0.5, 2);
  });

  test('with the feed still shut nothing comes', () => {
    const shut = fill({ ...request, start: stateOf(half) });
    expect(shut.isFilled).toBe(false);
    expect(shut.samples.at(-1)!.entered).toBeCloseTo(stateOf(half).drawn, 9);
  });

  test('air that is shut in at the start is told', () => {
    // Dry in the middle only, resin on all sides of it.
    const level = Float64Array.from({ length: mesh.nodeCount }, (_, i) =>
      Math.abs(mesh.positions[3 * i] - 0.5) < 0.1 && Math.abs(mesh.positions[3 * i + 1] - 0.1) < 0.05 ? 0 : 1,
    );
    const { trapped } = fill({
      ...request,
      vacuumPressure: 5000,
      start: { ...stateOf(half), opening: [1, 1], level },
    });
    expect(trapped).toHaveLength(1);
    expect(trapped[0].volume / (S * 0.2 * 0.1)).toBeGreaterThan(0.8);
    expect(trapped[0].time).toBe(stripTime(0.5));
  });

  test.each([
    ['too few nodes', { level: new Float64Array(3) }],
    ['a level that is no share', { level: new Float64Array(mesh.nodeCount).fill(1.5) }],
    ['a level that is no number', { level: new Float64Array(mesh.nodeCount).fill(NaN) }],
    ['a gate too many', { opening: [1, 1, 1] }],
    ['a time before the beginning', { time: -1 }],
  ])('refuses %s', (_, wrong) => {
    expect(() => fill({ ...request, start: { ...stateOf(half), ...wrong } })).toThrow(/does not belong/);
  });
});

describe('a glance', () => {
  test('takes fewer iterations and stays within 2 % on a strip', () => {
    const fine = fill({ ...request, steps: 24 });
    const glance = fill({ ...request, steps: 24, isGlance: true });
    expect(Math.abs(glance.fillTime / stripTime(1) - 1)).toBeLessThan(0.02);
    expect(glance.iterations).toBeLessThan(fine.iterations);
  });

  test('a mesh at a glance has about the nodes asked for', () => {
    const outline = rectangle({ length: 1, width: 0.6 });
    const made = meshPart({ outline, lines, nodeCount: 600, isGlance: true });
    expect(Math.abs(made.nodeCount / 600 - 1)).toBeLessThan(0.2);
  });
});

test('a feed that is shut for a while and opened again goes on where it stood', () => {
  const [shut, open] = [stripTime(0.5), 3 * stripTime(0.5)];
  const paused = fill({
    ...request,
    actions: [
      { gate: 0, opening: 0, when: { kind: 'time', time: shut } },
      { gate: 0, opening: 1, when: { kind: 'time', time: open } },
    ],
  });
  expect(paused.isFilled).toBe(true);
  // Later by as long as it was shut.
  expect((paused.fillTime - (open - shut)) / stripTime(1)).toBeCloseTo(1, 2);
});
