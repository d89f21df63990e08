import { describe, expect, test } from '@jest/globals';
import { fromUnit } from '../units/format.ts';
import {
  coreThrough,
  coreUptake,
  filmThrough,
  peelPlyResistance,
  slitFlow,
  type Core,
  type Fabric,
} from './materials.ts';
import { checkBook, type BookPly } from './ply-book.ts';
import { computeStack, pliesUnderCore } from './stack.ts';

const fabric = (arealWeight: number, fibreDensity = 1790, fractionAt100kPa = 0.5): Fabric => ({
  kind: 'fabric',
  name: 'Cloth',
  arealWeight,
  fibreDensity,
  compaction: { fractionAt100kPa, exponent: 0.05 },
  permeability: { fraction: 0.5, along: 3e-11, across: 3e-11 },
});
const stackOf = (fabrics: Fabric[], fraction: number | null, pressure?: number) =>
  computeStack({
    plies: fabrics.map((item) => ({ fabric: item, angle: 0 })),
    availablePressure: 95_000,
    targetFraction: fraction,
    targetPressure: pressure,
  });

describe('worked examples', () => {
  test('6 + 11 oz/yd2 of carbon weigh 576 g/m2 and make 0.58 mm at 55 % fibre', () => {
    // 1 oz/yd2 = 33.90575 g/m2 (NIST SP 811). 17 oz/yd2 -> 576.4 g/m2; over 1790 kg/m3 x 0.55 -> 0.5855 mm.
    const [six, eleven] = [6, 11].map((value) => fabric(fromUnit(value, 'arealWeight', 'oz/yd²'), 1790, 0.6));
    const stack = stackOf([six!, eleven!], 0.55);
    expect(stack.fibreWeight).toBeCloseTo(17 * 0.03390575, 9);
    expect(stack.laminateThickness).toBeCloseTo((17 * 0.03390575) / (1790 * 0.55), 9);
    expect(stack.laminateThickness * 1e3).toBeCloseTo(0.585, 2);
  });

  test('six plies of 200 g/m2 carbon at 1.52 to 1.65 mm are 41 to 44 % fibre (common practice, no source)', () => {
    // 6 x 0.2 kg/m2 over 1790 kg/m3 is 0.6704 mm of solid fibre.
    const solid = (6 * 0.2) / 1790;
    for (const [thickness, percent] of [
      [1.52e-3, 44.1],
      [1.65e-3, 40.6],
    ] as const) {
      const fraction = solid / thickness;
      expect(100 * fraction).toBeCloseTo(percent, 1);
      const loose = fabric(0.2, 1790, 0.46);
      expect(stackOf(Array(6).fill(loose), fraction, undefined).laminateThickness).toBeCloseTo(thickness, 9);
    }
  });

  test('ASTM D3171 method II: fibre fraction = areal weight x plies / (density x thickness), of what was computed', () => {
    for (const fraction of [0.35, 0.48, 0.51]) {
      const fabrics = [fabric(0.85, 2550, 0.53), fabric(0.6, 2550, 0.53), fabric(0.3, 2550, 0.53)];
      const stack = stackOf(fabrics, fraction);
      expect(stack.fibreWeight / (2550 * stack.laminateThickness)).toBeCloseTo(fraction, 9);
    }
  });

  test('fibre fraction and pressure give each other, as far as the bag presses', () => {
    const fabrics = Array(4).fill(fabric(0.3, 2550, 0.52)) as Fabric[];
    const pressed = stackOf(fabrics, null, 60_000);
    expect(pressed.compactionPressure).toBe(60_000);
    const back = stackOf(fabrics, pressed.fibreVolumeFraction);
    expect(back.compactionPressure / 60_000).toBeCloseTo(1, 4);
    expect(() => stackOf(fabrics, null, 99_000)).toThrow(/presses with 950 mbar at most, 990 mbar is wanted/);
    expect(() => stackOf(fabrics, null, NaN)).toThrow(/Compaction pressure/);
  });
});

describe('cores', () => {
  const core: Core = { kind: 'core', name: 'Foam', thickness: 0.02, density: 60, resinUptake: null };

  test('holes take pi d^2 / 4 s^2 of the thickness, slits both ways 2 w / s less their crossings; two faces 0.15 mm each', () => {
    // Face pick-up 0.1 to 0.25 mm a face, from memory.
    const faces = 3e-4;
    expect(coreUptake(core)).toBe(faces);
    const holes = { diameter: 0.003, spacing: 0.02 };
    expect(coreUptake({ ...core, holes })).toBeCloseTo(((Math.PI / 4) * 9e-6 * 0.02) / 4e-4 + faces, 12);
    const slits = { width: 0.001, spacing: 0.03, depth: 0.8 };
    expect(coreUptake({ ...core, slits })).toBeCloseTo((1 - (29 / 30) ** 2) * 0.8 * 0.02 + faces, 12);
    expect(coreUptake({ ...core, holes, slits, resinUptake: 4e-4 })).toBe(4e-4);
  });

  test('slits carry like a duct: 1 x 8 mm every 30 mm 2.05e-11 m3, twice an open mesh', () => {
    // (w^3 d / 12) (1 - 0.63 w / d) / s.
    const slits = { width: 0.001, spacing: 0.03, depth: 0.4 };
    expect(Math.abs(slitFlow({ ...core, slits }) / 2.05e-11 - 1)).toBeLessThan(0.005);
    const duct = ((1e-9 * 8e-3) / 12) * (1 - 0.63 / 8);
    expect(Math.abs((slitFlow({ ...core, slits }) * 0.03) / duct - 1)).toBeLessThan(0.002);
    expect(slitFlow(core)).toBe(0);
    const request = {
      plies: [{ fabric: fabric(0.3), angle: 0 }],
      availablePressure: 95_000,
      targetFraction: null,
    };
    const [closed, cut] = [core, { ...core, slits }].map((own) => computeStack({ ...request, core: own }));
    for (const axis of ['xx', 'yy'] as const)
      expect(cut!.transmissibility[axis] - closed!.transmissibility[axis]).toBeCloseTo(
        slitFlow({ ...core, slits }),
        20,
      );
  });

  test('from face to face through holes and slits cut right through; through closed cells nothing', () => {
    expect(coreThrough(core)).toBe(0);
    expect(coreThrough({ ...core, slits: { width: 0.001, spacing: 0.03, depth: 0.8 } })).toBe(0);
    // Plane flow, w^2 / 12 over the thickness, in the share of the face that they take.
    const cut = coreThrough({ ...core, slits: { width: 0.001, spacing: 0.03, depth: 1 } });
    expect(cut / (((1 - (29 / 30) ** 2) * 1e-6) / 12 / 0.02)).toBeCloseTo(1, 9);
    const holed = coreThrough({ ...core, holes: { diameter: 0.002, spacing: 0.02 } });
    expect(holed / ((Math.PI * 0.002 ** 4) / (128 * 0.02 * 0.02 ** 2))).toBeCloseTo(1, 9);
  });

  test('lies where it is put, and in the middle otherwise', () => {
    const plies = Array(5).fill({ fabric: fabric(0.3), angle: 0 });
    const request = { plies, availablePressure: 95_000, targetFraction: null };
    expect(pliesUnderCore({ ...request, core })).toBe(2);
    expect(pliesUnderCore({ ...request, core, pliesUnderCore: 4 })).toBe(4);
    expect(pliesUnderCore(request)).toBe(5);
  });
});

describe('symmetry and balance', () => {
  const uni = (angle: number, arealWeight = 0.3): BookPly => ({
    materialId: 'uni',
    angle: (angle * Math.PI) / 180,
    arealWeight,
    directions: [0],
  });
  const check = (...plies: BookPly[]) => checkBook(plies, null);

  test.each<[number[], boolean, string]>([
    [[0, 45, -45, 90, 90, -45, 45, 0], true, 'yes'],
    [[0, 90], false, 'yes'],
    [[45, -45], false, 'yes'],
    [[45, 45], true, 'no'],
    [[0, 45, 0], true, 'no'],
    [[0, 180, 0], true, 'yes'],
    [[-30, 30, 30, -30], true, 'yes'],
  ])('%j', (angles, isSymmetric, balance) => {
    expect(check(...angles.map((angle) => uni(angle)))).toMatchObject({ isSymmetric, balance });
  });

  test('names the ply whose partner differs', () => {
    expect(check(uni(0), uni(45), uni(90), uni(0)).firstOdd).toBe(1);
    expect(check(uni(0)).firstOdd).toBeNull();
  });

  test('a core off the middle makes it unsymmetric', () => {
    const plies = [uni(0), uni(0), uni(0), uni(0)];
    expect(checkBook(plies, 2).isSymmetric).toBe(true);
    expect(checkBook(plies, 3)).toMatchObject({ isSymmetric: false, firstOdd: 1 });
  });

  test('a woven ply at 45 balances itself; a mat does always; unsaid directions are not guessed', () => {
    const woven: BookPly = { ...uni(45), directions: [0, Math.PI / 2] };
    expect(check(woven).balance).toBe('yes');
    expect(check({ ...uni(20), directions: [] }, woven).balance).toBe('yes');
    expect(check({ ...uni(0), directions: null }).balance).toBe('unknown');
  });
});

describe('what lies between mesh and plies', () => {
  test('a film lets through 7.15e-12 m: 1600 holes a square metre of 0.5 mm in 25 um, over 2e-11 and 1e-12 m2', () => {
    // 128 t / (pi d^4) + 24 / d^3 + 1 / (2 d sqrt(K_xy K_z)), worked by hand from the formula.
    const film = {
      kind: 'film' as const,
      name: 'P1',
      thickness: 25e-6,
      holes: { diameter: 5e-4, spacing: 0.025 },
    };
    const under = { inPlane: 2e-11, through: 1e-12 };
    expect(Math.abs(filmThrough(film, under) / 7.15e-12 - 1)).toBeLessThan(0.005);
    expect(filmThrough({ ...film, holes: null }, under)).toBe(filmThrough(film, under));
  });

  test('peel ply resists by thickness over permeability', () => {
    const peel = { kind: 'peelPly' as const, name: 'Nylon', resinUptake: 8e-5 };
    expect(peelPlyResistance({ ...peel, thickness: 1e-4, through: 5e-12 })).toBeCloseTo(2e7, 3);
    // 0.12 mm at 2e-12 m2, from memory.
    expect(peelPlyResistance(peel)).toBeCloseTo(6e7, 3);
  });
});
