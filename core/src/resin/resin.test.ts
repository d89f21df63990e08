import { describe, expect, test } from '@jest/globals';
import { createResinClock } from './resin-clock.ts';
import { freshViscosity, gelTime, type ResinSystem } from './resin-system.ts';

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

  test('at gel the resin is as many times thicker as its sheet says', () => {
    expect(clock.viscosityAt(6000) / clock.viscosityAt(0)).toBeCloseTo(20, 9);
  });
});
