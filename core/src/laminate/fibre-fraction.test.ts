import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { contentsFromBurnOff, fractionFromThickness, fractionFromWeight } from './fibre-fraction.ts';

const glass = { fibre: 2550, resin: 1150 };

describe('the three ways agree on one coupon (identities of ASTM D3171)', () => {
  const fraction = fc.double({ min: 0.15, max: 0.7, noNaN: true });
  const size = { area: 0.025 ** 2, thickness: 3e-3 };
  const volume = size.area * size.thickness;

  test('burned off, by weight and by thickness, without voids', () => {
    fc.assert(
      fc.property(fraction, (vf) => {
        const ofFibre = vf * volume * glass.fibre;
        const mass = ofFibre + (1 - vf) * volume * glass.resin;
        const burnt = contentsFromBurnOff({ mass, left: ofFibre, density: mass / volume }, glass);
        expect(burnt.fibre).toBeCloseTo(vf, 9);
        expect(burnt.voids).toBeCloseTo(0, 9);
        expect(fractionFromWeight({ laminate: mass, fibre: ofFibre }, glass)).toBeCloseTo(vf, 9);
        expect(fractionFromThickness(ofFibre / size.area, glass.fibre, size.thickness)).toBeCloseTo(vf, 9);
      }),
    );
  });

  test('voids are what neither is: fibre, resin and voids fill the coupon', () => {
    fc.assert(
      fc.property(fraction, fc.double({ min: 0, max: 0.08, noNaN: true }), (vf, voids) => {
        const ofFibre = vf * volume * glass.fibre;
        const mass = ofFibre + (1 - vf - voids) * volume * glass.resin;
        const found = contentsFromBurnOff({ mass, left: ofFibre, density: mass / volume }, glass);
        expect(found.fibre + found.resin + found.voids).toBeCloseTo(1, 12);
        expect(found.voids).toBeCloseTo(voids, 9);
      }),
    );
  });
});

test('ignition loss by hand: 2.000 g of 1.90 g/cm³, 1.400 g left', () => {
  // ASTM D2584: ignition loss 30.0 %; D3171: V_f = 0.70 · 1.90 / 2.55, V_m = 0.30 · 1.90 / 1.15.
  const found = contentsFromBurnOff({ mass: 2e-3, left: 1.4e-3, density: 1900 }, glass);
  expect(found.fibre).toBeCloseTo((0.7 * 1.9) / 2.55, 12);
  expect(found.resin).toBeCloseTo((0.3 * 1.9) / 1.15, 12);
});

test('what cannot be says what and what to do', () => {
  expect(() => contentsFromBurnOff({ mass: 1e-3, left: 1e-3, density: 1900 }, glass)).toThrow(
    'nothing has burned',
  );
  expect(() => contentsFromBurnOff({ mass: NaN, left: 1e-3, density: 1900 }, glass)).toThrow('above zero');
  expect(() => fractionFromWeight({ laminate: 0.2, fibre: 0.2 }, glass)).toThrow('no more than its fibre');
  expect(() => fractionFromWeight({ laminate: 0.2, fibre: NaN }, glass)).toThrow('no more than its fibre');
  expect(() => fractionFromThickness(1, 2550, 0)).toThrow('above zero');
});
