import type { JobResult } from '@wick/contract/job/result';
import type { Job } from '@wick/contract/job/job';
import { demoJobs, demoShop } from '@wick/plan/demo/jobs';
import { demoMaterials } from '@wick/plan/demo/materials';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { demoRuns } from '@wick/plan/demo/runs';
import { usualSteps } from '@wick/plan/card/usual-steps';
import { assess, finenessOf } from '@wick/plan/forecast/assess';
import { outcomeKeyOf } from '@wick/plan/forecast/key';
import { missingOf } from '@wick/plan/forecast/missing';
import { outcomeOf } from '@wick/plan/forecast/outcome';
import { laidOut } from '@wick/plan/job/laid';
import { summaryOf, type JobSummary } from '@wick/plan/job/summary';
import { hasFront } from '@wick/plan/processes/processes';
import type { Database } from '../repo/database.ts';
import { createJobRepo } from '../repo/job-repo.ts';
import { createLibraryRepo } from '../repo/library-repo.ts';
import { createRunRepo } from '../repo/run-repo.ts';
import { createMouldRepo } from '../repo/mould-repo.ts';
import { createShopRepo } from '../repo/shop-repo.ts';

/** Fills an empty database with the demo workshop, whole or not at all; leaves any other alone. */
export async function seedIfEmpty(database: Database): Promise<boolean> {
  if (!(await isEmpty(database))) return false;
  const ready = demoRows();
  return database.transaction(async (on) => {
    // Another server may have filled it while the forecasts ran: the settings are one row.
    if (!(await createShopRepo(on).addShop(demoShop))) return false;
    await createLibraryRepo(on).importAll(demoMaterials.map((material) => ({ revision: 0, material })));
    for (const mould of demoMoulds) await createMouldRepo(on).write(0, mould);
    for (const { results, ...job } of ready) await addWithRuns(on, job, results);
    return true;
  });
}

let rows: ReturnType<typeof readyRows> | null = null;
/** The same for every database that this process fills. */
const demoRows = () => (rows ??= readyRows());
const readyRows = () =>
  [...demoJobs].reverse().map((document) => ({
    document,
    summary: summaryOf(document, demoShop),
    results: resultsOf(document),
  }));

/** A demo job with the parts that were made of it. */
async function addWithRuns(
  on: Parameters<typeof createRunRepo>[0] & Parameters<typeof createJobRepo>[0],
  job: { readonly document: Job; readonly summary: JobSummary },
  results: JobResult[],
): Promise<void> {
  const { id: jobId, revision: jobRevision } = await createJobRepo(on).add(job, results);
  const mould = demoMoulds.find(({ id }) => id === job.document.mould?.id) ?? null;
  const plan = {
    ...{ jobRevision, job: job.document, shop: demoShop, mould },
    ...{ stepsRevision: 1, steps: usualSteps },
  };
  const own = demoRuns.filter(({ jobName }) => jobName === job.document.name);
  for (const [n, { id, startedAt, entries }] of own.entries())
    await createRunRepo(on).addMade(
      { id, jobId, number: n + 1, kind: 'part', speed: 1, seed: 0, startedAt },
      plan,
      entries,
    );
}

const isEmpty = async (database: Database) =>
  !(await createShopRepo(database).findShop()) && (await createJobRepo(database).list()).length === 0;

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
