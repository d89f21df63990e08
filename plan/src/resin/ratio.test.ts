import { describe, expect, test } from '@jest/globals';
import type { MaterialOf } from '@wick/contract/materials';
import { demoMaterials } from '../demo/materials.ts';
import { ratioFault, ratiosDisagree, ratioWindowOf, toleranceOf, volumePartsOf } from './ratio.ts';

const named = (id: string) => demoMaterials.find((material) => material.id === id) as MaterialOf<'resin'>;
/** 3:1 by volume at 1.16 and 0.97 g/cm3 is 100:27.9 by weight (common practice, no source; arithmetic). */
const threeToOne: MaterialOf<'resin'> = {
  ...named('epoxy-slow-s3'),
  ...{ hardenerParts: 27.9, hardenerVolumeParts: 100 / 3, resinDensity: 1160, hardenerDensity: 970 },
};

describe('a wrong ratio is refused in words', () => {
  test('the ratio by volume typed as one by weight', () => {
    const words = ratioFault(33.3, threeToOne);
    expect(words).toMatch(
      /33.3 to 100 is the ratio of Epoxy slow S3 by volume. On a scale it is 27.9 to 100/,
    );
    // A fifth too much: 1.16 / 0.97 - 1, rounded.
    expect(words).toMatch(/19 % too much hardener/);
    expect(ratioFault(27.9, threeToOne)).toBeNull();
  });

  test('the wrong way round', () => {
    expect(ratioFault(1e4 / 27.9, threeToOne)).toMatch(
      /the wrong way round: 27.9 of hardener go to 100 of resin/,
    );
  });

  test('an amine is not made quicker by more hardener, nor slower by less', () => {
    for (const typed of [35, 22])
      expect(ratioFault(typed, { ...threeToOne, hardenerVolumeParts: null })).toMatch(
        /An amine is not made quicker or slower by its ratio/,
      );
  });

  test('peroxide inside its table only', () => {
    const polyester = named('polyester-p2');
    expect(ratioFault(1.2, polyester)).toBeNull();
    expect(ratioFault(2.5, polyester)).toMatch(/runs from 1 to 2 % of catalyst; 2.5 % is outside it/);
    expect(ratioFault(0.5, polyester)).toMatch(/outside it/);
  });

  test('no number, or none above nothing', () => {
    for (const typed of [NaN, 0, -3]) expect(ratioFault(typed, threeToOne)).toMatch(/above 0 parts/);
  });
});

test('two ratios on one label that do not say the same are told before mixing', () => {
  expect(ratiosDisagree(threeToOne)).toBeNull();
  expect(ratiosDisagree({ ...threeToOne, hardenerParts: 33.3 })).toMatch(
    /33.3 to 100 by volume comes to 27.9 to 100 by weight, but 33.3 is entered/,
  );
  for (const resin of demoMaterials.filter((own): own is MaterialOf<'resin'> => own.kind === 'resin'))
    expect(ratiosDisagree(resin)).toBeNull();
});

test('how far hardener may be off: as the sheet says, else an amine by two hundredths, peroxide by its table', () => {
  expect(ratioWindowOf({ ...threeToOne, hardenerWindow: { below: 0.01, above: 0.03 } })).toEqual({
    from: -0.01,
    to: 0.03,
  });
  expect(toleranceOf({ ...threeToOne, hardenerWindow: { below: 0.01, above: 0.03 } })).toBe(0.01);
  expect(ratioWindowOf(threeToOne)).toEqual({ from: -0.02, to: 0.02 });
  const polyester = named('polyester-p2');
  expect(ratioWindowOf({ ...polyester, hardenerParts: 2 }).to).toBe(0);
  expect(ratioWindowOf({ ...polyester, hardenerParts: 1.95 }).to).toBeCloseTo(2 / 1.95 - 1, 9);
});

test('by volume as the sheet has it, else converted, else not told', () => {
  expect(volumePartsOf(threeToOne)).toBeCloseTo(100 / 3, 9);
  expect(volumePartsOf({ ...threeToOne, hardenerVolumeParts: null })).toBeCloseTo((27.9 * 1160) / 970, 9);
  expect(volumePartsOf({ ...threeToOne, hardenerVolumeParts: null, hardenerDensity: null })).toBeNull();
});
