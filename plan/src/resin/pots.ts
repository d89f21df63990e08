import type { JobLine } from '@wick/contract/job/job';
import type { LaidJob } from '../job/laid.ts';
import { stationOf } from '../layout/hoses.ts';

/** A pot or bucket is filled to this share of what it holds: common practice, no source. */
export const FILLED_TO = 0.8;

/** A pot that feeds draw from. */
export interface FeedPot {
  /** Of its station on the plan; null where none stands there. */
  readonly id: string | null;
  readonly name: string;
  readonly feeds: readonly JobLine[];
}

/** Pots that feeds draw from, in the order of the plan; one where none is drawn. A tee draws from the first. */
export function potsOf(job: LaidJob): FeedPot[] {
  const feeds = job.lines.filter(({ kind }) => kind === 'feed');
  const stations = job.stations.filter(({ kind }) => kind === 'pot');
  const own = stations.map(({ id, name }) => ({
    id,
    name,
    feeds: feeds.filter((line) => potIdOf(job, line) === id),
  }));
  const used = own.filter((pot) => pot.feeds.length > 0);
  return used.length > 0 ? used : [{ id: own[0]?.id ?? null, name: own[0]?.name ?? 'Pot', feeds }];
}

/** Station of the pot behind a feed; null where none stands on the plan. */
const potIdOf = (job: LaidJob, line: JobLine): string | null =>
  (line.tee === null ? stationOf(job, line) : stationOf(job, { ...line, stationId: null }))?.id ?? null;

/** Which of the pots a feed draws from. */
export const potIndexOf = (pots: readonly FeedPot[], line: Pick<JobLine, 'id'>): number =>
  Math.max(
    0,
    pots.findIndex(({ feeds }) => feeds.some(({ id }) => id === line.id)),
  );

/** Batches that are mixed: one a pot where nobody has set any. */
export const batchCountOf = (job: LaidJob): number => job.resin.batches.length || potsOf(job).length;
