import { describe, expect, test } from '@jest/globals';
import { endGates } from '../test/strip.ts';
import { across, feedLine, plainZone, strip, stripEnds } from '../test/layouts.ts';
import { filmThrough, type Fabric, type FlowMesh } from '../laminate/materials.ts';
import { computeLayers, softLaminateOf } from '../laminate/layers.ts';
import { computeStack, type StackRequest } from '../laminate/stack.ts';
import { fill } from './fill.ts';
import { forecastFlow } from './forecast.ts';
import type { ForecastRequest } from './layout.ts';
import { createNetworkBuilder } from './network.ts';
import { valueAt } from './probe.ts';

const fabric: Fabric = {
  kind: 'fabric',
  name: 'Quad',
  arealWeight: 0.85,
  fibreDensity: 2550,
  compaction: { fractionAt100kPa: 0.53, exponent: 0.05 },
  permeability: { fraction: 0.52, along: 4e-11, across: 3e-11, through: 4e-12 },
};
const flowMesh: FlowMesh = {
  kind: 'flowMesh',
  name: 'Net',
  thickness: 1.2e-3,
  porosity: 0.86,
  permeability: 7.5e-9,
};
const request: StackRequest = {
  plies: Array.from({ length: 6 }, (_, i) => ({ fabric, angle: (i * Math.PI) / 4 })),
  flowMeshes: [flowMesh],
  availablePressure: 92_000,
  targetFraction: null,
};
const stack = computeStack(request);
const base: Omit<ForecastRequest, 'lines' | 'outline' | 'zones'> = {
  holes: [],
  feedPressure: 94_000,
  vacuumPressure: 2_000,
  density: 1130,
  nodeCount: 1200,
};

describe('layers of a stack', () => {
  test('add up to the averaged stack, and mesh feeds the plies through their own half', () => {
    const layers = computeLayers(request);
    const total = (of: (layer: (typeof layers)[number]) => number) =>
      layers.reduce((sum, l) => sum + of(l), 0);
    expect(layers).toHaveLength(6);
    expect(total((l) => l.storage)).toBeCloseTo(stack.storage, 12);
    for (const key of ['xx', 'yy', 'xy'] as const)
      expect(Math.abs(total((l) => l.transmissibility[key]) - stack.transmissibility[key])).toBeLessThan(
        1e-18,
      );
    expect(layers[5].toNext).toBe(0);
    // Distances between centres over the permeability through the plies, in series.
    const scale =
      ((1 - stack.fibreVolumeFraction) ** 3 / stack.fibreVolumeFraction ** 2 / (0.48 ** 3 / 0.52 ** 2)) *
      4e-12;
    const through = layers.slice(1, 5).reduce((sum, l) => sum + 1 / l.toNext, 0);
    const centres = stack.laminateThickness * (1 - 0.05 - 0.05);
    expect(through).toBeCloseTo(centres / scale, -3);
  });

  test('a core parts the skins by the resistance of its holes: 128 t / (n pi d^4)', () => {
    const core = {
      kind: 'core' as const,
      name: 'Foam',
      thickness: 0.015,
      density: 80,
      resinUptake: 3e-4,
      holes: { diameter: 2e-3, spacing: 0.02 },
    };
    const layers = computeLayers({ ...request, core });
    const plain = computeLayers({ ...request, core: { ...core, thickness: 1e-9 } });
    const extra = 1 / layers[2].toNext - 1 / plain[2].toNext;
    expect(extra / ((128 * 0.015 * 0.02 ** 2) / (Math.PI * 0.002 ** 4))).toBeCloseTo(1, 4);
    expect(layers.reduce((sum, l) => sum + l.storage, 0)).toBeCloseTo(
      computeStack({ ...request, core }).storage,
      12,
    );
  });

  test('peel ply and film stand between mesh and plies, slits carry at the faces of the core', () => {
    const peelPly = {
      kind: 'peelPly' as const,
      name: 'Nylon',
      resinUptake: 8e-5,
      thickness: 1e-4,
      through: 1e-12,
    };
    const film = {
      kind: 'film' as const,
      name: 'P1',
      thickness: 25e-6,
      holes: { diameter: 5e-4, spacing: 0.025 },
    };
    const top = (more: Partial<StackRequest>) => 1 / computeLayers({ ...request, ...more })[0]!.toNext;
    expect((top({ peelPlies: [peelPly] }) - top({})) / 1e8).toBeCloseTo(1, 4);
    const plies = computeLayers(request)[1]!.transmissibility;
    const height = 0.1 * stack.laminateThickness;
    const inPlane = Math.sqrt(plies.xx * plies.yy - plies.xy ** 2) / height;
    const through = height / (2 * (top({}) - 1.2e-3 / (2 * 7.5e-9)));
    expect((top({ films: [film] }) - top({})) * filmThrough(film, { inPlane, through })).toBeCloseTo(1, 6);
    const core = {
      kind: 'core' as const,
      name: 'Slit foam',
      thickness: 0.02,
      density: 80,
      resinUptake: 3e-4,
      slits: { width: 0.001, spacing: 0.03, depth: 0.4 },
    };
    const faces = [core, { ...core, slits: null }].map((own) =>
      computeLayers({ ...request, core: own }).map((layer) => layer.transmissibility.xx),
    );
    const gained = faces[0]!.map((xx, n) => xx - faces[1]![n]!);
    // 2.05e-11 m3 in all, half a face.
    [0, 0, 1.025e-11, 1.025e-11, 0, 0].forEach((expected, n) =>
      expect(Math.abs(gained[n]! - expected)).toBeLessThan(1e-13),
    );
  });

  test('a core without holes leaves its far side dry, and the run says so', () => {
    const core = { kind: 'core' as const, name: 'Closed', thickness: 0.01, density: 60, resinUptake: 0 };
    const layers = computeLayers({ ...request, core });
    expect(layers[2]!.toNext).toBe(0);
    const flow = forecastFlow({
      ...base,
      nodeCount: 300,
      outline: strip(0.8, 0.1),
      lines: stripEnds(0.8, 0.1),
      zones: [{ ...plainZone({ T: 1e-11, S: 1e-3 }), layers }],
    });
    expect(flow.isFilled).toBe(false);
    const [bag, mould] = [flow.layers[0]!, flow.layers[5]!].map(({ arrival }) => arrival);
    expect(bag!.every(Number.isFinite)).toBe(true);
    expect(mould!.every(Number.isNaN)).toBe(true);
    expect(flow.samples[flow.samples.length - 1]!.wet).toBeCloseTo(0, 9);
  });

  test('a soft laminate follows its unloading curve: V = V_wet (s/s0)^b, and lets more through', () => {
    const soft = softLaminateOf({
      ...request,
      plies: request.plies.map((ply) => ({
        ...ply,
        fabric: {
          ...fabric,
          compaction: {
            ...fabric.compaction,
            wet: { fractionAt100kPa: 0.55, exponent: 0.05 },
            unloadingExponent: 0.03,
          },
        },
      })),
    });
    const first = 0.55 * 0.92 ** 0.05;
    expect(soft.fraction[0]).toBeCloseTo(first, 9);
    expect(soft.fraction[20]).toBeCloseTo(first * 0.5 ** 0.03, 9);
    expect(soft.thickness[20] * soft.fraction[20]).toBeCloseTo((6 * 0.85) / 2550, 12);
    for (const values of [soft.plyPores, soft.plyFlow, soft.stackPores, soft.stackFlow])
      values.forEach((value, n) => expect(value).toBeGreaterThanOrEqual(n > 0 ? values[n - 1] : 1));
  });
});

describe('lag between mesh and mould side', () => {
  const length = 0.8;
  const width = 0.1;
  const run = (layered: boolean) =>
    forecastFlow({
      ...base,
      outline: strip(length, width),
      lines: stripEnds(length, width),
      zones: [
        {
          ...plainZone({ T: stack.transmissibility.xx, S: stack.storage }),
          ...(layered ? { layers: computeLayers(request) } : {}),
        },
      ],
    });

  test('both fronts agree with a finely resolved section through the thickness', () => {
    // The section as a grid of its own: 161 columns, the mesh over 40 rows of plies of equal height.
    const [columns, rows] = [161, 40];
    const h = length / (columns - 1);
    const rowHeight = stack.laminateThickness / rows;
    const plyT = (stack.transmissibility.xx * (1 - stack.meshShare)) / rows;
    const meshT = 7.5e-9 * 1.2e-3;
    const [mean] = [stack.fibreVolumeFraction];
    const through = (4e-12 * ((1 - mean) ** 3 / mean ** 2)) / (0.48 ** 3 / 0.52 ** 2);
    const builder = createNetworkBuilder();
    const storages = [1.2e-3 * 0.86, ...new Array<number>(rows).fill(rowHeight * (1 - mean))];
    storages.forEach((storage, r) => {
      builder.addNodes(
        Float64Array.from(
          { length: columns },
          (_, c) => storage * h * width * (c === 0 || c === columns - 1 ? 0.5 : 1),
        ),
      );
      for (let c = 0; c + 1 < columns; c++)
        builder.join(r * columns + c, r * columns + c + 1, ((r === 0 ? meshT : plyT) * width) / h);
    });
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++) {
        const area = h * width * (c === 0 || c === columns - 1 ? 0.5 : 1);
        const resistance = r === 0 ? rowHeight / (2 * through) + 1.2e-3 / (2 * 7.5e-9) : rowHeight / through;
        builder.join(r * columns + c, (r + 1) * columns + c, area / resistance);
      }
    const fine = fill({
      network: builder.build(),
      gates: endGates(columns),
      feedPressure: 94_000,
      vacuumPressure: 2_000,
    });
    const ours = run(true);
    for (const x of [0.3, 0.5, 0.7]) {
      const column = Math.round(x / h);
      const [top, bottom] = [fine.arrival[column], fine.arrival[rows * columns + column]];
      const at = (layer: number) => valueAt(ours.mesh, ours.layers[layer].arrival, { x, y: width / 2 });
      expect(Math.abs(at(0) / top - 1)).toBeLessThan(0.02);
      expect(Math.abs(at(5) / bottom - 1)).toBeLessThan(0.05);
      expect(bottom).toBeGreaterThan(1.05 * top);
    }
  });

  test('with a resin of its own the age is read where it is oldest through the thickness: where the mould side is wet last', () => {
    // All resin of one age, t / t_gel: the age at a place is the time at which it is wet through.
    const gel = 4000;
    const flow = forecastFlow({
      ...base,
      outline: strip(length, width),
      lines: stripEnds(length, width),
      zones: [
        { ...plainZone({ T: stack.transmissibility.xx, S: stack.storage }), layers: computeLayers(request) },
      ],
      resin: {
        law: { gelState: 1, rate: () => 1 / gel, viscosity: () => 1 },
        temperature: () => 293,
        inletState: (time) => time / gel,
      },
    });
    const [bag, mould] = [flow.layers[0]!, flow.layers[flow.layers.length - 1]!];
    for (const x of [0.3, 0.5, 0.7]) {
      const at = (values: Float64Array) => valueAt(flow.mesh, values, { x, y: width / 2 });
      expect(at(mould.arrival)).toBeGreaterThan(1.2 * at(bag.arrival));
      expect(Math.abs((at(flow.ageAtArrival!) * gel) / at(flow.arrival) - 1)).toBeLessThan(0.05);
    }
    expect(flow.oldestAtArrival!).toBeGreaterThan((0.95 * flow.fillTime) / gel);
  });

  test('the lag is of the order of sqrt(T_mesh h / (2 Kzz)), and the averaged laminate hides it', () => {
    // Order of magnitude only: quasi-steady lag scale; Hsiao et al. 2000.
    const { lag } = run(true);
    const scale = Math.sqrt((7.5e-9 * 1.2e-3 * stack.laminateThickness) / (2 * 4e-12));
    expect(lag!.largest).toBeGreaterThan(scale / 3);
    expect(lag!.largest).toBeLessThan(scale * 3);
    expect(run(false).lag).toBeNull();
  });
});

describe('lines as a network', () => {
  const width = 0.5;
  const plain = { ...base, outline: strip(1, width), zones: [plainZone({ T: 2e-12, S: 1e-3 })] };

  test('a thin feed channel starves its far end; a wide one feeds evenly', () => {
    const reach = (bore: number) => {
      const lines = stripEnds(1, width);
      const hose = { length: 0.5, bore: 0.01 };
      const { mesh, arrival } = forecastFlow({
        ...plain,
        lines: [{ ...lines[0], bore, hose, inlet: 0 }, lines[1]],
      });
      return [0, width].map((y) => valueAt(mesh, arrival, { x: 0.3, y }));
    };
    const [near, far] = reach(0.012);
    const [thinNear, thinFar] = reach(0.0008);
    expect(far / near).toBeLessThan(1.01);
    expect(thinFar / thinNear).toBeGreaterThan(1.2);
  });

  test('two feeds behind a thin tee hose share its resistance', () => {
    // R = 128 L / (pi d^4) carries both halves' flow: the strip of full width behind one hose.
    const half = (y: number, id: string) =>
      feedLine({
        id,
        name: id,
        points: [
          { x: 0, y },
          { x: 0, y: y + width / 2 },
        ],
        hose: { length: 1e-3, bore: 0.02, tee: 'tee' },
      });
    const hose = { length: 2, bore: 0.004 };
    const { fillTime } = forecastFlow({
      ...plain,
      tees: [{ id: 'tee', hose }],
      lines: [half(0, 'a'), half(width / 2, 'b'), stripEnds(1, width)[1]],
    });
    const R = (128 * hose.length) / (Math.PI * hose.bore ** 4);
    const bores = (Math.PI / 4) * 0.012 ** 2 * width;
    const expected = (1e-3 / 92_000) * (1 / (2 * 2e-12) + R * width) + (R * bores) / 92_000;
    expect(Math.abs(fillTime / expected - 1)).toBeLessThan(0.01);
  });

  test('a race-tracking edge runs ahead of the laminate', () => {
    const race = feedLine({
      id: 'race',
      name: 'Gap',
      kind: 'race',
      bore: 0.002,
      points: [
        { x: 0, y: 0 },
        { x: 0.9, y: 0 },
      ],
    });
    const { mesh, arrival } = forecastFlow({ ...plain, lines: [...stripEnds(1, width), race] });
    const at = (y: number) => valueAt(mesh, arrival, { x: 0.5, y });
    expect(at(0)).toBeLessThan(0.5 * at(width));
  });

  test('a brake strip of low permeability holds the front by its own resistance', () => {
    const brake = plainZone({
      T: 2e-14,
      S: 1e-4,
      outline: [
        { x: 0.8, y: -0.1 },
        { x: 0.85, y: -0.1 },
        { x: 0.85, y: 0.6 },
        { x: 0.8, y: 0.6 },
      ],
    });
    const { fillTime } = forecastFlow({
      ...plain,
      nodeCount: 4800,
      zones: [...plain.zones, brake],
      lines: stripEnds(1, width),
    });
    // Three zones in series (Darcy, resistances add): each adds S d (R before it) + S d^2 / (2 T).
    let [R, expected] = [0, 0];
    for (const [d, T, S] of [
      [0.8, 2e-12, 1e-3],
      [0.05, 2e-14, 1e-4],
      [0.15, 2e-12, 1e-3],
    ]) {
      expected += (S * (R * d + (d * d) / (2 * T))) / 92_000;
      R += d / T;
    }
    expect(Math.abs(fillTime / expected - 1)).toBeLessThan(0.01);
  });

  test('what a practitioner would point at is found: early flood, floating bag, thin hose, a trigger that never comes', () => {
    const lines = stripEnds(1, width);
    const { findings } = forecastFlow({
      ...plain,
      lines: [
        { ...lines[0], hose: { length: 3, bore: 0.003 }, potLevel: 0.8 },
        feedLine({
          id: 'late',
          name: 'Late',
          points: across(0.3, width),
          startsOpen: false,
          actions: [{ opening: 1, when: { kind: 'drawn', volume: 5, delay: 0 } }],
        }),
        feedLine({
          id: 'v',
          name: 'Side vent',
          kind: 'vent',
          points: [{ x: 0.4, y: width }],
          startsOpen: true,
        }),
        lines[1],
      ],
    });
    const kinds = findings.map(({ kind }) => kind);
    expect(kinds).toEqual(expect.arrayContaining(['ventFloodsEarly', 'hoseTakes', 'neverTriggers']));
    const high = forecastFlow({ ...plain, lines: [{ ...lines[0], potLevel: 0.8 }, lines[1]] });
    const floats = high.findings.find((finding) => finding.kind === 'bagFloats')!;
    // 0.8 m of resin over the inlet: rho g h above ambient.
    expect(floats.kind === 'bagFloats' && floats.pressure).toBeCloseTo(94_000 + 1130 * 9.80665 * 0.8, -1);
    expect(forecastFlow({ ...plain, lines }).findings).toEqual([]);
  });

  test('an opening that waits for nothing that is there is refused', () => {
    const waits = feedLine({
      id: 'b',
      name: 'B',
      points: across(0.4, width),
      startsOpen: false,
      actions: [{ opening: 1, when: { kind: 'passed', what: 'gone', distance: 0, delay: 0 } }],
    });
    expect(() => forecastFlow({ ...plain, lines: [...stripEnds(1, width), waits] })).toThrow(
      /neither a line nor a mark/,
    );
  });
});
