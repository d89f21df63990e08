import { expect, test } from '@jest/globals';
import { ModelError } from '@wick/core/model-error';
import { forecastPot } from '@wick/core/resin/pot';
import { bandFor, fills } from '@wick/core/verdict/rule';
import { clockOf, withSampledChance } from '@wick/core/verdict/verdict';
import fc from 'fast-check';
import { scoreOf } from '../advice/score.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { laidOut } from '../job/laid.ts';
import { hasFront } from '../processes/processes.ts';
import { batchesOf } from '../resin/batches.ts';
import { ledgerOf, resinToMix } from '../resin/ledger.ts';
import { runConditionsOf } from '../resin/run.ts';
import { anyEdit } from '../test/any-edit.ts';
import { assess, timelineOf } from './assess.ts';
import { outcomeOf } from './outcome.ts';
import { isSound, verdictSentence } from './words.ts';

const LOOK = { nodeCount: 120, steps: 16, layers: false, soft: false };
const rule = demoShop.judging;
const starts = demoJobs.filter(hasFront);

/** What the panels of a job show, each by the function that it calls; null where the job cannot be forecast. */
function panelsOf(seeds: readonly number[], start: (typeof starts)[number], temperature: number) {
  const edited = seeds.reduce((job, seed) => anyEdit(job, seed).edit(job), start);
  const job = laidOut({ ...edited, resin: { ...edited.resin, temperature } });
  try {
    const { flow, verdict } = assess(job, demoShop, LOOK);
    return verdict && { job, flow, verdict, outcome: outcomeOf(job, demoShop, flow, verdict) };
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}

test('over random jobs no band is better than its chance and its time allow, and no panel says otherwise than another', () => {
  let [judged, withPot, filling] = [0, 0, 0];
  fc.assert(
    fc.property(
      fc.constantFrom(...starts),
      fc.uniqueArray(fc.integer(), { maxLength: 12 }),
      fc.double({ min: 284, max: 302, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (start, seeds, temperature, luck) => {
        const panels = panelsOf(seeds, start, temperature);
        if (!panels) return;
        const { job, flow, verdict, outcome } = panels;
        judged += 1;

        // Band, chance and time: the board.
        const { band, chance, chanceRange, timeUsed, gelTime, fillTime } = verdict;
        if (band === 'comfortable') {
          expect(chance).toBeGreaterThanOrEqual(rule.comfortableChance);
          expect(timeUsed).toBeLessThanOrEqual(rule.comfortableTime);
        }
        if (band === 'comfortable' || band === 'tight') {
          expect(chance).toBeGreaterThanOrEqual(rule.tightChance);
          expect(timeUsed).toBeLessThanOrEqual(rule.tightTime);
        }
        if (fills(band)) {
          filling += 1;
          expect(flow.isFilled).toBe(true);
          expect(fillTime).toBeLessThanOrEqual(gelTime);
          const shutIn = flow.dryRegions.reduce((sum, region) => sum + region.finalArea, 0);
          expect(shutIn).toBeLessThanOrEqual(rule.shutInArea);
        }
        if (chanceRange.from !== null && chanceRange.to !== null) {
          expect(chance).toBeGreaterThanOrEqual(chanceRange.from - 1e-9);
          expect(chance).toBeLessThanOrEqual(chanceRange.to + 1e-9);
        }
        // With another chance, as the sampled runs have it, the same rule.
        const isInTime = fills(band) || band === 'airTrapped';
        if (isInTime) {
          const summary = { chance: luck, chanceRange: { from: luck, to: luck }, drivers: [] };
          const sampled = withSampledChance(verdict, summary as never, rule);
          const shutIn = flow.dryRegions.reduce((sum, region) => sum + region.finalArea, 0);
          expect(sampled.band).toBe(bandFor({ isWet: true, isInTime, shutIn, chance: luck, timeUsed }, rule));
        }

        // List, layouts, suggestions and repairs.
        expect([outcome.band, outcome.gelTime, outcome.chance]).toEqual([band, gelTime, chance]);
        expect(outcome.fillTime).toBe(Number.isFinite(fillTime) ? fillTime : null);
        const score = scoreOf(job, demoShop, outcome);
        expect(score.gelTime).toBe(gelTime);
        expect(score.fillTime < score.gelTime).toBe(fillTime < gelTime);
        if (isSound(band)) expect(fills(band)).toBe(true);

        // Script, marks and the fuse read one clock, and it is the pot's.
        const run = runConditionsOf(job, demoShop)!;
        const clock = clockOf(run);
        expect(clock.gelTime).toBe(gelTime);
        if (flow.timeUnit === 'fluidity' && Number.isFinite(fillTime))
          expect(timelineOf(flow, clock, run.openTime).clockTime(flow.fillTime)).toBe(fillTime);
        if (run.pot) {
          withPot += 1;
          const pot = forecastPot({ ...run, ...run.pot, start: run.temperature });
          expect(Math.min(pot.gelTime, pot.knownUntil)).toBe(gelTime);
        }

        // Masses: what the ledger adds up is what is mixed, batch by batch.
        const total = resinToMix(job, demoShop);
        if (total !== null) {
          expect(ledgerOf(job, demoShop)!.total).toBe(total);
          const batches = batchesOf(job, demoShop);
          if (batches.some(({ isRest, mass }) => isRest && mass > 0))
            expect(batches.reduce((sum, { mass }) => sum + mass, 0)).toBeCloseTo(total, 6);
        }
        expect(verdictSentence(verdict)).not.toMatch(/NaN|undefined/);
      },
    ),
    { numRuns: 24, seed: 12 },
  );
  // Most of what a hand does leaves a job that can be judged.
  expect(judged).toBeGreaterThan(12);
  expect(withPot).toBeGreaterThan(8);
  expect(filling).toBeGreaterThan(5);
});
