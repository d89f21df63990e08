import { describe, expect, test } from '@jest/globals';
import { gelFit } from '@wick/core/resin/gel-time';
import type { Material } from '@wick/contract/materials';
import { runStateOf } from '../run/state.ts';
import type { LaidJob } from '../job/laid.ts';
import { cureClockOf, cureTouchWords } from './cure.ts';
import { heatForecast, heatWords, type Warming } from './heat.ts';
import { infusionOf } from './infusion.ts';
import { demo, logOf, plate, shop } from './test/plate.ts';

const C = 273.15;
type Resin = Extract<Material, { kind: 'resin' }>;
const withResin = (job: LaidJob, changes: Partial<Resin>): LaidJob => ({
  ...job,
  materials: job.materials.map((material) =>
    material.kind === 'resin' ? { ...material, ...changes } : material,
  ),
});
/** Gel in an hour at 20 °C as a thin film, 60 kJ/mol. */
const factor = (to: number) => Math.exp((-60_000 / 8.314462618) * (1 / to - 1 / (C + 20)));
const simple = withResin(plate, {
  ...{ gelMass: 0, gelTable: null, kinetics: null, demould: null },
  gelPoints: [15, 20, 30].map((t) => ({ temperature: C + t, time: 3600 / factor(C + t) })),
  recoat: { opens: 4 * 3600, closes: 24 * 3600, temperature: C + 20 },
});

function cure(job: LaidJob, warmths: readonly (readonly [number, number])[], now: number) {
  const entries = logOf([
    [0, { kind: 'mixed', mass: null }],
    ...warmths.map(
      ([at, celsius]) =>
        [at, { kind: 'warmth' as const, temperature: C + celsius, instrumentId: null }] as const,
    ),
  ]);
  const state = runStateOf(entries);
  const zero = Date.parse(entries[0]!.at);
  return cureClockOf(job, shop, infusionOf(state, job), state, zero + 1000 * now)!;
}

describe('the cure clock', () => {
  test('gel at the coldest place, two kelvin below the thermometer, and a quarter longer under vacuum', () => {
    const { gelsAt, holdUntil, coldest } = cure(simple, [[0, 20]], 100);
    expect(coldest).toBeCloseTo(C + 18, 9);
    expect(gelsAt).toBeCloseTo(3600 / factor(C + 18), -1);
    expect(holdUntil).toBeCloseTo(1.25 * gelsAt, 6);
  });

  test('a recoat window of 24 h at 20 °C closes after 36.8 h at 15 and 10.7 h at 30; it opens by the coldest place', () => {
    for (const [celsius, hours] of [
      [15, 36.8],
      [30, 10.7],
    ] as const) {
      const { recoat } = cure(simple, [[0, celsius]], 0);
      expect(recoat!.closesAt! / 3600).toBeCloseTo(hours, 0);
      expect(recoat!.opensAt).toBeCloseTo((4 * 3600) / factor(C + celsius - 2), -2);
    }
  });

  test('temperatures that change: half the way at 20, the rest at 30', () => {
    const half = 0.5 * (3600 / factor(C + 18));
    const { gelsAt, gelShare } = cure(
      simple,
      [
        [0, 20],
        [half, 30],
      ],
      half,
    );
    expect(gelShare).toBeCloseTo(0.5, 2);
    expect(gelsAt).toBeCloseTo(half + 0.5 * (3600 / factor(C + 28)), -1);
  });

  test('what a finger says follows the way to gel, and is hard once it may leave the mould', () => {
    const at = (share: number) => cure(simple, [[0, 22]], share * 3600).touch;
    expect([0.3, 0.8, 1.5, 4, 9].map(at)).toEqual(['wet', 'strings', 'rubber', 'nailMarks', 'hard']);
    expect(Object.values(cureTouchWords).every((words) => words.length > 10)).toBe(true);
  });

  test('demould by the sheet where it says so, by the glass transition with kinetics, else by gel times', () => {
    expect(cure(simple, [[0, 22]], 0).demould).toMatchObject({ opensAt: expect.closeTo(8 * 3600, -2) });
    const stated = withResin(simple, { demould: { opens: 16 * 3600, temperature: C + 20 } });
    expect(cure(stated, [[0, 22]], 0).demould).toEqual({
      ...{ opensAt: expect.closeTo(16 * 3600, -2), closesAt: null, basis: 'the data sheet' },
    });
    const kinetic = withResin(simple, {
      kinetics: {
        ...{ A1: 2e4, E1: 55_000, A2: 2e4, E2: 50_000, m: 0.4, n: 1.6, gelConversion: 0.5 },
        ...{ viscosityA: 1e-9, viscosityE: 47_000, B: 1.5, C: 1 },
      },
      glass: { fresh: C - 40, full: C + 80, lambda: 0.5 },
    });
    const grown = { ...kinetic, materials: kinetic.materials };
    const { demould, glass } = cure(grown, [[0, 22]], 3600);
    expect(demould.basis).toBe('the glass transition');
    expect(glass!.conversion).toBeGreaterThanOrEqual(0);
    // 20 °C at the coldest place and 15 K: x = 75 / 120 = 0.625, 0.625 / (0.5 + 0.5 * 0.625).
    expect(glass!.stallsAt).toBeCloseTo(0.625 / 0.8125, 6);
  });

  test('before the mix there is none', () => {
    const state = runStateOf([]);
    expect(cureClockOf(simple, shop, infusionOf(state, simple), state, 0)).toBeNull();
  });
});

describe('the heat of the thickest place', () => {
  const kerb = demo('Footbridge kerb plate');
  const from = { temperature: C + 20, gelShare: 0.3 };
  const heatOf = (job: LaidJob, warming: Warming = { is: 'none', temperature: null }) =>
    heatForecast({ job, shop, from, warming });

  test('a thick plate warms, and more under a blanket; thin film hardly', () => {
    const plain = heatOf(kerb)!;
    const warm = heatOf(kerb, { is: 'blanket', temperature: C + 35 })!;
    expect(plain.thickness).toBeGreaterThan(6e-3);
    expect(plain.course.peak.temperature).toBeGreaterThan(from.temperature + 1);
    expect(warm.course.peak.temperature).toBeGreaterThan(plain.course.peak.temperature + 5);
    expect(warm.course.lastGel).toBeLessThan(plain.course.lastGel);
    const thin = { ...kerb, laminate: { ...kerb.laminate, plies: kerb.laminate.plies.slice(0, 2) } };
    expect(heatOf(thin)!.course.peak.temperature).toBeLessThan(plain.course.peak.temperature);
  });

  test('it never comes above the rise without loss, which is the identity of heat over capacity', () => {
    const { course, adiabatic, start } = heatOf(kerb)!;
    expect(adiabatic).toBeGreaterThan(80);
    expect(course.peak.temperature - start).toBeLessThan(adiabatic);
  });

  test('it is said when it is worth saying, and what cannot stand it is named', () => {
    expect(heatWords(heatOf(plate)!)?.level ?? 'none').toMatch(/none|warm|hot|unknown/);
    const fast = withResin(kerb, {
      gelPoints: [20, 40].map((t) => ({ temperature: C + t, time: t === 20 ? 1800 : 500 })),
      cureHeat: 450_000,
    });
    const hot = heatOf(fast)!;
    expect(hot.canRunAway).toBe(true);
    expect(heatWords(hot)!.words).toMatch(/°C/);
  });

  test('nothing that cures, no forecast', () => {
    expect(heatOf({ ...kerb, resin: { ...kerb.resin, materialId: null } })).toBeNull();
  });
});

test('gel points of one activation energy are read back', () => {
  const resin = simple.materials.find((material): material is Resin => material.kind === 'resin')!;
  expect(gelFit(resin).activationEnergy / 60_000).toBeCloseTo(1, 3);
});
