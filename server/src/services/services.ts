import type { Database } from '../repo/database.ts';
import { createDeviceRepo } from '../repo/device-repo.ts';
import { createFactRepo } from '../repo/fact-repo.ts';
import { createJobRepo } from '../repo/job-repo.ts';
import { createLibraryRepo } from '../repo/library-repo.ts';
import { createMouldRepo } from '../repo/mould-repo.ts';
import { createResultRepo } from '../repo/result-repo.ts';
import { createShopRepo } from '../repo/shop-repo.ts';
import { createAccessService } from './access/access-service.ts';
import { createJobService } from './job-service.ts';
import { createJobUpkeep } from './job-upkeep.ts';
import { createLibraryService } from './library-service.ts';
import { createMouldService } from './mould-service.ts';
import { readHere, type JobReader } from './reading/job-reader.ts';
import { createShopService } from './shop-service.ts';

export type Services = ReturnType<typeof createServices>;

/** Everything that is done with the database. */
export function createServices(database: Database, reader: JobReader = readHere) {
  const jobs = createJobRepo(database);
  const shopRepo = createShopRepo(database);
  const plainShop = createShopService(shopRepo);
  const facts = createFactRepo(database);
  const upkeep = createJobUpkeep({ jobs, facts }, plainShop, reader);
  return {
    upkeep,
    access: createAccessService(createDeviceRepo(database), facts),
    jobs: createJobService({ jobs, results: createResultRepo(database) }, plainShop, reader),
    shop: createShopService(shopRepo, upkeep.summariseAll),
    library: createLibraryService(createLibraryRepo(database)),
    moulds: createMouldService(createMouldRepo(database)),
  };
}
