import type { JobResult } from '@wick/contract/job/result';
import type { Job } from '@wick/contract/job/job';
import { demoJobs, demoShop } from '@wick/plan/demo/jobs';
import { demoMaterials } from '@wick/plan/demo/materials';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { assess, finenessOf } from '@wick/plan/forecast/assess';
import { outcomeKeyOf } from '@wick/plan/forecast/key';
import { missingOf } from '@wick/plan/forecast/missing';
import { outcomeOf } from '@wick/plan/forecast/outcome';
import { laidOut } from '@wick/plan/job/laid';
import { summaryOf } from '@wick/plan/job/summary';
import { hasFront } from '@wick/plan/processes/processes';
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
  for (const document of [...demoJobs].reverse())
    await jobs.add({ document, summary: summaryOf(document, demoShop) }, resultsOf(document));
  await shop.addShop(demoShop);
  return true;
}

/** Coarse, but with layers where the board has them: what the list shows first is not far from what the board then says. */
const FIRST_LOOK = { nodeCount: 300, steps: 24 };

/** What its layout comes to at a first look; nothing where there is no front. */
function resultsOf(document: Job): JobResult[] {
  const job = laidOut(document);
  if (!hasFront(job) || missingOf(job).length > 0) return [];
  const { flow, verdict } = assess(job, demoShop, { ...finenessOf(job), ...FIRST_LOOK });
  if (!verdict) return [];
  const outcome = outcomeOf(job, demoShop, flow, verdict);
  return [{ layoutId: job.layout.id, key: outcomeKeyOf(job, demoShop), outcome }];
}
