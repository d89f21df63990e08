import type { Job } from '@wick/contract/job/job';
import type { Material } from '@wick/contract/materials';
import type { PlannedBatch } from '@wick/core/mix/schedule';
import type { Edit } from '../job/edits.ts';
import { keepUsed } from '../job/materials.ts';
import type { FeedPot } from './pots.ts';

type Batch = Job['resin']['batches'][number];

/** The first mix is at 0: batches moved earlier than that move all the others later. */
function withBatches(job: Job, batches: readonly Batch[]): Job {
  const first = Math.min(...batches.map(({ mixedAt }) => mixedAt));
  return {
    ...job,
    resin: {
      ...job.resin,
      batches:
        batches.length < 2 && batches.every(({ mass }) => mass === null)
          ? []
          : batches.map((batch) => ({ ...batch, mixedAt: Math.round(batch.mixedAt - first) })),
    },
  };
}

/** Batches as they are suggested, the last of each pot taking what is left. @param ids a new one each */
export const takeBatches =
  (planned: readonly PlannedBatch[], pots: readonly FeedPot[], ids: readonly string[]): Edit =>
  (job) =>
    withBatches(
      job,
      planned.map(({ pot, mixedAt, mass }, n) => ({
        id: ids[n]!,
        stationId: pots[pot]?.id ?? null,
        mixedAt,
        mass: planned.some((other, m) => m > n && other.pot === pot) ? mass : null,
      })),
    );

/** One batch changed. */
export const changeBatch =
  (id: string, changes: Partial<Omit<Batch, 'id'>>): Edit =>
  (job) =>
    withBatches(
      job,
      job.resin.batches.map((batch) => (batch.id === id ? { ...batch, ...changes } : batch)),
    );

/** A further batch of what is left, mixed so long after the last; the one that stood for all is named and keeps its share. */
export const addBatch =
  (batch: Batch, first: Batch): Edit =>
  (job) =>
    withBatches(job, [...(job.resin.batches.length > 0 ? job.resin.batches : [first]), batch]);

export const deleteBatch =
  (id: string): Edit =>
  (job) =>
    withBatches(
      job,
      job.resin.batches.filter((batch) => batch.id !== id),
    );

export const clearBatches: Edit = (job) => ({ ...job, resin: { ...job.resin, batches: [] } });

/** What resin is mixed in, or drawn from. */
export const withPots =
  (pots: Partial<Pick<Job['resin'], 'mixingPotId' | 'feedPotId'>>, library: readonly Material[]): Edit =>
  (job) =>
    keepUsed({ ...job, resin: { ...job.resin, ...pots } }, library);
