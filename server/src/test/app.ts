import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StoredJob } from '@wick/contract/api';
import { demoJobs } from '@wick/plan/demo/jobs';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from '../http/app.ts';
import { OWN_NAMES } from '../http/guard.ts';
import { createBackupRepo } from '../repo/backup-repo.ts';
import type { OpenedDatabase } from '../repo/database.ts';
import { openEmpty } from './database.ts';
import { createBackupService } from '../services/backup/backup-service.ts';
import { createServices, type Services } from '../services/services.ts';

export interface TestApp {
  readonly app: Express;
  readonly opened: OpenedDatabase;
  readonly services: Services;
  readonly backups: ReturnType<typeof createBackupService>;
  /** Where its pictures lie. */
  readonly photos: string;
  /** A demo job without a mould. */
  readonly job: StoredJob;
  readonly close: () => Promise<void>;
}

/** The whole program on an empty database in memory, with one job in it. */
export async function startApp(jobName: string): Promise<TestApp> {
  const folder = mkdtempSync(join(tmpdir(), 'wick-app-'));
  const photos = join(folder, 'photos');
  const opened = await openEmpty();
  const services = createServices(opened.database, undefined, undefined, photos);
  const backups = createBackupService(createBackupRepo(opened.database), { folder, passing: folder, photos });
  const app = createApp({
    ...services,
    log: pino({ level: 'silent' }),
    ...{ hosts: OWN_NAMES, isOnNetwork: false, isSecure: false },
    backup: { backups, passing: folder, restore: () => Promise.reject(new Error('not here')) },
  });
  const document = demoJobs.find(({ name }) => name === jobName)!;
  const sent = await request(app)
    .post('/api/jobs/import')
    .set('content-type', 'application/json')
    .send(JSON.stringify({ ...document, mould: null }))
    .expect(201);
  return {
    ...{ app, opened, services, backups, photos },
    job: sent.body as StoredJob,
    async close() {
      services.stop();
      await opened.close();
    },
  };
}
