import { describe, expect, test } from '@jest/globals';
import { meshPart } from '../geometry/mesh.ts';
import { rectangle } from '../geometry/shapes.ts';
import { endGates, stripNetwork } from '../test/strip.ts';
import { fill } from './fill.ts';
import type { FillRequest } from './fill-types.ts';
import type { Action } from './sequence.ts';
import { STANDARD_GRAVITY } from './gravity.ts';
import { createNetworkBuilder, sheetNetwork } from './network.ts';
import { uniformSheet } from './sheet.ts';

const T = 1.5e-12; // permeability x thickness, m3
const S = 1.2e-3; // porosity x thickness, m
const DROP = 9e4;
const NODES = 201;
const WIDTH = 0.2;
const strip = (length = 1) => stripNetwork({ length, width: WIDTH, nodes: NODES, T, S });
const run = (changes: Partial<FillRequest> = {}) =>
  fill({
    network: strip(),
    gates: endGates(NODES),
    feedPressure: DROP + 2000,
    vacuumPressure: 2000,
    steps: 200,
    ...changes,
  });
const stripTime = (x: number) => (S * x * x) / (2 * T * DROP);
const nodeAt = (x: number) => Math.round(x * (NODES - 1));
const marks = [0.3, 0.5, 0.7, 0.9];

describe('weight', () => {
  const density = 1130;
  const column = (sign: 1 | -1, length: number, drop: number) =>
    run({
      network: strip(length),
      feedPressure: drop + 2000,
      gravity: {
        density,
        elevation: Float64Array.from({ length: NODES }, (_, i) => (sign * length * i) / (NODES - 1)),
      },
    });

  test('upward fill: t = S/(T rho g) [H ln(H/(H-x)) - x], H = dp/(rho g), within 1 %', () => {
    // Darcy with gravity. A weak vacuum and a tall part: the head takes most of the drive at the top.
    const [drop, length] = [20_000, 1.4];
    const H = drop / (density * STANDARD_GRAVITY);
    const { arrival } = column(1, length, drop);
    for (const share of marks) {
      const x = share * length;
      const expected = (S / (T * density * STANDARD_GRAVITY)) * (H * Math.log(H / (H - x)) - x);
      expect(Math.abs(arrival[nodeAt(share)] / expected - 1)).toBeLessThan(0.01);
    }
  });

  test('downward fill: the same formula with the weight turned, within 1 %', () => {
    const [drop, length] = [20_000, 1.4];
    const H = -drop / (density * STANDARD_GRAVITY);
    const { arrival, massError } = column(-1, length, drop);
    for (const share of marks) {
      const x = share * length;
      const expected = (-S / (T * density * STANDARD_GRAVITY)) * (H * Math.log(H / (H - x)) - x);
      expect(Math.abs(arrival[nodeAt(share)] / expected - 1)).toBeLessThan(0.01);
    }
    expect(massError).toBeLessThan(1e-6);
  });

  test('a part taller than the vacuum can lift stays dry at its top: the front stops at H, and no node holds less than nothing', () => {
    const result = column(1, 3, 20_000);
    const H = 20_000 / (density * STANDARD_GRAVITY);
    expect(result.isFilled).toBe(false);
    const last = result.samples[result.samples.length - 1]!;
    expect(Math.abs(last.stored / (S * WIDTH) / H - 1)).toBeLessThan(0.002);
    expect(Math.min(...result.final.level)).toBeGreaterThan(-0.05);
  });

  test('on a mesh it stops there too, within a centimetre on ten metres', () => {
    const [length, width, drop] = [10, 1, 5e4];
    const ends = [0, length].map((x) => ({
      name: x === 0 ? 'Feed' : 'Vent',
      points: [
        { x, y: 0 },
        { x, y: width },
      ],
    }));
    const mesh = meshPart({ outline: rectangle({ length, width }), holes: [], lines: ends, nodeCount: 400 });
    const sheet = uniformSheet(mesh.triangles.length / 3, { xx: T, yy: T, xy: 0, storage: S });
    const { samples, final } = fill({
      network: sheetNetwork(mesh, sheet),
      gates: ends.map(({ name }, i) => ({
        name,
        kind: i === 0 ? ('feed' as const) : ('vent' as const),
        nodes: mesh.lineNodes[i]!,
        startsOpen: true,
      })),
      feedPressure: drop + 2000,
      vacuumPressure: 2000,
      gravity: {
        density,
        elevation: Float64Array.from({ length: mesh.nodeCount }, (_, i) => mesh.positions[3 * i]!),
      },
    });
    const H = drop / (density * STANDARD_GRAVITY);
    expect(Math.abs(samples[samples.length - 1]!.stored / (S * width) - H)).toBeLessThan(0.01);
    expect(Math.min(...final.level)).toBeGreaterThan(-0.05);
  });
});

test('a hose in series: t = S/dp [x^2/(2T) + R w x], within 0.5 %', () => {
  // Resistances add: the hose R = 128 L / (pi d^4) by Hagen and Poiseuille, the wetted strip x / (T w).
  const [hose, bore] = [3, 0.004];
  const R = (128 * hose) / (Math.PI * bore ** 4);
  const builder = createNetworkBuilder();
  builder.addNetwork(strip());
  const pot = builder.addNodes([1e-12]);
  builder.join(pot, 0, 1 / R);
  const network = builder.build();
  const [feed, vent] = endGates(NODES);
  const { arrival } = run({ network, gates: [{ ...feed, supply: { pot, from: pot, junction: 0 } }, vent] });
  for (const x of marks) {
    const expected = (S / DROP) * ((x * x) / (2 * T) + R * WIDTH * x);
    expect(Math.abs(arrival[nodeAt(x)] / expected - 1)).toBeLessThan(5e-3);
  }
});

describe('a soft laminate', () => {
  // Terzaghi's consolidation: feed closed on a full strip, vent open; pressure from a straight line to nothing.
  // p = sum 2 p0 / (l_n L)^2 cos(l_n x) exp(-D l_n^2 t), l_n L = (n + 1/2) pi, D = T / (S b), pores 1 + b p.
  const b = 1e-7;
  const curve = {
    spacing: 5e3,
    pores: Float64Array.from({ length: 30 }, (_, n) => 1 + b * 5e3 * n),
    flow: new Float64Array(30).fill(1),
  };
  const softness = { curves: [curve], curveOf: new Int32Array(NODES) };
  const closes = 4 * stripTime(1);
  const settled = (until: number) =>
    run({
      softness,
      until: closes + until,
      actions: [{ gate: 0, opening: 0, when: { kind: 'time', time: closes } }],
    });

  test('settles after the feed shuts as one-dimensional consolidation does, within 2 % of the first pressure', () => {
    const D = T / (S * b);
    for (const share of [0.05, 0.3, 1]) {
      const time = share / D;
      const { final } = settled(time);
      expect(final.time).toBeCloseTo(closes + time, 6);
      for (const x of [0, 0.25, 0.5, 0.75]) {
        let expected = 0;
        for (let n = 0; n < 40; n++) {
          const l = (n + 0.5) * Math.PI;
          expected += ((2 * DROP) / l ** 2) * Math.cos(l * x) * Math.exp(-D * l * l * time);
        }
        expect(Math.abs(final.pressure[nodeAt(x)] - expected) / DROP).toBeLessThan(0.02);
        expect(final.pores[nodeAt(x)]).toBeCloseTo(1 + b * final.pressure[nodeAt(x)], 3);
      }
    }
  });

  test('what the widened pores hold comes from the pots, and leaves through the vent', () => {
    const { samples, massError, events } = settled(3 / (T / (S * b)));
    const last = samples[samples.length - 1];
    const most = Math.max(...samples.map((sample) => sample.stored));
    expect(massError).toBeLessThan(1e-6);
    expect(most).toBeGreaterThan(last.stored);
    expect(Math.abs(last.entered - last.stored - last.vented)).toBeLessThan(1e-6 * last.entered);
    expect(events.map(({ kind, gate }) => `${kind} ${gate}`)).toEqual(['opens 0', 'reached 1', 'closes 0']);
  });
});

describe('a resin that differs from place to place', () => {
  const law = (viscosity: (state: number, temperature: number) => number, rate = 0) => ({
    gelState: 1,
    rate: () => rate,
    viscosity,
  });

  test('one resin of one age: time runs as its viscosity thickens, t from the fluidity time in closed form', () => {
    // mu = mu0 exp(g t / t_gel): fluidity time = t_gel / (g mu0) (1 - exp(-g t / t_gel)).
    const [mu0, g] = [0.3, 3];
    const gel = 3 * mu0 * stripTime(1);
    const { arrival } = run({
      resin: {
        law: law((state) => mu0 * Math.exp(g * state), 1 / gel),
        temperature: () => 293,
        inletState: (time) => time / gel,
      },
    });
    for (const x of marks) {
      const expected = (-gel / g) * Math.log(1 - (stripTime(x) * g * mu0) / gel);
      expect(Math.abs(arrival[nodeAt(x)] / expected - 1)).toBeLessThan(0.015);
    }
  });

  test('a cold half behind a warm one: resistances add, within 1 %', () => {
    // The joint lies halfway between the last warm and the first cold node.
    const [warm, cold, L1] = [0.2, 0.6, 0.5 + 0.5 / (NODES - 1)];
    const { arrival } = run({
      resin: {
        law: law((_, temperature) => (temperature > 300 ? warm : cold)),
        temperature: (node) => (node <= nodeAt(0.5) ? 310 : 290),
        inletState: () => 0,
      },
    });
    for (const x of marks) {
      const d = x - L1;
      const expected =
        d <= 0
          ? warm * stripTime(x)
          : warm * stripTime(L1) + (S / (T * DROP)) * (warm * L1 * d + (cold * d * d) / 2);
      expect(Math.abs(arrival[nodeAt(x)] / expected - 1)).toBeLessThan(0.01);
    }
  });

  test('resin mixed as it goes in: its age at a place is the time since it entered', () => {
    // On a strip X = a sqrt(t); resin that stands at x entered when the front was at X - x.
    const { cureAtArrival, frames, fillTime } = run({
      frames: 20,
      resin: { law: law(() => 1, 1e-9), temperature: () => 293, inletState: () => 0 },
    });
    const { time, cure } = frames[10];
    const X = Math.sqrt(time / fillTime);
    for (const x of [0.1, 0.3, 0.5]) {
      const entered = (X - x) ** 2 * fillTime;
      expect(Math.abs(cure![nodeAt(x)] / (1e-9 * (time - entered)) - 1)).toBeLessThan(0.05);
    }
    // The front's own resin came first.
    expect(Math.abs(cureAtArrival![nodeAt(0.9)] / (1e-9 * stripTime(0.9)) - 1)).toBeLessThan(0.05);
  });

  test('gel stops the front', () => {
    const gel = 0.2 * stripTime(1);
    const { isFilled, arrival } = run({
      resin: { law: law(() => 1, 1 / gel), temperature: () => 293, inletState: (time) => time / gel },
    });
    expect(isFilled).toBe(false);
    expect(arrival[nodeAt(0.3)]).toBeLessThan(gel);
    expect(arrival[nodeAt(0.6)]).toBeNaN();
  });
});

describe('sequences', () => {
  const second = {
    name: 'Feed 2',
    kind: 'feed' as const,
    nodes: Int32Array.of(nodeAt(0.5)),
    startsOpen: false,
  };
  const gates = [...endGates(NODES), second];
  const open = (when: Action['when']): Action => ({ gate: 2, opening: 1, when });

  test('a triggered opening and the same opening at its resulting time give the same front', () => {
    const triggered = run({ gates, actions: [open({ kind: 'wet', nodes: second.nodes })] });
    const at = triggered.events.find(({ gate, kind }) => gate === 2 && kind === 'opens')!.time;
    const timed = run({ gates, actions: [open({ kind: 'time', time: at })] });
    expect(Math.abs(at / stripTime(0.5) - 1)).toBeLessThan(0.01);
    for (const x of marks)
      expect(Math.abs(timed.arrival[nodeAt(x)] / triggered.arrival[nodeAt(x)] - 1)).toBeLessThan(0.01);
    expect(timed.events.find(({ gate, kind }) => gate === 2 && kind === 'opens')!.time).toBeCloseTo(at, 5);
  });

  test('a feed far ahead of the front is no use, a delay counts on the clock, closing the first stops it', () => {
    const delayed = run({
      gates,
      actions: [open({ kind: 'wet', nodes: second.nodes, delay: 100 })],
      later: (time, seconds) => time + seconds,
    });
    const [reached, opens] = ['reached', 'opens'].map(
      (kind) => delayed.events.find((event) => event.gate === 2 && event.kind === kind)!.time,
    );
    expect(opens - reached).toBeCloseTo(100, 6);
    const closed = run({
      gates,
      actions: [
        open({ kind: 'wet', nodes: second.nodes }),
        { gate: 0, opening: 0, when: { kind: 'opened', gate: 2 } },
      ],
    });
    expect(closed.events.map(({ kind, gate }) => `${kind} ${gate}`)).toContain('closes 0');
    expect(Math.abs(closed.fillTime / (2 * stripTime(0.5)) - 1)).toBeLessThan(0.02);
  });

  test('a feed that shuts when so much has entered leaves the rest dry, to the step tolerance', () => {
    const volume = 0.6 * S * WIDTH;
    const result = run({ actions: [{ gate: 0, opening: 0, when: { kind: 'drawn', volume } }] });
    const last = result.samples[result.samples.length - 1];
    expect(result.isFilled).toBe(false);
    expect(Math.abs(last.entered / volume - 1)).toBeLessThan(0.01);
  });

  test('a trigger that never comes is told; a bad opening is refused', () => {
    const never = run({ gates, actions: [open({ kind: 'drawn', volume: 10 })] });
    expect(never.waiting).toHaveLength(1);
    expect(() => run({ actions: [{ gate: 7, opening: 1, when: { kind: 'time', time: 1 } }] })).toThrow(
      /not there/,
    );
    expect(() => run({ gates, actions: [open({ kind: 'wet', nodes: second.nodes, delay: 60 })] })).toThrow(
      /Choose a resin/,
    );
  });
});
