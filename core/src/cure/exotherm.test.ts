import { describe, expect, test } from '@jest/globals';
import type { ResinSystem } from '../resin/resin-system.ts';
import { cureLawOf } from '../resin/cure-law.ts';
import {
  adiabaticRise,
  exotherm,
  FRANK_KAMENETSKII_LIMIT,
  runawayNumbers,
  SEMENOV_LIMIT,
  type ExothermRequest,
  type HeatLayer,
} from './exotherm.ts';
import { cureHeatOf, heatSourceOf } from './heat.ts';

const T0 = 293.15;
const plate: HeatLayer = {
  thickness: 0.01,
  conductivity: 0.3,
  density: 1840,
  specificHeat: 1150,
  resin: 575,
};
const held = { transfer: 1e6, temperature: () => T0 };
const insulated = { transfer: 1e-9, temperature: () => T0 };
/** A steady source: 0.6 of 450 kJ/kg in 92 min, whatever the temperature. */
const POWER = (575 * 450_000 * 0.6) / (92 * 60);
const steady = {
  rate: () => 1 / (92 * 60 * 1000),
  heat: (s: number) => s * 450_000 * 0.6 * 1000,
  gelState: 1,
};
const base: ExothermRequest = {
  layers: [plate],
  mouldFace: held,
  bagFace: held,
  start: { temperature: T0, state: 0, time: 0 },
  source: steady,
  until: 3600,
};
const endOf = (request: ExothermRequest) => exotherm(request).curve.at(-1)!;

describe('conduction with a steady source, against closed forms', () => {
  test('the power by hand: 28.1 kW/m3', () => expect(POWER).toBeCloseTo(28_125, 0));

  test('both faces held: the middle is q L^2 / 8k = 1.2 K warmer', () => {
    expect((POWER * 0.01 ** 2) / (8 * 0.3)).toBeCloseTo(1.17, 2);
    expect((endOf(base).warmest - T0) / ((POWER * 0.01 ** 2) / (8 * 0.3))).toBeCloseTo(1, 2);
  });

  test('one face in air at 8 W/m2K, the other insulated: q L / h = 35 K and q L^2 / 2k on top', () => {
    const air = { transfer: 8, temperature: () => T0 };
    const end = endOf({ ...base, mouldFace: insulated, bagFace: air, until: 40 * 3600 });
    expect((POWER * 0.01) / 8).toBeCloseTo(35.2, 1);
    expect(end.warmest - T0).toBeCloseTo((POWER * 0.01) / 8 + (POWER * 0.01 ** 2) / (2 * 0.3), 0);
  });

  test('insulated on both sides it warms by the heat over the capacity', () => {
    const end = endOf({ ...base, mouldFace: insulated, bagFace: insulated });
    expect(end.warmest - T0).toBeCloseTo((POWER * 3600) / (1840 * 1150), 2);
  });

  test('cooling of a hot slab: first term of its series, Bi 1', () => {
    // Carslaw & Jaeger: theta = A exp(-b^2 Fo) cos(b x), b tan b = Bi = 1: b = 0.8603, A = 4 sin b / (2 b + sin 2b) = 1.1191.
    const h = 0.3 / 0.01;
    const b = 0.8603;
    const Fo = 1;
    const time = (Fo * 0.01 ** 2 * 1840 * 1150) / 0.3;
    const end = endOf({
      ...base,
      start: { temperature: T0 + 100, state: 0, time: 0 },
      mouldFace: insulated,
      bagFace: { transfer: h, temperature: () => T0 },
      source: { ...steady, heat: () => 0 },
      until: time,
      cells: 120,
    });
    const series = 100 * 1.1191 * Math.exp(-(b ** 2) * Fo);
    expect((end.warmest - T0) / series).toBeCloseTo(1, 1);
    expect((end.coldest - T0) / (series * Math.cos(b))).toBeCloseTo(1, 1);
  });

  test('a lamp lifts a face by flux over transfer', () => {
    const lamp = { transfer: 10, temperature: () => T0, flux: 300 };
    const quiet = { ...steady, heat: () => 0 };
    const end = endOf({ ...base, mouldFace: insulated, bagFace: lamp, source: quiet, until: 60 * 3600 });
    expect(end.warmest - T0).toBeCloseTo(30, 0);
  });
});

const epoxy: ResinSystem = {
  ...{ name: 'Epoxy', density: 1150, hardenerParts: 30, gelViscosityRatio: 18, chemistry: 'amine' },
  viscosityPoints: [{ temperature: T0, viscosity: 0.3 }],
  gelPoints: [
    { temperature: T0, time: 6000 },
    { temperature: T0 + 10, time: 3000 },
  ],
};

describe('a curing plate', () => {
  const { total, share } = cureHeatOf(epoxy);
  const source = heatSourceOf(epoxy);

  test('without loss of heat it ends at the adiabatic rise: 122 K for glass, 147 K for carbon at Vf 0.5', () => {
    const rise = (fibre: { density: number; specificHeat: number }) => {
      const density = 0.5 * fibre.density + 0.5 * 1150;
      const resinShare = (0.5 * 1150) / density;
      const specificHeat = resinShare * 1900 + (1 - resinShare) * fibre.specificHeat;
      return { density, specificHeat, is: adiabaticRise(resinShare, 450_000, specificHeat) };
    };
    const glass = rise({ density: 2540, specificHeat: 800 });
    const carbon = rise({ density: 1800, specificHeat: 750 });
    expect(glass.is).toBeCloseTo(122, -0.5);
    expect(carbon.is).toBeCloseTo(147, -0.5);
    const layer = { ...plate, density: glass.density, specificHeat: glass.specificHeat };
    const request = { ...base, layers: [layer], mouldFace: insulated, bagFace: insulated, source };
    expect(endOf({ ...request, until: 12 * 3600 }).warmest - T0).toBeCloseTo(glass.is, -0.5);
  });

  test('against an independent integration: explicit, on its own grid, with tiny steps', () => {
    const air = { transfer: 8, temperature: () => T0 };
    const layers = [{ ...plate, thickness: 0.02 }];
    const found = exotherm({ ...base, layers, mouldFace: air, bagFace: air, source, until: 4 * 3600 });
    const outside = explicitPlate({ thickness: 0.02, cells: 31, transfer: 8, until: 4 * 3600, step: 0.5 });
    // Both rise by more than 100 K; to 1 %.
    expect((found.peak.temperature - T0) / (outside.peak - T0)).toBeCloseTo(1, 1.7);
    expect(found.peak.time / outside.at).toBeCloseTo(1, 1.5);
    expect(found.firstGel).toBeLessThanOrEqual(found.lastGel);
    expect(found.lastGel).toBeLessThan(6000);
  });

  /** Forward Euler on point values with ghost faces. */
  function explicitPlate(of: {
    thickness: number;
    cells: number;
    transfer: number;
    until: number;
    step: number;
  }) {
    const dx = of.thickness / (of.cells - 1);
    const capacity = plate.density * plate.specificHeat;
    let T = Array.from({ length: of.cells }, () => T0);
    const age = T.map(() => 0);
    let [peak, at] = [T0, 0];
    for (let time = 0; time < of.until; time += of.step) {
      const q = age.map((a, i) => {
        const grown = of.step * source.rate(a, T[i]!);
        age[i] = a + grown;
        return (plate.resin * total * (share(a + grown) - share(a))) / of.step;
      });
      T = T.map((own, i) => {
        const edge = (n: number) => own - ((of.transfer * (own - T0) * 2 * dx) / plate.conductivity) * n;
        const left = i === 0 ? T[1]! + edge(1) - own : T[i - 1]!;
        const right = i === of.cells - 1 ? T[i - 1]! + edge(1) - own : T[i + 1]!;
        return (
          own + (of.step / capacity) * ((plate.conductivity * (left + right - 2 * own)) / dx ** 2 + q[i]!)
        );
      });
      const most = Math.max(...T);
      if (most > peak) [peak, at] = [most, time];
    }
    return { peak, at };
  }

  test('thicker is warmer and earlier; a mould that conducts cools it', () => {
    const air = { transfer: 8, temperature: () => T0 };
    const on = (thickness: number, mould: HeatLayer[] = []) =>
      exotherm({
        ...base,
        layers: [...mould, { ...plate, thickness }],
        mouldFace: air,
        bagFace: air,
        source,
        until: 5 * 3600,
      }).peak;
    expect(on(0.03).temperature).toBeGreaterThan(on(0.01).temperature + 10);
    expect(on(0.03).time).toBeLessThan(on(0.005).time);
    const steel = { thickness: 0.02, conductivity: 45, density: 7800, specificHeat: 480, resin: 0 };
    expect(on(0.02, [steel]).temperature).toBeLessThan(on(0.02).temperature - 5);
  });

  test('past its data the rate goes on by its own slope, and it says from when that is a guess', () => {
    // Half the gel time every 10 K around 20 and 30 °C: E = R ln 2 / (1/293.15 - 1/303.15).
    const energy = (8.314462618 * Math.log(2)) / (1 / T0 - 1 / (T0 + 10));
    const expected = (1 / 6000) * Math.exp((-energy / 8.314462618) * (1 / (T0 + 60) - 1 / T0));
    expect(source.rate(0, T0 + 60) / expected).toBeCloseTo(1, 2);
    expect(source.rate(0, T0 + 5)).toBe(cureLawOf(epoxy).rate(0, T0 + 5));
    const found = exotherm({ ...base, mouldFace: insulated, bagFace: insulated, source, until: 9e4 });
    const known = found.curve.findLast(({ time }) => time < found.knownUntil)!;
    // 30 °C and the reach of 12 K beyond.
    expect(known.warmest).toBeLessThanOrEqual(T0 + 22);
    expect(known.warmest).toBeGreaterThan(T0 + 20);
    expect(exotherm({ ...base, source, until: 9000 }).knownUntil).toBe(Infinity);
  });

  test('what cannot be is refused', () => {
    expect(() => exotherm({ ...base, layers: [{ ...plate, resin: 0 }] })).toThrow(
      'Nothing in the laminate cures',
    );
    expect(() => exotherm({ ...base, layers: [{ ...plate, thickness: NaN }] })).toThrow('thickness');
  });
});

test('heat over cure: half at the stated heat to gel, smooth through it, all in the end', () => {
  const { total, share } = cureHeatOf({ ...epoxy, heatToGel: 240_000 });
  expect(share(1) * total).toBeCloseTo(240_000, 6);
  expect((share(1 + 1e-6) - share(1)) / (share(1) - share(1 - 1e-6))).toBeCloseTo(1, 3);
  expect(share(20)).toBeCloseTo(1, 6);
  const radical = cureHeatOf({ ...epoxy, chemistry: 'radical' });
  // The peak comes after gel: most of the heat between one and two gel times.
  expect(radical.share(1)).toBeLessThan(0.1);
  expect(radical.share(2)).toBeGreaterThan(0.9);
});

test('the limits of running away, by hand', () => {
  // E/RT^2 = 60 000 / (8.314 * 293.15^2) = 0.0840 1/K; S t / h = 35.2 K; S L^2 / k = 9.4 K.
  const numbers = runawayNumbers({
    ...{ activationEnergy: 60_000, temperature: T0, power: POWER },
    ...{ thickness: 0.01, reach: 0.01, transfer: 8, conductivity: 0.3 },
  });
  expect(numbers.semenov).toBeCloseTo(0.084 * 35.16, 1);
  expect(numbers.frankKamenetskii).toBeCloseTo(0.084 * 9.375, 1);
  expect(numbers.semenov).toBeGreaterThan(SEMENOV_LIMIT);
  expect(numbers.frankKamenetskii).toBeLessThan(FRANK_KAMENETSKII_LIMIT);
});
