import type { JobAction, JobLine, JobTrigger } from '@wick/contract/job/job';
import { demoJobs } from '../demo/jobs.ts';
import { readJob } from '../files/job-file.ts';
import { jobOf, laidOut, type LaidJob } from '../job/laid.ts';

/** The demo jobs with their only layout laid on. */
export const laidDemos: LaidJob[] = demoJobs.map((job) => laidOut(job));

/** What keeps a job from being read; nothing where it is sound. */
export function faultIn(job: unknown): string {
  const read = readJob(JSON.parse(JSON.stringify(job)));
  return read.ok ? '' : read.message;
}

export const faultInLaid = (job: LaidJob): string => faultIn(jobOf(job));

export const act = (id: string, opening: number, when: JobTrigger): JobAction => ({ id, opening, when });

/** The job with one of its lines changed. */
export const withLine = (job: LaidJob, id: string, changes: Partial<JobLine>): LaidJob => ({
  ...job,
  lines: job.lines.map((line) => (line.id === id ? { ...line, ...changes } : line)),
});
