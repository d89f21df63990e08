import type { Shop } from '@wick/contract/shop';
import type { Fineness } from '@wick/core/flow/problem';
import type { Point } from '@wick/core/geometry/polygon';
import { clockOf } from '@wick/core/verdict/verdict';
import { AS_STATED, scaledMaterial } from '../forecast/draw.ts';
import { problemOf } from '../forecast/problem.ts';
import { frontAt, solveShape, type SolvedShape } from '../infusion/problem-shapes.ts';
import type { LaidJob } from '../job/laid.ts';
import { runConditionsOf } from '../resin/run.ts';

/** How much of the front's pace hangs on how each entry lets resin run. */
export interface Share {
  readonly materialId: string;
  /** -d ln(time) / d ln(permeability), over the places. */
  readonly share: number;
}

export interface SharesRequest {
  readonly job: LaidJob;
  readonly shop: Shop;
  /** Where the front was seen; the last corner where it was seen nowhere. */
  readonly places: readonly Point[];
}

/** ln of the step by which a permeability is tried. */
const STEP = 0.15;
/** Shares below this tell nothing. */
const LEAST = 0.01;
/** A share is a ratio of two alike runs: a coarse grid gives it. */
const COARSE: Fineness = { nodeCount: 300, steps: 40 };

/**
 * Shares by solving the plan once more for each entry that resin runs through. @throws ModelError as solveFlow
 * Checked by learning.test.ts.
 */
export function sharesOf({ job, shop, places }: SharesRequest, fineness = COARSE): Share[] {
  const run = runConditionsOf(job, shop);
  if (!run) return [];
  const clock = clockOf(run);
  const solve = (own: LaidJob) =>
    solveShape(
      { id: 'plan', event: null, prior: 1, problem: problemOf(own, shop, { soft: false }), fineness },
      clock,
      run.openTime,
    );
  const plan = solve(job);
  return job.materials
    .filter(({ kind }) => kind === 'fabric' || kind === 'flowMesh')
    .map(({ id }) => {
      const better = {
        ...job,
        materials: job.materials.map((one) =>
          one.id === id ? scaledMaterial(one, { ...AS_STATED, permeability: Math.exp(STEP) }) : one,
        ),
      };
      return { materialId: id, share: pace(plan, solve(better), places) / STEP };
    })
    .filter(({ share }) => share > LEAST);
}

/** Mean ln by which one front is earlier than another. */
function pace(a: SolvedShape, b: SolvedShape, places: readonly Point[]): number {
  const logs = places.map((place) => Math.log(frontAt(a, place) / frontAt(b, place))).filter(Number.isFinite);
  if (logs.length > 0) return logs.reduce((sum, log) => sum + log, 0) / logs.length;
  const last = Math.log(a.last / b.last);
  return Number.isFinite(last) ? last : 0;
}
