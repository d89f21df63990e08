import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoJobs } from '@wick/plan/demo/jobs';
import { readThrough } from '../src/repo/backup-repo.ts';
import { makeEmbedded, openEmbedded, type OpenedEmbedded } from '../src/repo/database.ts';
import { realDisk, type Disk } from '../src/repo/embedded/disk.ts';
import { createServices } from '../src/services/services.ts';
import { createForgetfulDisk } from './forgetful-disk.ts';

const noReserve = { isWhole: () => true, give: () => false, refill: () => true };
const open = (folder: string, disk: Disk): Promise<OpenedEmbedded> =>
  openEmbedded({ folder, disk, reserve: noReserve, onNotice: () => undefined });

interface Cut {
  readonly folder: string;
  /** Last acknowledged write of each job at that moment. */
  readonly acknowledged: ReadonlyMap<string, number>;
}

/** Power cuts at any moment of a run of writes and checkpoints. @returns acknowledged writes that a cut lost, and cuts that would not open */
export async function siegeByCuts(
  count: number,
): Promise<{ cuts: number; acknowledged: number; lost: number; closed: number }> {
  const home = mkdtempSync(join(tmpdir(), 'wick-cuts-'));
  const folder = join(home, 'database');
  await (await makeEmbedded(folder)).close();
  const forgetful = createForgetfulDisk(folder);
  const { database, close } = await open(folder, forgetful.disk);
  const { jobs } = createServices(database);
  const last = new Map<string, number>();
  const cuts: Cut[] = [];
  let [moments, next, acknowledged] = [0, 40, 0];
  forgetful.onMoment = () => {
    moments += 1;
    if (moments < next || cuts.length >= count) return;
    next = moments + 1 + Math.floor(400 * Math.random());
    const cut = join(home, `cut ${cuts.length}`);
    mkdirSync(cut);
    forgetful.layOut(cut, Math.random());
    cuts.push({ folder: cut, acknowledged: new Map(last) });
  };
  const made = await Promise.all([0, 1, 2].map((n) => jobs.create({ name: `Job ${n}` })));
  const revisions = new Map(made.map(({ id }) => [id, 1]));
  for (const { id } of made) last.set(id, 0);
  for (let write = 1; cuts.length < count; write++) {
    const { id } = made[write % made.length]!;
    const document = { ...demoJobs[write % demoJobs.length]!, mould: null, name: `Write ${write}` };
    await jobs.write(id, revisions.get(id)!, document);
    revisions.set(id, revisions.get(id)! + 1);
    last.set(id, write);
    acknowledged += 1;
    if (write % 37 === 0) await database.execute('checkpoint');
    if (write % 151 === 0) await database.execute('vacuum');
  }
  forgetful.onMoment = () => undefined;
  await close();
  let [lost, closed] = [0, 0];
  for (const cut of cuts) {
    const opened = await open(cut.folder, realDisk).catch(() => null);
    if (!opened) closed += 1;
    else {
      const after = createServices(opened.database).jobs;
      for (const [id, write] of cut.acknowledged) {
        const found = await after.get(id).catch(() => null);
        if (!found || Number(/\d+$/.exec(found.document.name)![0]) < write) lost += 1;
      }
      await readThrough(opened.database).catch(() => (closed += 1));
      await opened.close();
    }
    rmSync(cut.folder, { recursive: true, force: true });
  }
  rmSync(home, { recursive: true, force: true });
  return { cuts: cuts.length, acknowledged, lost, closed };
}
