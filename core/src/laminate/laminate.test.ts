import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fractionUnderPressure, fractionUnloaded, pressureForFraction } from './compaction.ts';
import type { Fabric, FlowMesh } from './materials.ts';
import { ASSUMED_THROUGH, gebart, permeabilityAt } from './permeability.ts';
import { computeStack } from './stack.ts';

const fabric = (changes: Partial<Fabric> = {}): Fabric => ({
  kind: 'fabric',
  name: 'Test cloth',
  arealWeight: 0.2,
  fibreDensity: 1800,
  compaction: { fractionAt100kPa: 0.5, exponent: 0 },
  permeability: { fraction: 0.5, along: 2e-10, across: 1e-10 },
  ...changes,
});
const OZ_PER_YD2 = 0.03390575; // NIST SP 811
const stackAt = (plies: Fabric[], fraction: number) =>
  computeStack({
    plies: plies.map((ply) => ({
      fabric: { ...ply, compaction: { fractionAt100kPa: fraction, exponent: 0 } },
      angle: 0,
    })),
    availablePressure: 1e5,
    targetFraction: null,
  });

describe('thickness and weight', () => {
  test('6 + 11 oz/yd2 of carbon is about 0.64 mm at a fibre volume of 50 %', () => {
    // Common practice, no source: a shop calls the pair 1/32 in, which is a fibre volume of about 40 %.
    const pair = [6, 11].map((ounces) => fabric({ arealWeight: ounces * OZ_PER_YD2 }));
    expect(stackAt(pair, 0.5).laminateThickness).toBeCloseTo(0.64e-3, 5);
    const at132 = (17 * OZ_PER_YD2) / 1800 / (0.0254 / 32);
    expect(at132).toBeCloseTo(0.4, 1);
    expect(stackAt(pair, at132).laminateThickness).toBeCloseTo(0.0254 / 32, 9);
  });

  test('six plies of 200 g/m2 measured at 1.52 to 1.65 mm', () => {
    // Common practice, no source: fibre volume 0.44 to 0.40 (density 1800 assumed).
    expect(stackAt(Array(6).fill(fabric()), 0.44).laminateThickness).toBeCloseTo(1.52e-3, 4);
    expect(stackAt(Array(6).fill(fabric()), 0.404).laminateThickness).toBeCloseTo(1.65e-3, 5);
  });

  test('fibre and resin fill the laminate exactly (ASTM D3171 identity)', () => {
    const stack = stackAt([fabric(), fabric({ arealWeight: 0.85, fibreDensity: 2550 })], 0.52);
    expect(0.2 / 1800 + 0.85 / 2550 + stack.resinInPlies).toBeCloseTo(stack.laminateThickness, 12);
    expect(stack.fibreWeight).toBeCloseTo(1.05, 12);
  });

  test('adding a ply changes thickness, weight, storage and permeability together', () => {
    const [one, two] = [stackAt([fabric()], 0.5), stackAt([fabric(), fabric()], 0.5)];
    for (const key of ['laminateThickness', 'fibreWeight', 'storage', 'resinInPlies'] as const)
      expect(two[key]).toBeCloseTo(2 * one[key], 12);
    expect(two.transmissibility.xx / one.transmissibility.xx).toBeCloseTo(2, 12);
  });
});

describe('compaction', () => {
  const glass = fabric({ compaction: { fractionAt100kPa: 0.52, exponent: 0.06 } });
  const mat = fabric({ compaction: { fractionAt100kPa: 0.25, exponent: 0.15 }, arealWeight: 0.45 });

  test('plies of different kinds share the pressure, not the fraction', () => {
    const pressure = pressureForFraction([glass, mat], 0.28, 1e5);
    const stack = computeStack({
      plies: [glass, mat].map((f) => ({ fabric: f, angle: 0 })),
      availablePressure: 1e5,
      targetFraction: 0.28,
    });
    expect(stack.fibreVolumeFraction).toBeCloseTo(0.28, 9);
    expect(stack.plies[0].fraction).toBeCloseTo(fractionUnderPressure(glass, pressure), 9);
    expect(stack.plies[0].fraction).toBeGreaterThan(stack.plies[1].fraction);
  });

  test('a target the vacuum cannot reach is refused with what can be reached', () => {
    const reachable = 0.52 * 0.8 ** 0.06;
    const attempt = () => pressureForFraction([glass], 0.6, 0.8e5);
    expect(attempt).toThrow(`${(100 * reachable).toFixed(1)} % is the most here`);
  });
});

describe('permeability of a stack', () => {
  test('turning every ply turns the tensor; its trace and determinant stay', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (angle) => {
        const make = (a: number) =>
          computeStack({
            plies: [{ fabric: fabric(), angle: a }],
            availablePressure: 1e5,
            targetFraction: null,
          });
        const [t, u] = [make(0).transmissibility, make(angle).transmissibility];
        expect((u.xx + u.yy) / (t.xx + t.yy)).toBeCloseTo(1, 9);
        expect((u.xx * u.yy - u.xy ** 2) / (t.xx * t.yy)).toBeCloseTo(1, 9);
      }),
    );
  });

  test('Carman-Kozeny: from 50 to 55 % the permeability falls by (0.45/0.5)^3 (0.5/0.55)^2', () => {
    const k = (fraction: number) => {
      const stack = stackAt([fabric()], fraction);
      return stack.transmissibility.xx / stack.laminateThickness;
    };
    expect(k(0.55) / k(0.5)).toBeCloseTo(0.9 ** 3 * (0.5 / 0.55) ** 2, 9);
  });

  test('the mesh adds its own flow and pores', () => {
    const flowMesh: FlowMesh = {
      kind: 'flowMesh',
      name: 'Mesh',
      thickness: 1e-3,
      porosity: 0.85,
      permeability: 2e-9,
    };
    const request = { plies: [{ fabric: fabric(), angle: 0 }], availablePressure: 1e5, targetFraction: null };
    const [bare, meshed] = [computeStack(request), computeStack({ ...request, flowMeshes: [flowMesh] })];
    expect(meshed.transmissibility.xx - bare.transmissibility.xx).toBeCloseTo(2e-12, 20);
    expect(meshed.storage - bare.storage).toBeCloseTo(0.85e-3, 12);
    expect(meshed.meshShare).toBeGreaterThan(0.9);
  });

  test.each<[RegExp, Partial<Fabric>]>([
    [/Areal weight of Test cloth must be a number above zero/, { arealWeight: 0 }],
    [/Fibre density of Test cloth/, { fibreDensity: NaN }],
    [/Permeability of Test cloth/, { permeability: { fraction: 0.5, along: 0, across: 1e-10 } }],
    [/past what fibres can pack/, { compaction: { fractionAt100kPa: 0.9, exponent: 0 } }],
  ])('bad numbers: %s', (message, changes) => {
    expect(() =>
      computeStack({
        plies: [{ fabric: fabric(changes), angle: 0 }],
        availablePressure: 1e5,
        targetFraction: null,
      }),
    ).toThrow(message);
  });

  test('no plies', () => {
    expect(() => computeStack({ plies: [], availablePressure: 1e5, targetFraction: null })).toThrow(
      /no plies/,
    );
  });
});

describe('permeability of a fabric', () => {
  test('Gebart: along and across aligned fibres, both packings', () => {
    // Gebart 1992, written out: R = 8.5 um, V = 0.5.
    const R = 8.5e-6;
    const quadratic = gebart({ fibreRadius: R, packing: 'quadratic' }, 0.5, 'Uni');
    expect(quadratic.along / (((8 * R * R) / 57) * (0.5 ** 3 / 0.5 ** 2))).toBeCloseTo(1, 12);
    expect(quadratic.across / (0.4001 * (Math.sqrt(0.785398 / 0.5) - 1) ** 2.5 * R * R)).toBeCloseTo(1, 3);
    const hexagonal = gebart({ fibreRadius: R, packing: 'hexagonal' }, 0.5, 'Uni');
    expect(hexagonal.along / (((8 * R * R) / 53) * 0.5)).toBeCloseTo(1, 12);
    // C1 = 16 / (9 pi sqrt 6) = 0.231, Vmax = 0.9069.
    expect(hexagonal.across / (0.231 * (Math.sqrt(0.9069 / 0.5) - 1) ** 2.5 * R * R)).toBeCloseTo(1, 2);
  });

  test('past the fraction where fibres touch there is no flow to compute', () => {
    expect(() => gebart({ fibreRadius: 8e-6, packing: 'quadratic' }, 0.79, 'Uni 300')).toThrow(
      /Uni 300 is pressed to a fibre volume of 79 %.*touch/,
    );
    expect(() => gebart({ fibreRadius: 0, packing: 'hexagonal' }, 0.5, 'Uni')).toThrow(/Fibre radius/);
  });

  test('one point scales as Carman-Kozeny, (1 - V)^3 / V^2', () => {
    const at = permeabilityAt({ fraction: 0.5, along: 4e-11, across: 2e-11 }, 0.6, 'Cloth');
    expect(at.along / 4e-11).toBeCloseTo(0.4 ** 3 / 0.36 / (0.5 ** 3 / 0.25), 12);
    expect(at.through).toBeCloseTo(ASSUMED_THROUGH * at.across, 20);
  });

  test('a measured table gives its points back, and in between the mean of the logs', () => {
    const table = [
      { fraction: 0.55, along: 1e-11, across: 5e-12, through: 1e-12 },
      { fraction: 0.45, along: 9e-11, across: 4.5e-11, through: 4e-12 },
    ];
    const at = (fraction: number) => permeabilityAt({ table }, fraction, 'Cloth');
    expect(at(0.45).along).toBeCloseTo(9e-11, 20);
    expect(at(0.5).along).toBeCloseTo(3e-11, 20);
    expect(at(0.5).through).toBeCloseTo(2e-12, 20);
    expect(at(0.6).along / 1e-11).toBeCloseTo(0.4 ** 3 / 0.36 / (0.45 ** 3 / 0.55 ** 2), 12);
    expect(() => permeabilityAt({ table: [] }, 0.5, 'Cloth')).toThrow(/table of Cloth is empty/);
    expect(() => permeabilityAt({ fraction: 0.5, along: 0, across: 1e-11 }, 0.5, 'Cloth')).toThrow(
      /Permeability of Cloth/,
    );
  });
});

test('dry, wet and unloading: three curves, the last from where the wet one was pressed to', () => {
  const soaked = fabric({
    compaction: {
      fractionAt100kPa: 0.48,
      exponent: 0.06,
      wet: { fractionAt100kPa: 0.52, exponent: 0.05 },
      unloadingExponent: 0.02,
    },
  });
  expect(fractionUnderPressure(soaked, 5e4)).toBeCloseTo(0.48 * 0.5 ** 0.06, 12);
  expect(fractionUnderPressure(soaked, 5e4, 'wet')).toBeCloseTo(0.52 * 0.5 ** 0.05, 12);
  expect(fractionUnloaded(soaked, 2.5e4, 1e5)).toBeCloseTo(0.52 * 0.25 ** 0.02, 12);
  expect(fractionUnloaded(soaked, 1e5, 1e5)).toBeCloseTo(0.52, 12);
});
