import { describe, expect, test } from '@jest/globals';
import { demoJobs, demoShop } from './demo/jobs.ts';
import { withDoubt, withResin } from './job/edits.ts';
import { emptyJob } from './job/new-job.ts';
import { materialOf } from './job/material-of.ts';
import { assumptionsOf, isSettled, settle, settledIn, usualFor } from './settle.ts';
import { laidOut } from './job/laid.ts';

const spinner = demoJobs[1]!;
const empty = emptyJob('Blank');
const blank = laidOut(empty);

describe('what is taken where nobody has said', () => {
  test('what was entered stands, with no guess about it', () => {
    const job = laidOut(withResin({ hoseLength: 3, temperature: 300 })(spinner));
    expect(settle(job, demoShop)['resin.hoseLength']).toEqual({
      value: 3,
      from: 'entered',
      reason: 'as entered',
    });
    expect(settle(job, demoShop)['resin.temperature'].value).toBe(300);
    expect(assumptionsOf(job, demoShop).map(({ path }) => path)).not.toContain('resin.hoseLength');
  });

  test('zero is an answer, not a blank', () => {
    const job = laidOut(withDoubt({ raceChance: 0 })(withResin({ degasDuration: 0 })(empty)));
    expect(settle(job, demoShop)['resin.degasDuration'].from).toBe('entered');
    expect(settle(job, demoShop)['doubt.raceChance']).toMatchObject({ value: 0, from: 'entered' });
  });

  test('a blank takes the usual value, said with its reason', () => {
    const settled = settle(blank, demoShop);
    expect(settled['resin.mixDuration']).toEqual({ value: 120, from: 'assumed', reason: 'common practice' });
    expect(settled['resin.temperature']).toMatchObject({ value: demoShop.temperature, from: 'assumed' });
    // No resin is chosen: one density for all who ask.
    expect(settled['resin.density']).toEqual({
      value: 1100,
      from: 'assumed',
      reason: 'no resin is chosen yet',
    });
    expect(settledIn(blank, 'resin.density')).toBe(1100);
    expect(usualFor('resin.mixDuration', laidOut(withResin({ mixDuration: 60 })(empty)), demoShop)).toBe(120);
  });

  test('the air is that of the altitude until it is measured', () => {
    const at = (shop: typeof demoShop) => settle(blank, shop)['shop.ambientPressure'];
    // Standard atmosphere, ISO 2533: 938.7 mbar at 640 m.
    expect(at(demoShop).value / 100).toBeCloseTo(938.7, 0);
    expect(at({ ...demoShop, ambientPressure: 94_500 })).toMatchObject({ value: 94_500, from: 'entered' });
  });

  test('a resin known at one temperature is doubted more', () => {
    const at = (points: number) => ({
      ...laidOut(spinner),
      materials: spinner.materials.map((material) =>
        material.kind === 'resin'
          ? {
              ...material,
              kinetics: null,
              gelTable: null,
              viscosityPoints: [293, 303, 313]
                .slice(0, points)
                .map((temperature, i) => ({ temperature, viscosity: 0.3 - 0.08 * i })),
              gelPoints: [293, 303, 313]
                .slice(0, points)
                .map((temperature, i) => ({ temperature, time: 5000 - 1500 * i })),
            }
          : material,
      ),
    });
    for (const path of ['doubt.viscosity', 'doubt.gelTime'] as const)
      expect(settledIn(at(1), path)).toBeGreaterThan(settledIn(at(3), path));
  });

  test('lists what a job with a front rests on; without one hoses are of no concern', () => {
    const paths = (job: typeof blank) => assumptionsOf(job, demoShop).map(({ path }) => path);
    expect(paths(blank)).toEqual([
      'resin.temperature',
      'resin.mixDuration',
      'resin.degasDuration',
      'resin.hoseFillDuration',
      'resin.hoseLength',
      'vacuum.ventPressure',
      'shop.ambientPressure',
    ]);
    expect(paths({ ...blank, process: 'wetLayup' })).not.toContain('resin.hoseLength');
    expect(paths(blank).every(isSettled)).toBe(true);
    expect(isSettled('resin.price')).toBe(false);
  });

  test('another shop is another answer; the same one is not worked out twice', () => {
    const once = settle(blank, demoShop);
    expect(settle(blank, demoShop)).toBe(once);
    expect(settle(blank, { ...demoShop, temperature: 300 })['resin.temperature'].value).toBe(300);
    expect(settle(blank, demoShop)['resin.temperature'].value).toBe(demoShop.temperature);
  });
});

test('a material is found by its kind as well as its id', () => {
  const [own] = spinner.materials;
  expect(materialOf(spinner, own!.id, own!.kind)).toBe(own);
  expect(materialOf(spinner, own!.id, own!.kind === 'pump' ? 'pot' : 'pump')).toBeNull();
  expect(materialOf(spinner, null, 'resin')).toBeNull();
});
