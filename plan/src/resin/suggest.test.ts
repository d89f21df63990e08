import { expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { drawnAt, timeDrawn } from '@wick/core/mix/draw-down';
import { ModelError } from '@wick/core/model-error';
import { forecastPot, SAFE_RISE } from '@wick/core/resin/pot';
import fc from 'fast-check';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { forecastJob } from '../forecast/assess.ts';
import { laidOut } from '../job/laid.ts';
import { drawOf } from './draw.ts';
import { runConditionsOf } from './run.ts';
import { suggestFor, usableShare } from './suggest.ts';

/** Layouts that fill, each solved once: in fluidity time they do for any resin and temperature. */
const layouts = ['Footbridge kerb plate', 'Hydro spinner'].map((name) => {
  const job = demoJobs.find((demo) => demo.name === name)!;
  const flow = forecastJob(laidOut(job), demoShop, { nodeCount: 300, steps: 40, layers: false, soft: false });
  return { job, flow };
});
const resins = demoMaterials.filter(({ id, kind }) => kind === 'resin' && id !== 'polyester-p2');
const bucket = (id: string, use: 'mixing' | 'feed', litres: number): Job['materials'][number] => ({
  ...{ id, kind: 'pot', name: id, source: '', use, capacity: litres / 1000 },
});

const seconds = (most: number) => fc.double({ min: 30, max: most, noNaN: true });
const anyJob = fc.record({
  layout: fc.constantFrom(...layouts),
  resin: fc.constantFrom(...resins),
  temperature: fc.double({ min: 288, max: 301, noNaN: true }),
  mix: seconds(400),
  degas: fc.oneof(fc.constant(0), seconds(900)),
  heel: fc.double({ min: 0.05, max: 0.8, noNaN: true }),
  mixing: fc.double({ min: 0.8, max: 10, noNaN: true }),
  feed: fc.double({ min: 1, max: 12, noNaN: true }),
  mixers: fc.integer({ min: 1, max: 2 }),
  reserve: fc.option(fc.double({ min: 0, max: 0.3, noNaN: true })),
  // A part so many times as large takes so much more of everything.
  scale: fc.double({ min: 1, max: 5, noNaN: true }),
});

test('over random jobs suggested batches never run dry if all goes fast, and are never too warm or old before they are drawn if all goes slowly', () => {
  let [feasible, refused] = [0, 0];
  fc.assert(
    fc.property(anyJob, (given) => {
      const { job, flow } = given.layout;
      const laid = laidOut({
        ...job,
        resin: {
          ...job.resin,
          ...{
            materialId: given.resin.id,
            temperature: given.temperature,
            heel: given.heel,
            mixers: given.mixers,
          },
          ...{ mixDuration: given.mix, degasDuration: given.degas, mixingPotId: 'mixing', feedPotId: 'feed' },
          reserve: given.reserve === null ? null : { kind: 'share', share: given.reserve },
        },
        materials: [
          ...job.materials.filter(({ kind }) => kind !== 'resin'),
          ...[given.resin, bucket('mixing', 'mixing', given.mixing), bucket('feed', 'feed', given.feed)],
        ],
      });
      const large = {
        ...flow,
        samples: flow.samples.map((sample) => ({ ...sample, vented: given.scale * sample.vented })),
      };
      let found;
      try {
        found = suggestFor(laid, demoShop, large);
      } catch (error) {
        // A temperature outside the resin's data is said, not guessed.
        if (error instanceof ModelError) return;
        throw error;
      }
      if (!found!.isFeasible) return void (refused += 1);
      feasible += 1;
      const run = runConditionsOf(laid, demoShop)!;
      const [pot] = drawOf(laid, demoShop, large, run)!.pots;
      const { batches } = found!;
      expect(batches.reduce((sum, { mass }) => sum + mass, 0)).toBeCloseTo(pot!.total, 6);
      const density = run.resin.density;
      let poured = 0;
      for (const [n, { mass, mixedAt, pouredAt }] of batches.entries()) {
        expect(mass).toBeLessThanOrEqual((0.8 * density * given.mixing) / 1000 + 1e-9);
        // Just before it is poured, the pot on its fast side.
        if (n > 0) expect(poured - drawnAt(pot!.fast, pouredAt)).toBeGreaterThanOrEqual(pot!.heel - 1e-6);
        const content = poured + mass - Math.min(poured, drawnAt(pot!.slow, pouredAt));
        expect(content).toBeLessThanOrEqual((0.8 * density * given.feed) / 1000 + 1e-9);
        poured += mass;
        const emptied = timeDrawn(pot!.slow, Math.min(poured, pot!.drawn * (1 - 1e-9)));
        expect(emptied).toBeLessThan(Infinity);
        // The heat balance itself, of all that the pot then holds.
        const { curve } = forecastPot({
          ...{ resin: run.resin, mass: content, start: run.temperature, ambient: run.pot!.ambient },
        });
        const until = curve.filter(({ time }) => time <= emptied - mixedAt);
        const hottest = Math.max(...until.map(({ temperature }) => temperature));
        expect(hottest - Math.max(run.temperature, run.pot!.ambient)).toBeLessThan(SAFE_RISE * 1.03);
        expect(until[until.length - 1]!.age).toBeLessThan(1.03 * usableShare(run, demoShop));
      }
    }),
    { numRuns: 100 },
  );
  expect(feasible).toBeGreaterThan(20);
  expect(refused).toBeGreaterThan(10);
});
