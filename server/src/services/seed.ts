import { assess, COARSE, summaryOf } from '@wick/contract/assess';
import { demoJobs, demoShop } from '@wick/contract/demo/jobs';
import { demoMaterials } from '@wick/contract/demo/materials';
import { demoMoulds } from '@wick/contract/demo/moulds';
import { missingOf } from '@wick/contract/forecast-input';
import type { JobRepo } from '../repo/job-repo.ts';
import type { LibraryRepo } from '../repo/library-repo.ts';
import type { MouldRepo } from '../repo/mould-repo.ts';
import type { ShopRepo } from '../repo/shop-repo.ts';

interface Repos {
  readonly jobs: JobRepo;
  readonly shop: ShopRepo;
  readonly library: LibraryRepo;
  readonly moulds: MouldRepo;
}

/** Fills an empty database with the demo workshop; leaves any other alone. */
export async function seedIfEmpty({ jobs, shop, library, moulds }: Repos): Promise<boolean> {
  if ((await shop.findShop()) || (await jobs.list()).length > 0) return false;
  await library.importAll(demoMaterials);
  for (const mould of demoMoulds) await moulds.write(0, mould);
  for (const job of [...demoJobs].reverse()) {
    const verdict = missingOf(job).length === 0 ? assess(job, demoShop, COARSE).verdict : null;
    await jobs.add(job, verdict && summaryOf(verdict, 1));
  }
  await shop.addShop(demoShop);
  return true;
}
