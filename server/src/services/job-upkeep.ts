import { JOB_VERSION } from '@wick/contract/job/job';
import { readJob } from '@wick/plan/files/job-file';
import { summaryOf } from '@wick/plan/job/summary';
import type { JobRepo, JobToKeep } from '../repo/job-repo.ts';
import type { ShopService } from './shop-service.ts';

/** What is done to every job at once; a document that cannot be read is left as it is. */
export function createJobUpkeep(repo: Pick<JobRepo, 'rewriteAll'>, shop: Pick<ShopService, 'getShop'>) {
  async function rewrite(isMeant: (document: unknown) => boolean): Promise<number> {
    const { shop: now } = await shop.getShop();
    return repo.rewriteAll((document): JobToKeep | null => {
      if (!isMeant(document)) return null;
      const read = readJob(document);
      return read.ok ? { document: read.value, summary: summaryOf(read.value, now) } : null;
    });
  }

  return {
    /** What lists show of every job, worked out again: after a change of the shop its keys are others. */
    summariseAll: () => rewrite(() => true),
    /** Documents of earlier versions brought up to date. @returns how many were rewritten */
    bringUpToDate: () => rewrite((document) => (document as { version?: unknown }).version !== JOB_VERSION),
  };
}
