import { assumptionsOf } from '../settle.ts';
import { missingOf } from './missing.ts';
import { partArea } from '../part/figures.ts';
import { stackOf } from '../laminate/stack.ts';
import { emptyJob } from '../job/new-job.ts';
import { resinToMix } from '../resin/ledger.ts';
import { batchesOf } from '../resin/batches.ts';
import { runConditionsOf } from '../resin/run.ts';
import { describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { requestOf } from '@wick/core/flow/problem';
import { assess, COARSE, DRAG, FINE } from './assess.ts';
import { problemOf } from './problem.ts';
import { demoShop } from '../demo/jobs.ts';
import { laidOut, type LaidJob } from '../job/laid.ts';
import { act, laidDemos, withLine } from '../test/laid-demos.ts';
import { forecastPot } from '@wick/core/resin/pot';
import { clockOf } from '@wick/core/verdict/verdict';
import { timelineOf } from './assess.ts';
import { likelyWords, verdictSentence } from './words.ts';
import { isMesh } from '../layout/mesh-areas.ts';

const [gore, spinner] = laidDemos as [LaidJob, LaidJob];
const third = gore.lines[2]!.points;
const withThirdFeedAt = (x: number) => withLine(gore, 'feed-3', { points: third.map((p) => ({ ...p, x })) });

describe('demo jobs', () => {
  test('the dome gore starts out failing, and its third feed further on mends it', () => {
    const failing = assess(gore, demoShop, COARSE).verdict!;
    expect(failing.band).toBe('willNotFill');
    expect(verdictSentence(failing)).toMatch(
      /^Will not fill: the resin gels at .* of the part wet; \d+ in 100 \(\d+ to \d+\) fill\.$/,
    );
    const mended = assess(withThirdFeedAt(2.2), demoShop, COARSE).verdict!;
    expect(['comfortable', 'tight']).toContain(mended.band);
    expect(mended.chance).toBeGreaterThan(failing.chance);
  });

  test('the spinner fills comfortably', () => {
    const { verdict, flow } = assess(spinner, demoShop, COARSE);
    expect(verdict!.band).toBe('comfortable');
    expect(flow.dryRegions).toEqual([]);
    expect(likelyWords(verdict!)).toMatch(/^\d+ to \d+ min$/);
  });

  test('dragged, coarse and fine forecasts of the gore agree within 5 %', () => {
    const job = withThirdFeedAt(2.2);
    const [dragged, coarse, fine] = [DRAG, COARSE, { ...FINE, layers: false }].map(
      (resolution) => assess(job, demoShop, resolution).flow.fillTime,
    );
    for (const quick of [dragged, coarse]) expect(Math.abs(quick! / fine! - 1)).toBeLessThan(0.05);
  });
});

describe('stored job to solver input', () => {
  test('blanks become named assumptions; typed values do not', () => {
    expect(assumptionsOf(spinner, demoShop).map((item) => item.label)).toEqual([
      'Resin temperature',
      'Degassing',
      'Filling the hose',
      'Feed hose',
      'Vacuum at the vent',
      'Ambient pressure',
    ]);
    expect(assumptionsOf(gore, { ...demoShop, ambientPressure: 93_900 })).toEqual([]);
  });

  test('altitude lowers the pressure that drives the resin', () => {
    const [low, high] = [0, 2000].map((altitude) => problemOf(gore, { ...demoShop, altitude }));
    expect(low!.feedPressure).toBeCloseTo(101_325, 0);
    expect(high!.feedPressure).toBeLessThan(0.8 * low!.feedPressure);
  });

  test('one ply more changes thickness, mass, resin and flow together', () => {
    const more: LaidJob = {
      ...gore,
      laminate: {
        ...gore.laminate,
        plies: [...gore.laminate.plies, { ...gore.laminate.plies[0]!, id: 'extra' }],
      },
    };
    const [a, b] = [gore, more].map((job) => stackOf(job, demoShop));
    for (const key of ['laminateThickness', 'fibreWeight', 'resinInPlies'] as const)
      expect(b![key] / a![key]).toBeCloseTo(5 / 4, 9);
    const [averaged, layered] = [false, true].map(
      (layers) => problemOf(more, demoShop, { layers }).zones[0]!,
    );
    expect(averaged!.layers.map(({ storage }) => storage)).toEqual([b!.storage]);
    expect(layered!.layers.reduce((sum, { storage }) => sum + storage, 0)).toBeCloseTo(b!.storage, 12);
    // Nobody has said: with a mesh or a core layers are told apart, of plies alone they are not.
    expect(problemOf(gore, demoShop).zones[0]!.layers.length).toBeGreaterThan(1);
    const bare = { ...gore, laminate: { ...gore.laminate, coreId: null }, layers: [] };
    expect(problemOf(bare, demoShop).zones[0]!.layers).toHaveLength(1);
  });

  test('what a new job lacks is listed with its stage', () => {
    expect(missingOf(laidOut(emptyJob('New'))).map((item) => item.stage)).toEqual([
      'laminate',
      'lines',
      'lines',
      'resin',
    ]);
    expect(partArea(emptyJob('New').part)).toBeCloseTo(0.96, 12);
  });
});

describe('what runs on a clock', () => {
  const timed = (minute: number) =>
    withLine(gore, 'feed-2', { actions: [act('opens', 1, { kind: 'time', time: 60 * minute })] });

  test('a layout with triggers only is solved once for any resin; times, delays, soft and warm ones are not', () => {
    expect(problemOf(gore, demoShop)).toMatchObject({ run: null, moving: null });
    expect(problemOf(timed(30), demoShop).run).not.toBeNull();
    const soft = { ...gore, forecast: { layers: false, soft: true, nodeCount: null } };
    expect(problemOf(soft, demoShop)).toMatchObject({ settles: true, run: { openTime: 240 } });
    const warm = { ...gore, resin: { ...gore.resin, mouldTemperature: 303.15 } };
    expect(problemOf(warm, demoShop).moving!.temperatures).toEqual([303.15, 303.15]);
    const { resin } = emptyJob('No resin');
    expect(() => assess({ ...timed(30), resin }, demoShop, COARSE)).toThrow(/Choose a resin first/);
  });

  test('an opening at a minute happens at that minute since first mix', () => {
    const { flow } = assess(timed(25), demoShop, COARSE);
    const run = runConditionsOf(gore, demoShop)!;
    const timeline = timelineOf(flow, clockOf(run), run.openTime);
    const opens = flow.events.find(({ lineId, kind }) => lineId === 'feed-2' && kind === 'opens')!;
    expect(timeline.clockTime(opens.time) / 60).toBeCloseTo(25, 3);
    expect(timeline.clockTime(timeline.runTime(1500))).toBeCloseTo(1500, 3);
  });

  test('a run in seconds agrees with the fluidity time where nothing differs from place to place', () => {
    // The mould at the resin's own temperature: the same physics, stepped on the clock.
    const job = withThirdFeedAt(2.2);
    const clocked: LaidJob = { ...job, resin: { ...job.resin, mouldTemperature: job.resin.temperature } };
    const [plain, stepped] = [job, clocked].map((each) => assess(each, demoShop, COARSE).verdict!);
    expect(plain!.fillTime).toBeLessThan(plain!.gelTime);
    // What was drawn early is younger than what is still in the pot: the look-up takes all of it to be as old as the pot.
    expect(stepped!.fillTime / plain!.fillTime - 1).toBeLessThan(0.01);
    expect(stepped!.fillTime / plain!.fillTime - 1).toBeGreaterThan(-0.04);
    expect(stepped!.lifeUsed).toBeLessThan(plain!.lifeUsed);
    expect(stepped!.lifeUsed).toBeGreaterThan(0.9 * plain!.lifeUsed);
    expect(stepped!.band).toBe(plain!.band);
  });

  test('the verdict’s clock is the one of the pot: smaller batches of the same resin keep longer', () => {
    const run = runConditionsOf(spinner, demoShop)!;
    const split = {
      ...spinner,
      resin: {
        ...spinner.resin,
        batches: [
          { id: 'first', stationId: null, mixedAt: 0, mass: 0.5 },
          { id: 'second', stationId: null, mixedAt: 600, mass: null },
        ],
      },
    };
    expect(run.pot!.mass).toBeCloseTo(resinToMix(spinner, demoShop)!, 9);
    expect(runConditionsOf(split, demoShop)!.pot!.mass).toBe(0.5);
    expect(batchesOf(split, demoShop)[1]!.mass).toBeCloseTo(resinToMix(split, demoShop)! - 0.5, 9);
    const verdict = assess(spinner, demoShop, COARSE).verdict!;
    const { gelTime, knownUntil } = forecastPot({ ...run, ...run.pot!, start: run.temperature });
    expect(verdict.gelTime).toBe(Math.min(gelTime, knownUntil));
    expect(clockOf(runConditionsOf(split, demoShop)!).gelTime).toBeGreaterThan(1.01 * verdict.gelTime);
    // Without a laminate nobody knows how much is mixed.
    expect(
      runConditionsOf({ ...spinner, laminate: { ...spinner.laminate, plies: [] } }, demoShop)!.pot,
    ).toBeNull();
  });

  test('a warm mould fills sooner than a cold one', () => {
    const job = withThirdFeedAt(2.2);
    const [cold, warm] = [288.15, 296.15].map(
      (mouldTemperature) =>
        assess({ ...job, resin: { ...job.resin, mouldTemperature } }, demoShop, COARSE).verdict!.fillTime,
    );
    expect(warm!).toBeLessThan(cold!);
  });

  test('a second batch poured late brings younger resin', () => {
    const job = withThirdFeedAt(2.2);
    const age = (batches: Job['resin']['batches']) => {
      const resin = { ...job.resin, batches, mouldTemperature: job.resin.temperature };
      const problem = problemOf({ ...job, resin }, demoShop);
      const { inletState } = requestOf(problem, COARSE).resin!;
      return inletState(1800, 5 / 1060);
    };
    const second = (mixedAt: number) => [
      { id: 'first', stationId: null, mixedAt: 0, mass: 6 },
      { id: 'second', stationId: null, mixedAt, mass: null },
    ];
    expect(age(second(1200))).toBeLessThan(0.8 * age([]));
    // One that is poured later than that has no part in it yet.
    expect(age(second(2400))).toBeGreaterThan(age(second(1200)));
  });
});

test('where the lag of the mould side decides, the run in layers reads the worse band', () => {
  // Plies that let next to nothing through: the mesh floods the vent while the mould side behind it is dry.
  const tight = <P extends { across: number }>(point: P) => ({ ...point, through: 3e-3 * point.across });
  const mended = withThirdFeedAt(2.2);
  const materials = mended.materials.map((own) =>
    own.kind !== 'fabric' || 'fibres' in own.permeability
      ? own
      : 'table' in own.permeability
        ? { ...own, permeability: { table: own.permeability.table.map(tight) } }
        : { ...own, permeability: tight(own.permeability) },
  );
  const look = { nodeCount: 300, steps: 40 };
  const [averaged, layered] = [false, true].map((layers) =>
    assess({ ...mended, materials, forecast: { ...mended.forecast, layers } }, demoShop, look),
  );
  expect(layered!.flow.lag!.largest).toBeGreaterThan(0.5);
  expect([averaged, layered].map((run) => run!.verdict!.band)).toEqual(['tight', 'airTrapped']);
});

test('zones bring their own laminate, and a brake of peel ply alone slows the front', () => {
  const strip: LaidJob = {
    ...gore,
    layers: gore.layers.map((layer) => (isMesh(layer) ? { ...layer, except: ['brake', 'strip'] } : layer)),
    zones: [
      ...gore.zones,
      {
        id: 'strip',
        name: 'Brake',
        purpose: 'part',
        outline: [
          { x: 3.1, y: 0.2 },
          { x: 3.2, y: 0.2 },
          { x: 3.2, y: 1 },
          { x: 3.1, y: 1 },
        ],
        laminate: {
          ...gore.laminate,
          plies: gore.laminate.plies.slice(0, 1),
          coreId: null,
        },
        temperature: null,
      },
    ],
  };
  const [without, withBrake] = [gore, strip].map((job) => assess(job, demoShop, COARSE).flow);
  expect(withBrake!.fillTime).toBeGreaterThan(without!.fillTime);
  expect(problemOf(strip, demoShop).zones.map(({ name }) => name)).toEqual(['Base', 'Vent brake', 'Brake']);
});
