import type { Job } from '@wick/contract/job/job';
import { compareScores, costOf, fillsInTime, hasDryRegion, type LayoutScore } from '@wick/core/advice/score';
import { isSound } from '../forecast/words.ts';
import type { Edit } from '../job/edits.ts';
import { laidOut, type LaidJob } from '../job/laid.ts';
import type { Remedy } from './remedies.ts';

/** A remedy that was simulated and helps. */
export interface Repair {
  readonly id: string;
  readonly kind: Remedy['kind'];
  readonly words: string;
  readonly score: LayoutScore;
  /** It brings the last corner to a comfortable or tight time, without a dry place. */
  readonly isEnough: boolean;
  readonly apply: Edit;
  /** The same, done further: for where a finer run finds this not enough. */
  readonly larger: Remedy['sizes'];
}

/**
 * Simulates remedies and keeps those that help, what is enough first, then by effort and size.
 * @param simulate score of a changed job; null where it cannot run
 */
export async function findRepairs(
  job: Job,
  remedies: readonly Remedy[],
  simulate: (job: LaidJob) => Promise<LayoutScore | null>,
  onProgress: (done: number) => void = () => undefined,
): Promise<Repair[]> {
  const now = await simulate(laidOut(job));
  const total = remedies.reduce((sum, { sizes }) => sum + sizes.length, 0);
  let done = 0;
  const found = await Promise.all(
    remedies.map(async (remedy) => {
      const scores = await Promise.all(
        remedy.sizes.map(async ({ apply }) => {
          const score = await simulate(laidOut(apply(job)));
          onProgress(++done / total);
          return score;
        }),
      );
      return repairOf(remedy, scores, now);
    }),
  );
  const effort = new Map(remedies.map((remedy) => [remedy.id, remedy.effort]));
  return found
    .filter((repair) => repair !== null)
    .sort(
      (a, b) =>
        Number(b.isEnough) - Number(a.isEnough) ||
        (a.isEnough ? effort.get(a.id)! - effort.get(b.id)! : 0) ||
        compareScores(a.score, b.score),
    );
}

/** The smallest size that is enough; where none is, the one that gets farthest, if that is better than now. */
function repairOf(
  remedy: Remedy,
  scores: readonly (LayoutScore | null)[],
  now: LayoutScore | null,
): Repair | null {
  const repair = (index: number): Repair => ({
    id: remedy.id,
    kind: remedy.kind,
    words: remedy.sizes[index]!.words,
    apply: remedy.sizes[index]!.apply,
    larger: remedy.sizes.slice(index + 1),
    score: scores[index]!,
    isEnough: isEnough(scores[index]!),
  });
  const smallest = scores.findIndex((score) => score !== null && isEnough(score));
  if (smallest >= 0) return repair(smallest);
  const ranked = scores
    .map((score, index) => ({ score, index }))
    .filter((entry): entry is { score: LayoutScore; index: number } => entry.score !== null)
    .sort((a, b) => compareScores(a.score, b.score));
  const [best] = ranked;
  return best && (now === null || isBetter(best.score, now)) ? repair(best.index) : null;
}

export const isEnough = (score: LayoutScore): boolean => isSound(score.band);

/** By more than the mesh can tell. */
function isBetter(score: LayoutScore, now: LayoutScore): boolean {
  if (compareScores(score, now) >= 0) return false;
  if (fillsInTime(score) && fillsInTime(now)) return costOf(score) < costOf(now) - 0.02;
  return (
    fillsInTime(score) || score.wetShare > now.wetShare + 0.01 || hasDryRegion(now) !== hasDryRegion(score)
  );
}
