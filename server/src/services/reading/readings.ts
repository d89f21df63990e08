import type { Job } from '@wick/contract/job/job';
import type { JobResult } from '@wick/contract/job/result';
import type { Shop } from '@wick/contract/shop';
import { readJob, readJobFile } from '@wick/plan/files/job-file';
import type { Read } from '@wick/plan/files/read';
import { summaryOf, type JobSummary } from '@wick/plan/job/summary';

/** A document with what lists show of it, and what its layouts came to. */
export interface SummarisedJob {
  readonly document: Job;
  readonly summary: JobSummary;
  readonly results: readonly JobResult[];
}

function summarised(job: Job, shop: Shop, results: readonly JobResult[] = []): Read<SummarisedJob> {
  return { ok: true, value: { document: job, summary: summaryOf(job, shop), results } };
}

/** Everything that reads a whole document: for one of thousands of corners under hundreds of plies it takes seconds. */
export const readings = {
  /** Brought up to date and checked; it may have been written by an earlier version. */
  read: readJob,
  readAndSummarise(document: unknown, shop: Shop): Read<SummarisedJob> {
    const read = readJob(document);
    return read.ok ? summarised(read.value, shop) : read;
  },
  readFile(text: string, shop: Shop): Read<SummarisedJob> {
    const read = readJobFile(text);
    return read.ok ? summarised(read.value.job, shop, read.value.results) : read;
  },
};

export type Readings = typeof readings;
