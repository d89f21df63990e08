import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Database } from '../repo/database.ts';
import { createBookRepo } from '../repo/book-repo.ts';
import { createDeviceRepo } from '../repo/device-repo.ts';
import { createFactRepo } from '../repo/fact-repo.ts';
import { createInstrumentRepo } from '../repo/instrument-repo.ts';
import { createJobRepo } from '../repo/job-repo.ts';
import { createLibraryRepo } from '../repo/library-repo.ts';
import { createMouldRepo } from '../repo/mould-repo.ts';
import { createPhotoRepo } from '../repo/photo-repo.ts';
import { createReadingRepo } from '../repo/reading-repo.ts';
import { createResultRepo } from '../repo/result-repo.ts';
import { createRunRepo } from '../repo/run-repo.ts';
import { createShopRepo } from '../repo/shop-repo.ts';
import { createStepRepo } from '../repo/step-repo.ts';
import { createAccessService } from './access/access-service.ts';
import { createInstrumentService } from './instruments/instrument-service.ts';
import { createReadingService } from './instruments/reading-service.ts';
import { createJobService } from './job-service.ts';
import { createJobUpkeep } from './job-upkeep.ts';
import { createLibraryService } from './library-service.ts';
import { createMouldService } from './mould-service.ts';
import { readHere, type JobReader } from './reading/job-reader.ts';
import { createHub } from './run/hub.ts';
import { createRehearsals } from './run/rehearsals.ts';
import { createPhotoService, createPictureReader } from './photos/photo-service.ts';
import { createRecordWriter, createReviewService } from './review/review-service.ts';
import { createRunPlans } from './run/run-plans.ts';
import { createRunService } from './run/run-service.ts';
import { createWatching } from './run/watching.ts';
import { createStepService } from './step-service.ts';
import { createShopService } from './shop-service.ts';
import { ambientOf } from '@wick/plan/shop/ambient';

export type Services = ReturnType<typeof createServices>;

/**
 * Everything that is done with the database.
 * @param onFault of what goes on by itself
 * @param photoFolder beside the database, for pictures
 */
export function createServices(
  database: Database,
  reader: JobReader = readHere,
  onFault: (error: unknown) => void = () => undefined,
  photoFolder: string = join(tmpdir(), `wick-photos-${randomUUID()}`),
) {
  const picture = createPictureReader();
  const record = createRecordWriter();
  const jobRepo = createJobRepo(database);
  const shopRepo = createShopRepo(database);
  const mouldRepo = createMouldRepo(database);
  const plainShop = createShopService(shopRepo);
  const facts = createFactRepo(database);
  const upkeep = createJobUpkeep({ jobs: jobRepo, facts }, plainShop, reader);
  const jobs = createJobService({ jobs: jobRepo, results: createResultRepo(database) }, plainShop, reader);
  const hub = createHub();
  const readings = createReadingService(createReadingRepo(database), hub);
  const instruments = createInstrumentService(createInstrumentRepo(database), readings);
  const runRepo = createRunRepo(database);
  const runs = createRunService(runRepo, { has: jobRepo.isThere }, hub);
  const watching = createWatching({
    ...{ runs, onFault },
    instrumentOf: instruments.find,
    lastOf: readings.lastOf,
    async surroundings() {
      const { shop } = await plainShop.getShop();
      return { ambientPressure: ambientOf(shop), temperature: shop.temperature };
    },
  });
  const steps = createStepService(createStepRepo(database));
  const plans = createRunPlans({
    ...{ repo: runRepo, runs, reader },
    async about(jobId) {
      const { document: job, revision: jobRevision } = await jobs.get(jobId);
      const { shop } = await plainShop.getShop();
      const mould = job.mould && ((await mouldRepo.find(job.mould.id))?.mould ?? null);
      const { revision: stepsRevision, steps: library } = await steps.get();
      return { jobRevision, job, shop, mould, stepsRevision, steps: library };
    },
  });
  const rehearsals = createRehearsals({
    ...{ runs, instruments, readings, onFault },
    about: plans.planOf,
  });
  const photos = createPhotoService({
    ...{ folder: photoFolder, repo: createPhotoRepo(database), runs },
    scale: picture.scale,
  });
  const review = createReviewService({
    ...{ book: createBookRepo(database), runs, plans, instruments, photos },
    write: record.write,
  });
  return {
    ...{ upkeep, review, jobs, hub, readings, instruments, runs, plans, watching, rehearsals, steps, photos },
    access: createAccessService(createDeviceRepo(database), facts),
    shop: createShopService(shopRepo, upkeep.summariseAll),
    library: createLibraryService(createLibraryRepo(database)),
    moulds: createMouldService(mouldRepo),
    /** Takes up what goes on by itself, at the start and after another database has been put in the place of this one. */
    async goOn(): Promise<void> {
      instruments.forget();
      await instruments.remember();
      await watching.start();
      await rehearsals.run();
    },
    stop(): void {
      watching.stop();
      rehearsals.stop();
      void picture.close();
      void record.close();
    },
  };
}
