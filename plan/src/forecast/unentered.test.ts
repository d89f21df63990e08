import { describe, expect, test } from '@jest/globals';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { laidOut, type LaidJob } from '../job/laid.ts';
import { forecastJob, verdictOf } from './assess.ts';
import { effectOf, runsFor, unenteredOf } from './unentered.ts';
import { unenteredWords } from './words.ts';

const gore = laidOut(demoJobs[0]!);
const averaged = (job: LaidJob): LaidJob => ({ ...job, forecast: { ...job.forecast, layers: false } });
const withResin = (changes: object): LaidJob =>
  averaged({
    ...gore,
    materials: gore.materials.map((own) =>
      own.kind === 'resin' ? { ...own, ...changes } : own,
    ) as LaidJob['materials'],
  });
const point = { temperature: 293.15, viscosity: 0.3 };
const gel = { temperature: 293.15, time: 5400 };
const epoxy = {
  ...{ chemistry: 'amine', gelTable: null, viscosityCurve: null, gelMass: 0.15, gelViscosityRatio: null },
  ...{ viscosityPoints: [point], gelPoints: [gel], heatToGel: null, hardenerParts: 30 },
};
const ids = (job: LaidJob) => unenteredOf(job, demoShop).map(({ id }) => id);

describe('what no entry says', () => {
  test('is listed for a resin of which the sheet gives one point each', () => {
    expect(ids(withResin(epoxy))).toEqual(['growth', 'thinning', 'quickening', 'heat']);
  });

  test('and not where the entry says it', () => {
    const further = { viscosityPoints: [point, { temperature: 303.15, viscosity: 0.15 }] };
    expect(ids(withResin({ ...epoxy, ...further, gelViscosityRatio: 18 }))).toEqual(['quickening', 'heat']);
    expect(ids(withResin({ ...epoxy, heatToGel: 240_000 }))).not.toContain('heat');
  });

  test('of plies and cores only where layers are told apart', () => {
    expect(ids(averaged(gore))).not.toContain('through');
    expect(ids(gore)).toContain('through');
    const undrilled = gore.materials.map((own) => (own.kind === 'core' ? { ...own, holes: null } : own));
    expect(ids({ ...gore, materials: undrilled })).toContain('holes');
  });
});

describe('what it does to the answer', () => {
  const looked = (job: LaidJob, id: string) => {
    const item = unenteredOf(job, demoShop).find((own) => own.id === id)!;
    const flow = forecastJob(job, demoShop, { nodeCount: 300 });
    const runs = runsFor(item, job).map(({ job: own, how }) => forecastJob(own, demoShop, how));
    return { item, flow, effect: effectOf(item, { shop: demoShop, flow }, runs)! };
  };

  test('is the verdict that the job has with either end entered', () => {
    const job = withResin(epoxy);
    const { flow, effect } = looked(job, 'growth');
    [10, 40].forEach((gelViscosityRatio, n) => {
      const told = verdictOf(withResin({ ...epoxy, gelViscosityRatio }), demoShop, flow)!;
      expect([effect.fill[n], effect.gel[n], effect.bands[n]]).toEqual([
        told.fillTime,
        told.gelTime,
        told.band,
      ]);
    });
    // What thickens more flows worse, and gels no sooner.
    expect(effect.fill[1]).toBeGreaterThan(effect.fill[0]);
    expect(effect.gel[1] / effect.gel[0]).toBeCloseTo(1, 6);
  });

  test('of one point goes by Arrhenius: at the temperature of the point the energy says nothing', () => {
    const job = { ...withResin({ ...epoxy, gelMass: 0 }), resin: { ...gore.resin, temperature: 293.15 } };
    const { item } = looked(job, 'thinning');
    const [least, most] = item.between.map(
      ({ materials }) => materials.find((own) => own.kind === 'resin')!.viscosityPoints,
    );
    // exp(-E/R (1/293.15 - 1/303.15)), worked by hand: 0.666 for 30 and 0.388 for 70 kJ/mol.
    expect(least![1]!.viscosity / 0.3).toBeCloseTo(0.666, 3);
    expect(most![1]!.viscosity / 0.3).toBeCloseTo(0.388, 3);
  });

  test('of the flow through the plies is run again: the slower it is, the later the last corner', () => {
    const spinner = laidOut(demoJobs[1]!);
    // Four times as thick, so that the mould side lags.
    const plies = [0, 1, 2, 3].flatMap((n) =>
      spinner.laminate.plies.map((ply) => ({ ...ply, id: `${ply.id}-${n}` })),
    );
    const { effect, item } = looked({ ...spinner, laminate: { ...spinner.laminate, plies } }, 'through');
    expect(item.movesFlow).toBe(true);
    expect(effect.fill[0]).toBeGreaterThan(1.02 * effect.fill[1]);
  });
});

describe('in words', () => {
  const effect = {
    fill: [1800, 2100],
    gel: [3600, 3610],
    bands: ['comfortable', 'tight'],
  } as const;

  test('says between what, and which bands', () => {
    expect(unenteredWords({ range: '10 to 40 times' }, effect)).toBe(
      'with 10 to 40 times the last corner is wet at 30 to 35 min: comfortable, or tight',
    );
  });

  test('says where gel comes first, and never Infinity', () => {
    const late = { ...effect, fill: [1800, Infinity], gel: [3600, 3000] } as const;
    expect(unenteredWords({ range: 'a' }, { ...late, bands: ['tight', 'willNotFill'] })).toBe(
      'with a the last corner is wet at 30 min or never, gel at 50 to 60 min: tight, or will not fill',
    );
    const never = { ...late, fill: [Infinity, Infinity], bands: ['willNotFill', 'willNotFill'] } as const;
    expect(unenteredWords({ range: 'a' }, never)).toBe(
      'with a the last corner is never wet, gel at 50 to 60 min: will not fill either way',
    );
  });
});
