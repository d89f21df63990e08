import { describe, expect, test } from '@jest/globals';
import { curveEndOf, cureLawOf, thickeningOf } from './cure-law.ts';
import { fitArrhenius } from './curve-fit.ts';
import { carriedOn, gelTimeFromTable, type GelTable } from './gel-table.ts';
import { cureRate, gelTimeOfKinetics, type Kinetics } from './kinetics.ts';
import { createPotClock, forecastPot, largestBatch, longestStay, SAFE_RISE } from './pot.ts';
import { potSteps, warmingTime } from './self-heating.ts';
import { createResinClock, scaledClock } from './resin-clock.ts';
import { chemistryOf, freshViscosity, type ResinSystem } from './resin-system.ts';
import { gelTime } from './gel-time.ts';

const celsius = (t: number) => t + 273.15;
const resin: ResinSystem = {
  name: 'Test epoxy',
  density: 1130,
  viscosityPoints: [
    { temperature: celsius(20), viscosity: 0.4 },
    { temperature: celsius(30), viscosity: 0.22 },
  ],
  gelPoints: [{ temperature: celsius(20), time: 6000 }],
  gelViscosityRatio: 20,
  hardenerParts: 30,
};

describe('resin against temperature', () => {
  test('the curve passes through two entered points and is straight in 1/T', () => {
    expect(freshViscosity(resin, celsius(20))).toBeCloseTo(0.4, 9);
    expect(freshViscosity(resin, celsius(30))).toBeCloseTo(0.22, 9);
    const middle = 1 / ((1 / celsius(20) + 1 / celsius(30)) / 2);
    expect(freshViscosity(resin, middle)).toBeCloseTo(Math.sqrt(0.4 * 0.22), 9);
  });

  test('one point uses 50 kJ/mol: ten kelvin warmer from 20 C halves the gel time', () => {
    // exp(50000 / 8.314 (1/303.15 - 1/293.15)) = 0.508
    expect(gelTime(resin, celsius(30)) / 6000).toBeCloseTo(
      Math.exp((50_000 / 8.314462618) * (1 / celsius(30) - 1 / celsius(20))),
      9,
    );
    expect(gelTime(resin, celsius(30)) / 6000).toBeCloseTo(0.508, 3);
  });

  test('far outside the points it refuses instead of guessing', () => {
    expect(() => gelTime(resin, celsius(45))).toThrow(/known from 20 °C to 20 °C; 45 °C is too far off/);
    expect(() => gelTime(resin, NaN)).toThrow(/too far off/);
    expect(() => freshViscosity({ ...resin, viscosityPoints: [] }, celsius(20))).toThrow(/no entered point/);
  });
});

describe('resin clock', () => {
  const clock = createResinClock(resin, celsius(20));

  test('fluidity time equals the numerical integral of dt / viscosity', () => {
    let sum = 0;
    const steps = 20_000;
    const dt = (4500 - 600) / steps;
    for (let i = 0; i < steps; i++) sum += dt / clock.viscosityAt(600 + (i + 0.5) * dt);
    expect(clock.fluidity({ from: 600, to: 4500 }) / sum).toBeCloseTo(1, 7);
  });

  test('timeAtFluidity undoes fluidity, and never lies past gel', () => {
    const used = clock.fluidity({ from: 600, to: 4500 });
    expect(clock.timeAtFluidity({ from: 600, fluidity: used })).toBeCloseTo(4500, 6);
    const all = clock.fluidity({ from: 600, to: 6000 });
    expect(clock.timeAtFluidity({ from: 600, fluidity: all * 1.001 })).toBe(Infinity);
    expect(clock.fluidity({ from: 600, to: 60_000 })).toBeCloseTo(all, 9);
  });

  test('scaled, it is the clock of the scaled resin', () => {
    const thick = scaledClock(clock, { viscosity: 1.3, gelTime: 0.8 });
    const same = createResinClock(
      {
        ...resin,
        viscosityPoints: resin.viscosityPoints.map((p) => ({ ...p, viscosity: 1.3 * p.viscosity })),
        gelPoints: [{ temperature: celsius(20), time: 4800 }],
      },
      celsius(20),
    );
    const span = { from: 500, to: 3000 };
    expect(thick.fluidity(span)).toBeCloseTo(same.fluidity(span), 6);
    const fluidity = same.fluidity(span);
    expect(thick.timeAtFluidity({ from: 500, fluidity })).toBeCloseTo(3000, 6);
    expect(thick.gelTime).toBeCloseTo(4800, 9);
  });

  test('a temperature that only seems to change gives the same clock, to the step of its table', () => {
    const varying = createResinClock(resin, () => celsius(20));
    expect(varying.gelTime).toBeCloseTo(6000, 6);
    expect(varying.ageAt(3000)).toBeCloseTo(0.5, 9);
    expect(varying.viscosityAt(3000) / clock.viscosityAt(3000)).toBeCloseTo(1, 4);
    const span = { from: 600, to: 4500 };
    expect(varying.fluidity(span) / clock.fluidity(span)).toBeCloseTo(1, 5);
  });

  test('a cooling shop: gel when the integral of dt / t_gel(T) is one', () => {
    const cooling = createResinClock(resin, (time) => celsius(24) - time / 1500);
    let [age, time] = [0, 0];
    for (; age < 1; time += 0.5) age += 0.5 / gelTime(resin, celsius(24) - (time + 0.25) / 1500);
    expect(Math.abs(cooling.gelTime / time - 1)).toBeLessThan(1e-3);
  });

  test('at gel the resin is as many times thicker as its sheet says', () => {
    expect(clock.viscosityAt(6000) / clock.viscosityAt(0)).toBeCloseTo(20, 9);
  });
});

test('a fit shows how far each entered point lies from it', () => {
  // Three points of which the middle one is 10 % high: least squares in the log splits it as 2/3 and -1/3 of ln 1.1.
  const at = (inverse: number, factor: number) => ({
    temperature: 1 / inverse,
    value: factor * Math.exp(5000 * inverse),
  });
  const fit = fitArrhenius([at(0.0033, 1), at(0.0034, 1.1), at(0.0035, 1)], 'viscosity');
  expect(fit.residuals[1]).toBeCloseTo(1.1 ** (2 / 3) - 1, 6);
  expect(fit.residuals[0]).toBeCloseTo(1.1 ** (-1 / 3) - 1, 6);
  expect(fit.activationEnergy / 8.314462618).toBeCloseTo(5000, 3);
  expect(fit.isAssumed).toBe(false);
});

describe('gel table over catalyst and temperature', () => {
  const table: GelTable = {
    catalyst: [1, 2],
    temperature: [celsius(15), celsius(25)],
    time: [
      [4800, 2400],
      [2400, 1200],
    ],
  };
  const read = (catalyst: number, t: number) =>
    gelTimeFromTable(table, { catalyst, temperature: celsius(t) }, 'Polyester');

  test('gives its entries back, and between them the mean of the logs', () => {
    expect(read(1, 15)).toBeCloseTo(4800, 6);
    expect(read(2, 25)).toBeCloseTo(1200, 6);
    expect(read(1.5, 20)).toBeCloseTo((4800 * 2400 * 2400 * 1200) ** 0.25, 6);
    expect(
      gelTimeFromTable({ ...table, inhibitorFactor: 1.5 }, { catalyst: 1, temperature: celsius(15) }, 'P'),
    ).toBeCloseTo(7200, 6);
  });

  test('a pot or a doubt is carried past its edge by the slope there, twelve kelvin at most', () => {
    const peroxide = { ...resin, gelTable: table, hardenerParts: 1 };
    const { rate } = cureLawOf(peroxide);
    // Halved every ten kelvin.
    expect(1 / rate(0, celsius(35))).toBeCloseTo(1200, 6);
    expect(1 / rate(0, celsius(5))).toBeCloseTo(9600, 6);
    expect(() => rate(0, celsius(38))).toThrow(/38 °C is outside/);
    // One column: the usual energy of 50 kJ/mol.
    const single = { ...table, temperature: [celsius(15)], time: [[4800], [2400]] };
    const slope = Math.exp((50_000 / 8.314462618) * (1 / celsius(20) - 1 / celsius(15)));
    expect(1 / cureLawOf({ ...peroxide, gelTable: single }).rate(0, celsius(20))).toBeCloseTo(
      4800 * slope,
      6,
    );
  });

  test('carried on by two kelvin it gives the same inside, and its own slope past both edges', () => {
    const wide = carriedOn({ ...table, inhibitorFactor: 1.5 }, 2, 'Polyester');
    const at = (catalyst: number, t: number) =>
      gelTimeFromTable(wide, { catalyst, temperature: celsius(t) }, 'Polyester');
    expect(at(1.3, 18) / (1.5 * read(1.3, 18))).toBeCloseTo(1, 12);
    // Halved every ten kelvin.
    expect(at(1, 27)).toBeCloseTo(1.5 * 2400 * 2 ** -0.2, 6);
    expect(at(2, 13)).toBeCloseTo(1.5 * 2400 * 2 ** 0.2, 6);
    expect(() => at(1, 28)).toThrow(/28 °C is outside/);
    expect(carriedOn(table, 0, 'Polyester')).toBe(table);
  });

  test('refuses what is outside it, and a table that is not one', () => {
    expect(() => read(0.8, 20)).toThrow(/1 to 2 % of catalyst; 0.8 % is outside/);
    expect(() => read(1, 30)).toThrow(/30 °C is outside/);
    expect(() =>
      gelTimeFromTable({ ...table, time: [[1, 2]] }, { catalyst: 1, temperature: 290 }, 'P'),
    ).toThrow(/one row for each/);
    expect(() => gelTime({ ...resin, gelTable: table, hardenerParts: 3 }, celsius(20))).toThrow(/outside it/);
  });
});

describe('kinetics', () => {
  const kinetics: Kinetics = {
    A1: 0,
    E1: 0,
    A2: 2e5,
    E2: 57_000,
    m: 0,
    n: 1,
    gelConversion: 0.6,
    viscosityA: 1e-9,
    viscosityE: 47_000,
    B: 1.5,
    C: 0.5,
  };
  const k = (T: number) => 2e5 * Math.exp(-57_000 / (8.314462618 * T));

  test('first order (m = 0, n = 1): time to gel is -ln(1 - gel) / k', () => {
    expect(gelTimeOfKinetics(kinetics, 300) / (-Math.log(0.4) / k(300))).toBeCloseTo(1, 6);
    const clock = createResinClock({ ...resin, kinetics }, 300);
    expect(clock.gelTime / (-Math.log(0.4) / k(300))).toBeCloseTo(1, 4);
  });

  test('autocatalytic without k1 start (m = n = 1): rate k1 + k2 a times 1 - a; logistic in closed form', () => {
    // da/dt = (k1 + k2 a)(1 - a): t = ln[(k1 + k2 a) / (k1 (1 - a))] / (k1 + k2).
    const auto = { ...kinetics, A1: 50, E1: 40_000, m: 1 };
    const k1 = 50 * Math.exp(-40_000 / (8.314462618 * 310));
    const expected = Math.log((k1 + k(310) * 0.6) / (k1 * 0.4)) / (k1 + k(310));
    expect(cureRate(auto, 0.3, 310)).toBeCloseTo((k1 + k(310) * 0.3) * 0.7, 12);
    expect(gelTimeOfKinetics(auto, 310) / expected).toBeCloseTo(1, 5);
  });

  test('viscosity follows Castro and Macosko, and the law carries it', () => {
    const law = cureLawOf({ ...resin, kinetics });
    const base = 1e-9 * Math.exp(47_000 / (8.314462618 * 300));
    expect(law.viscosity(0.3, 300)).toBeCloseTo(base * 2 ** (1.5 + 0.5 * 0.3), 12);
    expect(law.viscosity(0.6, 300)).toBe(Infinity);
    expect(() => gelTimeOfKinetics({ ...kinetics, A2: 0 }, 300)).toThrow(/A1 or A2 above zero/);
  });
});

describe('thickening by chemistry', () => {
  /** t_gel / mu0 x integral of (mu0 / mu) da, by the midpoint rule. */
  const fluidity = (thick: (age: number) => number, to: number) => {
    const parts = 20_000;
    let sum = 0;
    for (let i = 0; i < parts; i++) sum += to / parts / thick((to * (i + 0.5)) / parts);
    return sum;
  };

  test.each([
    // Worked by hand from exp(ln 20 a^8) and exp(ln 20 a); the exponent and the 20 are from memory.
    [0.5, 0.499, 0.259],
    [0.7, 0.687, 0.293],
    [0.8, 0.761, 0.303],
  ])('to age %d a radical cure leaves a fluidity of %d, an amine %d', (age, radical, amine) => {
    for (const [chemistry, expected] of [
      ['radical', radical],
      ['amine', amine],
    ] as const) {
      const own = { ...resin, gelViscosityRatio: null, chemistry };
      expect(fluidity(thickeningOf(own), age)).toBeCloseTo(expected, 3);
      const clock = createResinClock(own, celsius(20));
      const scale = 6000 / 0.4;
      expect(Math.abs(clock.fluidity({ from: 0, to: age * 6000 }) / scale / expected - 1)).toBeLessThan(3e-3);
      expect(clock.viscosityAt(5999.999) / 8).toBeCloseTo(1, 3);
    }
  });

  test('a gel table over catalyst is the sign of a radical cure, unless the entry says otherwise', () => {
    const gelTable: GelTable = { catalyst: [1], temperature: [celsius(20)], time: [[3000]] };
    expect(chemistryOf(resin)).toBe('amine');
    expect(chemistryOf({ ...resin, gelTable })).toBe('radical');
    expect(chemistryOf({ ...resin, gelTable, chemistry: 'amine' })).toBe('amine');
  });
});

describe('measured rise of viscosity', () => {
  const curve = (points: { time: number; viscosity: number }[]) => ({
    ...resin,
    viscosityCurve: { temperature: celsius(20), points },
  });

  test('is read straight in the log against age, and carried to other temperatures by age', () => {
    const at = curve([
      { time: 0, viscosity: 0.4 },
      { time: 3000, viscosity: 0.8 },
      { time: 6000, viscosity: 6 },
    ]);
    expect(thickeningOf(at)(0.25)).toBeCloseTo(Math.SQRT2, 9);
    expect(thickeningOf(at)(1)).toBeCloseTo(15, 9);
    const warm = createResinClock(at, celsius(25));
    expect(warm.viscosityAt(0.5 * gelTime(at, celsius(25)))).toBeCloseTo(
      2 * freshViscosity(at, celsius(25)),
      4,
    );
  });

  test('keeps its own level where the entered points tell another', () => {
    const at = curve([
      { time: 600, viscosity: 0.5 },
      { time: 6000, viscosity: 6 },
    ]);
    const clock = createResinClock(at, celsius(20));
    expect(clock.viscosityAt(600)).toBeCloseTo(0.5, 3);
    expect(clock.viscosityAt(5999) / 6).toBeCloseTo(1, 2);
  });

  test.each(['amine', 'radical'] as const)(
    'past its end it is carried on as an %s does, and says where that is',
    (chemistry) => {
      const short = {
        ...curve([
          { time: 0, viscosity: 0.4 },
          { time: 3000, viscosity: 0.5 },
        ]),
        chemistry,
      };
      expect(curveEndOf(short)).toBeCloseTo(0.5, 9);
      const law = (age: number) => 20 ** (chemistry === 'amine' ? age : age ** 8);
      expect(thickeningOf(short)(0.9)).toBeCloseTo((0.5 / 0.4) * (law(0.9) / law(0.5)), 9);
      expect(thickeningOf(short)(0.500001)).toBeCloseTo(thickeningOf(short)(0.5), 4);
      expect(curveEndOf({ ...short, viscosityCurve: null })).toBeNull();
    },
  );

  test('one point or falling times are refused', () => {
    expect(() => thickeningOf(curve([{ time: 0, viscosity: 1 }]))).toThrow(/two or more points/);
    expect(() =>
      thickeningOf(
        curve([
          { time: 60, viscosity: 1 },
          { time: 30, viscosity: 2 },
        ]),
      ),
    ).toThrow(/rising times/);
  });
});

describe('resin in the pot', () => {
  const hot: ResinSystem = {
    ...resin,
    gelPoints: [
      { temperature: celsius(20), time: 6000 },
      { temperature: celsius(80), time: 150 },
    ],
    viscosityPoints: [
      { temperature: celsius(20), viscosity: 0.4 },
      { temperature: celsius(80), viscosity: 0.03 },
    ],
  };
  const pot = (mass: number) => forecastPot({ resin: hot, mass, start: celsius(20), ambient: celsius(20) });

  test('a drop gels as the sheet says; with no loss of heat the rise is q(a) / cp', () => {
    expect(Math.abs(pot(1e-8).gelTime / 6000 - 1)).toBeLessThan(0.03);
    // From memory: 240 kJ/kg to gel, let out as a^2.5; 1.9 kJ/(kg K).
    const { curve } = pot(2000);
    const early = curve.find((point) => point.age > 0.3)!;
    const adiabatic = (240_000 / 1900) * early.age ** 2.5;
    expect((early.temperature - celsius(20)) / adiabatic).toBeGreaterThan(0.93);
    expect((early.temperature - celsius(20)) / adiabatic).toBeLessThanOrEqual(1);
  });

  test('a radical cure lets out little before gel: its pot stays within ten kelvin or so', () => {
    const warm = { ...hot, chemistry: 'radical' as const };
    const { curve, gelTime: gels } = forecastPot({
      resin: warm,
      mass: 20,
      start: celsius(20),
      ambient: celsius(20),
    });
    const hottest = Math.max(...curve.map(({ temperature }) => temperature)) - celsius(20);
    // 20 kJ/kg over 1.9 kJ/(kg K), from memory.
    expect(hottest).toBeLessThan(20 / 1.9);
    expect(hottest).toBeGreaterThan(7);
    expect(gels).toBeLessThan(6000);
  });

  test('it cools with m c / (h A): 0.15 kg in 41 min, 5 kg in 133 min', () => {
    // A = 1.5 pi d^2 of a pot as tall as wide, 1130 kg/m3, 1.9 kJ/(kg K), 8 W/(m2 K); worked by hand.
    for (const [mass, minutes] of [
      [0.15, 41],
      [5, 133],
    ] as const) {
      const steps = potSteps({
        mass,
        density: 1130,
        start: celsius(40),
        ambient: () => celsius(20),
        heat: () => 0,
        rate: () => 1 / 50_000,
      });
      for (const { time, temperature } of steps)
        if (temperature - celsius(20) <= 20 / Math.E) {
          expect(Math.abs(time / 60 / minutes - 1)).toBeLessThan(0.03);
          break;
        }
    }
  });

  test('the clock of a full pot is the one of an independent heat balance, its resin flowing at the part’s temperature', () => {
    const given = { resin: hot, mass: 5, start: celsius(20), ambient: celsius(18), drift: 1e-4 };
    const clock = createPotClock(given);
    // Euler in quarter seconds, its formulas written out again; no younger than a film at the part's temperature.
    const d = Math.cbrt((4 * 5) / (Math.PI * hot.density));
    let [T, a, t, fluidity] = [celsius(20), 0, 0, 0];
    const until = 0.9 * clock.gelTime;
    for (; t < until; t += 0.25) {
      const [part, around] = [celsius(20) + 1e-4 * t, celsius(18) + 1e-4 * t];
      const k = 1 / gelTime(hot, Math.max(T, part));
      const q = 240_000 * 2.5 * a ** 1.5 * k;
      fluidity += 0.25 / (freshViscosity(hot, part) * hot.gelViscosityRatio! ** a);
      T += (0.25 / 1900) * (q - (8 * 1.5 * Math.PI * d * d * (T - around)) / 5);
      a += 0.25 * k;
    }
    expect(Math.abs(clock.ageAt(until) / a - 1)).toBeLessThan(0.005);
    expect(Math.abs(clock.fluidity({ from: 0, to: until }) / fluidity - 1)).toBeLessThan(0.005);
    expect(clock.gelTime).toBeLessThan(0.9 * createResinClock(hot, celsius(20)).gelTime);
  });

  test('a drop in a pot keeps the clock of a thin film', () => {
    const drop = createPotClock({ resin: hot, mass: 1e-8, start: celsius(20), ambient: celsius(20) });
    const film = createResinClock(hot, celsius(20));
    for (const time of [600, 2400, 4800]) {
      expect(Math.abs(drop.ageAt(time) / film.ageAt(time) - 1)).toBeLessThan(0.03);
      expect(
        Math.abs(drop.fluidity({ from: 300, to: time }) / film.fluidity({ from: 300, to: time }) - 1),
      ).toBeLessThan(0.02);
    }
  });

  test('a clock ends where its pot leaves the data, and says that its gel is not known', () => {
    const cool = { ...hot, gelPoints: [{ temperature: celsius(20), time: 6000 }] };
    const given = { resin: cool, mass: 5, start: celsius(20), ambient: celsius(20) };
    const clock = createPotClock(given);
    expect(clock.endsUnknown).toBe(true);
    expect(clock.gelTime).toBe(forecastPot(given).knownUntil);
    expect(clock.timeAtFluidity({ from: 0, fluidity: 1e9 })).toBe(Infinity);
    expect(createPotClock({ ...given, mass: 1e-8 }).endsUnknown).toBe(false);
  });

  test('where the data end the rest is not known, and not called running away', () => {
    const cool = { ...hot, gelPoints: [{ temperature: celsius(20), time: 6000 }] };
    const {
      gelTime: gels,
      knownUntil,
      curve,
    } = forecastPot({
      resin: cool,
      mass: 5,
      start: celsius(20),
      ambient: celsius(20),
    });
    expect(gels).toBe(Infinity);
    expect(knownUntil).toBeLessThan(6000);
    // Twelve kelvin past the entered point.
    expect(curve[curve.length - 1]!.temperature - celsius(20)).toBeLessThan(12);
  });

  test('a pot life of so many grams: the film time with which an independent heat balance gels at the stated time', () => {
    const [mass, stated, E] = [0.15, 7800, 50_000];
    const sheet: ResinSystem = {
      ...resin,
      gelMass: mass,
      gelPoints: [{ temperature: celsius(20), time: stated }],
    };
    const film = gelTime(sheet, celsius(20));
    expect(film).toBeGreaterThan(1.3 * stated);
    // Euler in seconds, its formulas written out again.
    const d = Math.cbrt((4 * mass) / (Math.PI * 1130));
    let [T, a, t] = [celsius(20), 0, 0];
    for (; a < 1; t += 0.25) {
      const k = Math.exp((E / 8.314462618) * (1 / celsius(20) - 1 / T)) / film;
      const q = 240_000 * 2.5 * a ** 1.5 * k;
      T += (0.25 / 1900) * (q - (8 * 1.5 * Math.PI * d * d * (T - celsius(20))) / mass);
      a += 0.25 * k;
    }
    expect(Math.abs(t / stated - 1)).toBeLessThan(0.01);
    expect(gelTime({ ...sheet, gelMass: 0 }, celsius(20))).toBeCloseTo(stated, 6);
    expect(gelTime({ ...sheet, gelMass: null }, celsius(20))).toBeCloseTo(stated, 6);
    // A larger pot that keeps as long is of a slower resin.
    expect(gelTime({ ...sheet, gelMass: 1 }, celsius(20))).toBeGreaterThan(film);
  });

  test('the larger the batch, the sooner it gels or leaves its data', () => {
    const ends = [0.2, 1, 5, 25].map((mass) => Math.min(pot(mass).gelTime, pot(mass).knownUntil));
    for (let i = 1; i < ends.length; i++) expect(ends[i]).toBeLessThan(ends[i - 1]);
  });

  test('the largest batch keeps cool up to the asked time, and a little more does not', () => {
    const ask = { resin: hot, start: celsius(20), ambient: celsius(20), until: 2200 };
    const mass = largestBatch(ask)!;
    /** At the asked time, read between two steps; until then it only warms. */
    const rise = (m: number) => {
      const { curve } = pot(m);
      const n = curve.findIndex((p) => p.time > 2200);
      const [a, b] = [curve[n - 1]!, curve[n]!];
      const share = (2200 - a.time) / (b.time - a.time);
      return a.temperature + share * (b.temperature - a.temperature) - celsius(20);
    };
    expect(rise(mass)).toBeLessThanOrEqual(SAFE_RISE + 0.01);
    expect(rise(1.05 * mass)).toBeGreaterThan(SAFE_RISE);
    expect(largestBatch({ ...ask, until: 20_000 })).toBeNull();
  });

  test('how long a batch may stay ends with its age, its warmth or its data, whichever is first, and falls with its mass', () => {
    const ask = { resin: hot, start: celsius(20), ambient: celsius(20), ageLimit: 0.4 };
    const stays = [0.05, 0.5, 2, 8].map((mass) => longestStay({ ...ask, mass }));
    for (let i = 1; i < stays.length; i++) expect(stays[i]).toBeLessThan(stays[i - 1]!);
    const { curve } = pot(0.05);
    const after = curve.findIndex(({ age }) => age >= 0.4);
    expect(stays[0]).toBeGreaterThan(curve[after - 1]!.time);
    expect(stays[0]).toBeLessThanOrEqual(curve[after]!.time);
    // A heavy one that may grow as old as it will is stopped by its warmth.
    const heavy = pot(8).curve;
    const hot20 = longestStay({ ...ask, mass: 8, ageLimit: 1 });
    const over = heavy.findIndex(({ temperature }) => temperature > celsius(20) + SAFE_RISE);
    expect(hot20).toBeGreaterThan(heavy[over - 1]!.time);
    expect(hot20).toBeLessThanOrEqual(heavy[over]!.time);
  });

  test('a container from the cold store: 25 kg out of 6 °C into 19 °C are within a kelvin after 2.56 time constants', () => {
    const drum = { mass: 25, density: 1150, temperature: celsius(6) };
    // m c / (h A) of a body as tall as wide, by hand.
    const diameter = Math.cbrt(100 / Math.PI / 1150);
    const constant = (25 * 1900) / (8 * 1.5 * Math.PI * diameter ** 2);
    expect(warmingTime(drum, celsius(19), 1)).toBeCloseTo(constant * Math.log(13), 3);
    expect(warmingTime({ ...drum, temperature: celsius(18.5) }, celsius(19), 1)).toBe(0);
  });
});
