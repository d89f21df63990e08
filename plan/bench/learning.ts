import { createRandom, normalOf } from '@wick/core/random';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { demoJobs, demoShop } from '../src/demo/jobs.ts';
import { shapesFor } from '../src/infusion/operator.ts';
import type { SolvedShape } from '../src/infusion/problem-shapes.ts';
import { laidOut, type LaidJob } from '../src/job/laid.ts';
import { evidenceOf } from '../src/review/evidence.ts';
import { fillReviewOf, type FillReview } from '../src/review/fill-review.ts';
import { withLearned } from '../src/review/learned-values.ts';
import { offersOf, type RunEvidence } from '../src/review/learning.ts';
import { sharesOf, type Share } from '../src/review/shares.ts';
import { oneShops, simulateRun, type SimulatedRun } from '../src/review/simulated-run.ts';
import { runStateOf } from '../src/run/state.ts';

/**
 * Workshops that learn from three parts: the forecast of the next before and after. Prints ratios and shares; asserts nothing. --quick
 * takes a tenth of the workshops.
 */
const SHOPS = process.argv.includes('--quick') ? 10 : 100;
const RUNS = 3;
const fineness = { nodeCount: 200, steps: 30 };
const percent = (share: number) => `${Math.round(100 * share)} %`;

// A plate averaged through its thickness, of cloth and mesh that nobody has measured: x/÷ 2, drawn anew for each shop. The rest is known
// as well as it is kept.
const kerb = laidOut(demoJobs.find((job) => job.name === 'Footbridge kerb plate')!);
const DOUBT = 2;
/** By which parts of one shop differ, standard deviation of ln. */
const SCATTER = 0.1;
const plate: LaidJob = {
  ...kerb,
  part: { ...kerb.part, rise: null },
  forecast: { ...kerb.forecast, layers: false, soft: false },
  doubt: { ...oneShops(kerb).doubt, permeability: null },
  materials: kerb.materials.map((material) => ({ ...material, about: {} })),
};
/** Nothing goes wrong with these parts beside their scatter, and the forecast reckons with nothing else. */
const scattering = (job: LaidJob) => shapesFor(job, demoShop, fineness).filter(({ event }) => event === null);
const planShapes = scattering(plate);
const planShares: Share[] = sharesOf({ job: plate, shop: demoShop, places: [] }, fineness);

interface Held {
  error: number;
  width: number;
  held: number;
  count: number;
}
const before: Held = { error: 0, width: 0, held: 0, count: 0 };
const after: Held = { error: 0, width: 0, held: 0, count: 0 };
for (let shop = 1; shop <= SHOPS; shop++) {
  const random = createRandom(shop);
  const truth = (Math.log(DOUBT) / NINE_IN_TEN) * normalOf(random);
  const factor = () => Math.exp(truth + SCATTER * normalOf(random));
  const part = (seed: number) =>
    simulateRun(plate, demoShop, {
      ...{ cause: null, seed, shapes: planShapes, fineness, drawnFrom: oneShops(plate) },
      also: [{ kind: 'permeabilityOff', factor: factor() }],
    });
  const book = Array.from({ length: RUNS }, (_, n): RunEvidence => {
    const run = part(1000 * shop + n);
    const state = runStateOf(run.entries);
    const fill = fillReviewOf({
      job: plate,
      shop: demoShop,
      state,
      readings: run.readings,
      shapes: planShapes,
    });
    return { runId: `${shop}-${n}`, evidence: evidenceOf(plate, demoShop, state, fill, planShares) };
  });
  const next = part(1000 * shop + 500);
  hold(before, plate, planShapes, next);
  const taught = learnedJob(book);
  hold(after, taught, scattering(taught), next);
}

function learnedJob(book: readonly RunEvidence[]): LaidJob {
  return offersOf(plate.materials, book).reduce<LaidJob>(
    (own, offer) => ({
      ...own,
      materials: own.materials.map((one) =>
        one.id === offer.materialId ? withLearned(one, offer.side, offer) : one,
      ),
    }),
    plate,
  );
}

/** The forecast of a job against a part that was made without it. */
function hold(into: Held, job: LaidJob, shapes: readonly SolvedShape[], run: SimulatedRun): void {
  const state = runStateOf(run.entries);
  const fill: FillReview | null = fillReviewOf({ job, shop: demoShop, state, readings: [], shapes });
  if (!fill) return;
  const wetAt = fill.wetAt ?? Infinity;
  const { early, middle, late } = fill.planned.last;
  into.count += 1;
  into.held += Number(wetAt >= early && wetAt <= late);
  const open = fill.clock.run.openTime;
  const log = (time: number) => Math.log(Math.max(1, Math.min(time, fill.clock.clock.gelTime) - open));
  into.error += Math.abs(log(wetAt) - log(middle));
  into.width += log(late) - log(early);
}

console.log(
  `learning: ${SHOPS} shops whose permeability is off by a factor drawn from x/÷ ${DOUBT}, parts of one shop differing by ${percent(SCATTER)} and from place to place; after ${RUNS} parts the forecast's error is ${(after.error / before.error).toFixed(2)} and its range ${(after.width / before.width).toFixed(2)} of before; the range of eight in ten held the next part in ${before.held} of ${before.count} before and in ${after.held} of ${after.count} after`,
);
