import type { Job } from '@wick/contract/job/job';
import type { Mould } from '@wick/contract/mould';
import type { Entry, Run } from '@wick/contract/run/run';
import type { Shop } from '@wick/contract/shop';
import type { Mesh } from '@wick/core/geometry/mesh';
import type { PartTruth } from '@wick/plan/infusion/part-world';
import type { DrawnFault } from '@wick/plan/infusion/truth';
import { laidOut } from '@wick/plan/job/laid';
import { createRehearsal } from '@wick/plan/run/rehearsal';
import { leakPlacesOf } from '@wick/plan/vacuum/places';

/** What the world of a rehearsal is made of, and until when it is to go on. */
export type WorldAsked =
  | {
      readonly kind: 'open';
      readonly job: Job;
      readonly shop: Shop;
      readonly mould: Mould | null;
      readonly run: Run;
    }
  | { readonly kind: 'pass'; readonly to: number; readonly entries: readonly Entry[] };

/** What somebody beside the mould would see. */
export interface WorldSeen {
  readonly front: Float64Array | null;
  /** Sent once. */
  readonly mesh: Mesh | null;
  readonly drawsAir: boolean;
  readonly hasGelled: boolean;
  readonly truth: PartTruth | null;
  readonly faults: readonly DrawnFault[];
  /** It has come as far as it was asked to. */
  readonly isCaughtUp: boolean;
}

/** Readings between two answers at most: a long run that is opened late is caught up with piece by piece. */
const MOST = 400;

/** The same part as on the server, followed here to show its front. */
export function openWorld({ job, shop, mould, run }: Extract<WorldAsked, { kind: 'open' }>) {
  const laid = laidOut(job);
  const world = createRehearsal(laid, shop, run, leakPlacesOf(laid, shop, mould));
  let hasMesh = false;
  return ({ to, entries }: Extract<WorldAsked, { kind: 'pass' }>): WorldSeen => {
    const readings = world.pass(to, entries, MOST);
    const part = world.part.world();
    const seen = part?.seen();
    const mesh = hasMesh ? null : (seen?.mesh ?? null);
    hasMesh ||= mesh !== null;
    return {
      ...{ front: seen?.front ?? null, mesh, drawsAir: seen?.drawsAir ?? false },
      ...{ hasGelled: seen?.hasGelled ?? false, truth: part?.truth() ?? null, faults: world.part.faults() },
      isCaughtUp: readings.length < MOST,
    };
  };
}
