import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobListItem, StoredJob } from '@wick/contract/api';
import { demoJobs } from '@wick/plan/demo/jobs';
import { ask, newHome, spawnServer } from './running-server.ts';

const WRITERS = 3;
const PATIENCE = 20_000;
/** Answers before each kill: of a server that answered little nothing could be lost. */
const LEAST = 6;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Writers at work while the server is killed again and again. @returns acknowledged writes, and those that were lost */
export async function siegeByKills(
  count: number,
): Promise<{ kills: number; acknowledged: number; lost: number }> {
  const { home, folder } = await newHome('kills');
  const known = new Map<string, string>();
  let [acknowledged, lost] = [0, 0];
  for (let round = 0; round <= count; round++) {
    const server = await spawnServer(folder).ready;
    for (const [id, name] of known) {
      const { body } = await ask<StoredJob>(`${server.url}/api/jobs/${id}`);
      // A later one may have got through without its answer; an earlier one would be a loss.
      if (numberOf(body.document.name) < numberOf(name)) lost += 1;
    }
    if (round === count) {
      await server.kill();
      break;
    }
    const writers = Array.from({ length: WRITERS }, async (_, writer) => {
      const { body: made } = await ask<StoredJob>(`${server.url}/api/jobs`, 'POST', { name: `Write 0` });
      known.set(made.id, 'Write 0');
      let { revision } = made;
      for (let n = 1; ; n++) {
        const document = { ...demoJobs[writer]!, name: `Write ${n}` };
        const { status } = await ask(`${server.url}/api/jobs/${made.id}`, 'PUT', { revision, document });
        if (status !== 200) throw new Error(`a write was answered ${status}`);
        known.set(made.id, document.name);
        acknowledged += 1;
        revision += 1;
      }
    });
    const all = Promise.allSettled(writers);
    // Not before some have been answered, however slow the machine; then at any moment.
    const enough = acknowledged + LEAST + Math.floor(40 * Math.random());
    const patience = Date.now() + PATIENCE;
    while (acknowledged < enough && Date.now() < patience) await pause(5);
    await pause(30 * Math.random());
    await server.kill();
    await all;
    // Old jobs are enough looked at.
    for (const id of [...known.keys()].slice(0, -30)) known.delete(id);
  }
  rmSync(home, { recursive: true, force: true });
  return { kills: count, acknowledged, lost };
}

const numberOf = (name: string) => Number(/\d+$/.exec(name)?.[0] ?? -1);

/** First starts cut short at any moment, within so many ms. @returns those after which the workshop was not whole */
export async function siegeFirstStarts(
  count: number,
  within = 12_000,
): Promise<{ starts: number; halves: number; whole: number }> {
  let [halves, whole] = [0, 0];
  for (let round = 0; round < count; round++) {
    const home = mkdtempSync(join(tmpdir(), 'wick-first-'));
    const folder = join(home, 'data');
    const { child, ready } = spawnServer(folder);
    await Promise.race([ready.then(() => pause(500 * Math.random())), pause(within * Math.random())]).catch(
      () => undefined,
    );
    child.kill('SIGKILL');
    await pause(100);
    const server = await spawnServer(folder).ready;
    const { body } = await ask<JobListItem[]>(`${server.url}/api/jobs`);
    const { body: shop } = await ask<{ shop: { altitude: number } }>(`${server.url}/api/shop`);
    const materials = (await ask<unknown[]>(`${server.url}/api/materials`)).body.length;
    if (body.length !== demoJobs.length || !(shop.shop.altitude > 0) || materials < 20) halves += 1;
    else whole += 1;
    await server.kill();
    rmSync(home, { recursive: true, force: true });
  }
  return { starts: count, halves, whole };
}
