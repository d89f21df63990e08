import { JOB_FORMAT, JOB_VERSION, jobSchema, type Job } from '@wick/contract/job/job';
import { resultSchema, type JobResult } from '@wick/contract/job/result';
import { migrateJob } from '@wick/contract/migrations/migrate';
import { z } from 'zod';
import { faultOf, faultOfReferences } from './job-faults.ts';
import { readJson } from './json.ts';
import { refuse, sentenceOf, type Read } from './read.ts';

/** What a job file holds: the document, and what its layouts came to. */
export interface JobFile {
  readonly job: Job;
  readonly results: readonly JobResult[];
}

/** Said of a file; a document that a program sent is not to be corrected by hand. */
const MEND_FILE = ' Correct it in the file and import it again.';

/** Reads the text of a job file of any version. */
export function readJobFile(text: string): Read<JobFile> {
  const parsedText = readJson(text);
  if (!parsedText.ok) return parsedText;
  const raw = parsedText.value;
  if (!isRecord(raw)) return readDocument(raw, MEND_FILE) as Read<never>;
  const { results = [], ...document } = raw;
  const read = readDocument(document, MEND_FILE);
  if (!read.ok) return read;
  const parsed = resultsSchema.safeParse(results);
  if (!parsed.success) return refuse('BAD_JOB', `In results: ${sentenceOf(parsed.error)}${MEND_FILE}`);
  const known = new Set(read.value.layouts.map(({ id }) => id));
  return {
    ok: true,
    value: { job: read.value, results: parsed.data.filter(({ layoutId }) => known.has(layoutId)) },
  };
}

const resultsSchema = z.array(resultSchema).max(50, 'a job file holds at most 50 results');

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export const writeJobFile = ({ job, results }: JobFile): string =>
  JSON.stringify(results.length > 0 ? { ...job, results } : job, null, 2);

/** Checks a parsed job document of any version: marker, version, shape, then what the shape cannot say. */
export const readJob = (raw: unknown): Read<Job> => readDocument(raw, '');

/** The same for work in hand, whose rings may cross themselves: it is told so when it is saved, and must not be lost for it. */
export const readUnfinished = (raw: unknown): Read<Job> => readDocument(raw, '', faultOfReferences);

function readDocument(raw: unknown, mend: string, findFault = faultOf): Read<Job> {
  if (!isRecord(raw) || raw.format !== JOB_FORMAT)
    return refuse(
      'BAD_JOB',
      `The file is JSON, but not a job: its "format" should read "${JOB_FORMAT}". Choose a file that was exported as a job.`,
    );
  if (typeof raw.version === 'number' && raw.version > JOB_VERSION)
    return refuse(
      'NEWER_VERSION',
      `The file was written by a newer version (${raw.version}; this one reads up to ${JOB_VERSION}). Update this program, then import it again.`,
    );
  const parsed = jobSchema.safeParse(migrateJob({ ...raw }));
  if (!parsed.success) return refuse('BAD_JOB', sentenceOf(parsed.error) + mend);
  const fault = findFault(parsed.data);
  return fault ? refuse('BAD_JOB', fault) : { ok: true, value: parsed.data };
}
