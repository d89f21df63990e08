import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { equivalentAge, rateFactor, timeOfAge, windowAt, type Clock } from './age.ts';

const R = 8.314462618;
const celsius = (t: number) => t + 273.15;
const clock: Clock = { reference: celsius(20), activationEnergy: 60_000 };

test('sixty kilojoules a mole: from 20 to 30 C two and a quarter times as quick', () => {
  // exp(60000/8.314 (1/293.15 - 1/303.15)), worked by hand: 2.25.
  const byHand = Math.exp((60_000 / R) * (1 / 293.15 - 1 / 303.15));
  expect(byHand).toBeCloseTo(2.25, 2);
  expect(rateFactor(celsius(30), clock)).toBeCloseTo(byHand, 6);
  expect(rateFactor(celsius(20), clock)).toBe(1);
});

test('a window of a day at 20 C is 36.8 h at 15 C and 10.7 h at 30 C; its start moves by the same factor', () => {
  const day = { opens: 6 * 3600, closes: 24 * 3600 };
  const cold = windowAt(day, celsius(15), clock);
  const warm = windowAt(day, celsius(30), clock);
  expect(cold.closes! / 3600).toBeCloseTo(36.8, 1);
  expect(warm.closes! / 3600).toBeCloseTo(10.7, 1);
  expect(cold.opens / day.opens).toBeCloseTo(cold.closes! / day.closes, 12);
  expect(windowAt({ opens: 1, closes: null }, celsius(30), clock).closes).toBeNull();
});

test('an age gathered at two temperatures is the sum of both stretches', () => {
  const warmth = { times: [0, 3600], temperatures: [celsius(20), celsius(30)] };
  const rate = Math.exp((60_000 / R) * (1 / 293.15 - 1 / 303.15));
  expect(equivalentAge(warmth, 0, 7200, clock)).toBeCloseTo(3600 + 3600 * rate, 3);
  expect(equivalentAge(warmth, 1800, 5400, clock)).toBeCloseTo(1800 + 1800 * rate, 3);
  // Before the first temperature was told it held as well.
  expect(equivalentAge(warmth, -600, 0, clock)).toBe(600);
  expect(equivalentAge(warmth, 100, 50, clock)).toBe(0);
});

test('the time of an age is where that age is reached, whatever the temperatures were', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ gap: fc.integer({ min: 1, max: 9000 }), warm: fc.integer({ min: 5, max: 45 }) }), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.integer({ min: 0, max: 20_000 }),
      fc.integer({ min: 0, max: 90_000 }),
      (steps, from, age) => {
        let at = 0;
        const times = steps.map(({ gap }) => (at += gap));
        const warmth = { times, temperatures: steps.map(({ warm }) => celsius(warm)) };
        const time = timeOfAge(warmth, from, age, clock);
        expect(time).toBeGreaterThanOrEqual(from);
        // An independent sum in small steps agrees with it.
        expect(equivalentAge(warmth, from, time, clock)).toBeCloseTo(age, 5);
        const held = (t: number) =>
          warmth.temperatures[
            Math.max(
              0,
              times.findLastIndex((told) => told <= t),
            )
          ]!;
        const pieces = 4000;
        let sum = 0;
        for (let n = 0; n < pieces; n++) {
          const t = from + ((n + 0.5) / pieces) * (time - from);
          sum += (Math.exp((60_000 / R) * (1 / 293.15 - 1 / held(t))) * (time - from)) / pieces;
        }
        expect(Math.abs(sum - age)).toBeLessThanOrEqual(0.01 * age + 1);
      },
    ),
    { numRuns: 100 },
  );
});

test('nonsense is refused by name', () => {
  expect(() => rateFactor(0, clock)).toThrow(/a temperature must be a number above zero/);
  expect(() => rateFactor(NaN, clock)).toThrow(/a temperature must be a number above zero/);
  expect(() => rateFactor(300, { ...clock, activationEnergy: -1 })).toThrow(/activation energy/);
  expect(() => equivalentAge({ times: [], temperatures: [] }, 0, 1, clock)).toThrow(
    /No temperature is known/,
  );
});
