import { JOB_VERSION } from '@wick/contract/job/job';
import type { FactRepo } from '../repo/fact-repo.ts';
import type { JobRepo } from '../repo/job-repo.ts';
import { readHere, type JobReader } from './reading/job-reader.ts';
import type { ShopService } from './shop-service.ts';

/** A deleted job can be brought back for so many days of use. */
const KEEP_DELETED_DAYS = 30;
const LAST_DAY = 'lastDay';

interface UpkeepRepos {
  readonly jobs: Pick<JobRepo, 'rewriteAll' | 'passDay'>;
  readonly facts: Pick<FactRepo, 'find' | 'keep'>;
}

/** What is done to every job at once; a document that cannot be read is left as it is. */
export function createJobUpkeep(
  { jobs, facts }: UpkeepRepos,
  shop: Pick<ShopService, 'getShop'>,
  reader: JobReader = readHere,
) {
  let before: Promise<unknown> = Promise.resolve();

  /** One after the other, so that what is worked out from later settings is written later. */
  function rewriteAll(which: { exceptVersion?: number } = {}): Promise<number> {
    const own = before.then(() => rewrite(which));
    before = own.catch(() => undefined);
    return own;
  }

  async function rewrite(which: { exceptVersion?: number }): Promise<number> {
    const { shop: now } = await shop.getShop();
    return jobs.rewriteAll(async (document) => {
      const read = await reader.readAndSummarise(document, now);
      return read.ok ? read.value : null;
    }, which);
  }

  return {
    /** What lists show of every job, worked out again: after a change of the shop its keys are others. */
    summariseAll: () => rewriteAll(),
    /** Documents of earlier versions brought up to date. @returns how many were rewritten */
    bringUpToDate: () => rewriteAll({ exceptVersion: JOB_VERSION }),
    /**
     * Counts a day for deleted jobs, if it is another one than at the last call. However far the clock has jumped it is one day:
     * what was deleted is kept longer then, never shorter.
     */
    async passDay(today: string): Promise<boolean> {
      if ((await facts.find(LAST_DAY)) === today) return false;
      await jobs.passDay(KEEP_DELETED_DAYS);
      await facts.keep(LAST_DAY, today);
      return true;
    },
  };
}
