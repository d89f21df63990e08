import { demoJobs, demoShop } from '../src/demo/jobs.ts';
import { shapesFor } from '../src/infusion/operator.ts';
import type { SolvedShape } from '../src/infusion/problem-shapes.ts';
import { laidOut, type LaidJob } from '../src/job/laid.ts';
import { observed } from '../src/review/causes/observe.ts';
import { causesOf } from '../src/review/causes/rank-run.ts';
import { fillReviewOf } from '../src/review/fill-review.ts';
import { comparedOf } from '../src/review/measured.ts';
import { simulateRun, type MadeCause, type SimulatedRun } from '../src/review/simulated-run.ts';
import { runStateOf } from '../src/run/state.ts';

/**
 * Causes named by the review for parts made on the engine. Prints shares; asserts nothing. --quick takes two parts of each.
 */
const SEEDS = process.argv.includes('--quick') ? 2 : 15;
const fineness = { nodeCount: 300, steps: 40 };
const percent = (share: number) => `${Math.round(100 * share)} %`;
const demo = (name: string) => laidOut(demoJobs.find((job) => job.name === name)!);

const made: readonly MadeCause[] = [
  'leak',
  'race',
  'dryBucket',
  'gelFirst',
  'bridge',
  'starved',
  'wrongRatio',
];
const places: number[] = [];
for (const job of [demo('Hydro spinner'), demo('Footbridge kerb plate')]) {
  const shapes = shapesFor(job, demoShop, fineness);
  for (const cause of made) {
    const own: number[] = [];
    for (let seed = 1; seed <= SEEDS; seed++) {
      const run = simulateRun(job, demoShop, {
        cause,
        seed,
        shapes,
        fineness,
      });
      if (run.hasHappened) own.push(placeOf(job, shapes, run, cause));
    }
    places.push(...own);
    const first = own.filter((place) => place === 0).length;
    console.log(
      `${job.name}, ${cause}: first in ${first} of ${own.length}, among three in ${own.filter((place) => place < 3).length}`,
    );
  }
}
console.log(
  `causes: the true one first in ${percent(places.filter((place) => place === 0).length / places.length)}, among the first three in ${percent(places.filter((place) => place < 3).length / places.length)} of ${places.length} parts`,
);

function placeOf(job: LaidJob, shapes: readonly SolvedShape[], run: SimulatedRun, cause: MadeCause): number {
  const about = { job, shop: demoShop, state: runStateOf(run.entries), readings: run.readings };
  const fill = fillReviewOf({ ...about, shapes });
  const compared = comparedOf(job, demoShop, about.state, fill);
  const { ranked } = causesOf(observed({ ...about, fill, compared }), { edits: demoShop.causes, before: [] });
  return ranked.findIndex(({ id }) => id === cause);
}
