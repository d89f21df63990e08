import { demoJobs, demoShop } from '../src/demo/jobs.ts';
import { laidOut, type LaidJob } from '../src/job/laid.ts';
import { rehearse, shapesFor } from '../src/infusion/operator.ts';
import { drawFaults, type DrawnFault } from '../src/infusion/truth.ts';
import { tallyOf } from '../src/infusion/tally.ts';

/**
 * Rehearsals of two demo jobs, by the plan and by the advice; prints how often the range holds and how many parts are saved. Asserts
 * nothing. --quick takes a tenth of them.
 */
const RUNS = process.argv.includes('--quick') ? 10 : 100;
const fineness = { nodeCount: 300, steps: 40 };
/** Of what happens later no mark can tell beforehand: the range is held against what the part is from the start. */
const inThePart = ({ kind }: DrawnFault) => ['permeabilityOff', 'race', 'coldResin'].includes(kind);

const percent = (share: number) => `${Math.round(100 * share)} %`;
const jobs = ['Hydro spinner', 'Footbridge kerb plate'].map((name) =>
  laidOut(demoJobs.find((job) => job.name === name)!),
);
/** A resin of half the life, so that there is something to lose. */
const hurried = (job: LaidJob): LaidJob => ({
  ...job,
  name: `${job.name}, resin of a third of the life`,
  materials: job.materials.map((material) =>
    material.kind === 'resin'
      ? { ...material, gelPoints: material.gelPoints.map((point) => ({ ...point, time: point.time / 3 })) }
      : material,
  ),
});

let [covered, asked] = [0, 0];
for (const job of jobs) {
  const shapes = shapesFor(job, demoShop, fineness);
  const list = Array.from({ length: RUNS }, (_, n) => {
    const faults = drawFaults(job, n + 1).filter(inThePart);
    return rehearse(job, demoShop, { seed: n + 1, policy: 'planned', shapes, fineness, faults });
  });
  const tally = tallyOf(list);
  covered += tally.covered;
  asked += tally.asked;
  console.log(
    `${job.name}: after three marks the range of eight in ten held the last corner in ${tally.covered} of ${tally.asked} (${percent(tally.covered / tally.asked)}); its width was ${(tally.widthAfter / tally.widthBefore).toFixed(2)} of the plan's`,
  );
}
console.log(`together: ${covered} of ${asked} (${percent(covered / asked)})`);

for (const job of jobs.map(hurried)) {
  const shapes = shapesFor(job, demoShop, fineness);
  const saved = (['planned', 'follow'] as const).map((policy) => {
    const list = Array.from({ length: RUNS / 2 }, (_, n) =>
      rehearse(job, demoShop, { seed: n + 1, policy, shapes, fineness }),
    );
    return tallyOf(list).saved;
  });
  console.log(
    `${job.name}, any fault: ${saved[0]} of ${RUNS / 2} parts saved by the plan, ${saved[1]} by following the advice`,
  );
}
