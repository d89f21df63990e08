import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { conversionOfGlass, glassAt, stallsAt } from './glass.ts';

const C = 273.15;
const glass = { fresh: C - 40, full: C + 80, lambda: 0.5 };

test('a resin of -40 and 80 °C, half bent: at 0.8 it is glassy below 40 °C, and at 23 °C it stands still at 0.79', () => {
  // By hand: x = 0.5 * 0.8 / (1 - 0.5 * 0.8) = 2/3, -40 + 2/3 * 120 = 40.
  expect(glassAt(0.8, glass)).toBeCloseTo(C + 40, 9);
  // 23 + 15 K: x = 78 / 120 = 0.65, 0.65 / (0.5 + 0.5 * 0.65) = 0.788.
  expect(stallsAt(C + 23, glass)).toBeCloseTo(0.788, 3);
});

test('there and back, rising from fresh to full', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      fc.double({ min: 0.1, max: 1, noNaN: true }),
      (a, lambda) => {
        const own = { ...glass, lambda };
        expect(conversionOfGlass(glassAt(a, own), own)).toBeCloseTo(a, 9);
        expect(glassAt(a, own)).toBeGreaterThan(glassAt(a * 0.9, own));
      },
    ),
  );
  expect([glassAt(0, glass), glassAt(1, glass)]).toEqual([glass.fresh, glass.full]);
  expect([conversionOfGlass(200, glass), conversionOfGlass(500, glass)]).toEqual([0, 1]);
});

test('what cannot be is refused with what to do', () => {
  expect(() => glassAt(0.5, { ...glass, full: glass.fresh })).toThrow('Correct them from the data sheet');
  expect(() => glassAt(0.5, { ...glass, lambda: NaN })).toThrow('above 0 and up to 1');
  expect(() => glassAt(1.2, glass)).toThrow('The conversion');
});
