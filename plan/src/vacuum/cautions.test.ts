import { describe, expect, test } from '@jest/globals';
import { formatQuantity } from '@wick/core/units/format';
import { demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { withVacuum } from '../job/edits.ts';
import { jobOf, laidOut } from '../job/laid.ts';
import { settle } from '../settle.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { vacuumCautions } from './cautions.ts';

const [gore, spinner] = laidDemos;
const show = (value: number, quantity: 'absolutePressure' | 'temperature') => formatQuantity(value, quantity);
const cautions = (job = gore!, shop = demoShop) => vacuumCautions(job, shop, show);

describe('before a vacuum is believed', () => {
  test('nothing is said of a sound job', () => {
    expect(cautions()).toEqual([]);
  });

  test('a weather report’s pressure at 640 m is caught, with what it comes to there', () => {
    const [words] = cautions(gore, { ...demoShop, ambientPressure: 101_300 });
    // 1013 hPa (1 - 0.0065 640 / 288.15)^5.2559 = 938.5 hPa.
    expect(words).toMatch(/^1013.* sea level: at 640 m that is 93[89]/);
    expect(cautions(gore, { ...demoShop, ambientPressure: 94_000 })).toEqual([]);
  });

  test('nobody assumes a better vacuum than the chosen pump reaches; one that is stated is named', () => {
    const dry = laidOut(withVacuum({ pumpId: 'pump-dry' }, demoMaterials)(jobOf(spinner!)));
    expect(settle(dry, demoShop)['vacuum.ventPressure']).toMatchObject({ value: 12_000, from: 'assumed' });
    expect(cautions(dry)).toEqual([]);
    const stated = { ...dry, vacuum: { ...dry.vacuum, ventPressure: 2000 } };
    expect(cautions(stated)).toEqual([
      expect.stringMatching(/^20 mbar at the vents is less than Pump, dry vane reaches/),
    ]);
    const small = laidOut(withVacuum({ pumpId: 'pump-small' }, demoMaterials)(jobOf(spinner!)));
    expect(settle(small, demoShop)['vacuum.ventPressure'].value).toBe(2000);
    // Taken back, the job no longer carries it.
    expect(
      withVacuum({ pumpId: null }, demoMaterials)(jobOf(dry)).materials.map(({ id }) => id),
    ).not.toContain('pump-dry');
  });

  test('styrene near its vapour pressure at the vents is warned of, on the warmest mould; an epoxy has none', () => {
    // 1.5 times 1171 Pa at 30 C, from memory; the gore stands at 18 mbar.
    expect(cautions({ ...gore!, resin: { ...gore!.resin, mouldTemperature: 303.15 } })).toEqual([]);
    const warm = { ...gore!, resin: { ...gore!.resin, mouldTemperature: 313.15 } };
    expect(cautions(warm)).toEqual([
      expect.stringMatching(/^Styrene boils out of Vinyl ester V1.*better than 30\.1 mbar/),
    ]);
    expect(
      cautions({ ...spinner!, vacuum: { ...spinner!.vacuum, ventPressure: 100, pumpId: null } }),
    ).toEqual([]);
  });
});
