import { assess, COARSE, summaryOf } from '@wick/contract/assess';
import { demoJobs, demoShop } from '@wick/contract/demo/jobs';
import { demoMaterials } from '@wick/contract/demo/materials';
import type { JobRepo } from '../repo/job-repo.ts';
import type { ShopRepo } from '../repo/shop-repo.ts';

/** Fills an empty database with the demo workshop; leaves any other alone. */
export async function seedIfEmpty(jobs: JobRepo, shop: ShopRepo): Promise<boolean> {
  if ((await shop.findShop()) || (await jobs.list()).length > 0) return false;
  await shop.addMaterials(demoMaterials);
  for (const job of [...demoJobs].reverse()) {
    const { verdict } = assess(job, demoShop, COARSE);
    await jobs.add(job, verdict && summaryOf(verdict, 1));
  }
  await shop.addShop(demoShop);
  return true;
}
