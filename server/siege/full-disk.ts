import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StoredJob } from '@wick/contract/api';
import { demoJobs } from '@wick/plan/demo/jobs';
import { pino } from 'pino';
import { createApp } from '../src/http/app.ts';
import { OWN_NAMES } from '../src/http/guard.ts';
import { createBackupRepo } from '../src/repo/backup-repo.ts';
import { makeEmbedded, openEmbedded } from '../src/repo/database.ts';
import { realDisk, type Disk } from '../src/repo/embedded/disk.ts';
import { createReserve } from '../src/repo/embedded/reserve.ts';
import { createBackupService } from '../src/services/backup/backup-service.ts';
import { createServices } from '../src/services/services.ts';
import { ask } from './running-server.ts';

export interface FullDiskResult {
  readonly reads: number;
  readonly readsFailed: number;
  readonly writesRefused: number;
  /** Answers to writes other than taken and 507. */
  readonly writesOdd: number;
  readonly healed: boolean;
  readonly lost: number;
}

/** A disk that fills up under a running server, stays full for so many requests, and has room again. */
export async function siegeByFullDisk(requests: number): Promise<FullDiskResult> {
  const home = mkdtempSync(join(tmpdir(), 'wick-full-'));
  const folder = join(home, 'database');
  await (await makeEmbedded(folder)).close();
  let room = Infinity;
  const disk: Disk = {
    ...realDisk,
    beforeWrite(_path, byteCount) {
      if (byteCount > room) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      room -= byteCount;
    },
    free: () => room,
  };
  const kept = createReserve(join(home, 'reserve'), disk);
  kept.refill();
  const reserve = { ...kept, give: () => kept.give() && (room += 1e6) > 0 };
  const { database, close } = await openEmbedded({ folder, disk, reserve, onNotice: () => undefined });
  const app = createApp({
    ...createServices(database),
    log: pino({ level: 'silent' }),
    ...{ hosts: OWN_NAMES, isOnNetwork: false, isSecure: false },
    backup: {
      backups: createBackupService(createBackupRepo(database), {
        folder: home,
        passing: home,
        photos: join(home, 'photos'),
      }),
      passing: home,
      restore: () => Promise.reject(new Error('not here')),
    },
  });
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/jobs`;
  const { body: job } = await ask<StoredJob>(url, 'POST', { name: 'Write 0' });
  let [revision, reads, readsFailed, writesRefused, writesOdd] = [1, 0, 0, 0, 0];
  const write = async (name: string) => {
    const document = { ...demoJobs[1]!, mould: null, name };
    const { status } = await ask(`${url}/${job.id}`, 'PUT', { revision, document });
    if (status === 200) revision += 1;
    else if (status === 507) writesRefused += 1;
    else writesOdd += 1;
    return status;
  };
  await write('Write 1');
  room = 50_000;
  for (let n = 0; n < requests; n++) {
    await write(`Write ${n + 2}`);
    reads += 1;
    if ((await ask(`${url}/${job.id}`)).status !== 200) readsFailed += 1;
  }
  room = Infinity;
  const healed = (await write('Healed')) === 200;
  const { body } = await ask<StoredJob>(`${url}/${job.id}`);
  const lost = body.revision === revision && body.document.name === 'Healed' ? 0 : 1;
  server.close();
  server.closeAllConnections();
  await close();
  rmSync(home, { recursive: true, force: true });
  return { reads, readsFailed, writesRefused, writesOdd, healed, lost };
}
