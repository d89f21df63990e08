import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EntryBody } from '@wick/contract/run/run';
import { usualSteps } from '@wick/plan/card/usual-steps';
import { demoJobs, demoShop } from '@wick/plan/demo/jobs';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { demoRuns } from '@wick/plan/demo/runs';
import { newId } from '@wick/plan/job/ids';
import { summaryOf } from '@wick/plan/job/summary';
import { pino } from 'pino';
import { spawnServer } from '../siege/running-server.ts';
import { openEmbeddedStore } from '../src/open-store.ts';
import type { Database } from '../src/repo/database.ts';
import { takeFolder } from '../src/repo/embedded/folder.ts';
import { createJobRepo } from '../src/repo/job-repo.ts';
import { createRunRepo } from '../src/repo/run-repo.ts';

/** How long the lists of a large workshop take, of a server process until the last byte is here: printed beside what they may take. */
const JOBS = 2000;
const RUNS = 500;
const MOST = 300;
const TIMES = 15;

const lesson: EntryBody = {
  ...{ kind: 'lesson', target: 'plan', text: 'Warm the mould', change: 'warm-mould', amount: 5 },
};

async function fill(database: Database): Promise<string> {
  const jobIds: string[] = [];
  for (let n = 0; n < JOBS; n++) {
    const document = { ...demoJobs[n % demoJobs.length]!, name: `Part ${n + 1}` };
    const kept = await createJobRepo(database).add({ document, summary: summaryOf(document, demoShop) });
    jobIds.push(kept.id);
  }
  const plan = {
    ...{ jobRevision: 1, job: demoJobs[0]!, shop: demoShop, mould: demoMoulds[0]! },
    ...{ stepsRevision: 1, steps: usualSteps },
  };
  for (let n = 0; n < RUNS; n++) {
    const { entries, startedAt } = demoRuns[n % demoRuns.length]!;
    const own = entries.map((entry) => ({ ...entry, id: newId() }));
    const about = { jobId: jobIds[n % 50]!, number: Math.floor(n / 50) + 1, kind: 'part' } as const;
    await createRunRepo(database).addMade({ id: newId(), ...about, speed: 1, seed: 0, startedAt }, plan, [
      ...own,
      { id: newId(), at: own.at(-1)!.at, by: 'Ada', body: lesson },
    ]);
  }
  return jobIds[0]!;
}

const root = join(mkdtempSync(join(tmpdir(), 'wick-lists-')), 'data');
const folder = takeFolder(root);
const store = await openEmbeddedStore(folder, pino({ level: 'silent' }));
const firstId = await fill(store.database);
await store.close();
folder.unlock();

const { child, ready } = spawnServer(root);
const { url } = await ready;
for (const path of ['/api/jobs', '/api/book', '/api/lessons', `/api/jobs/${firstId}/runs`]) {
  const taken: number[] = [];
  let text = '';
  for (let n = 0; n < TIMES; n++) {
    const begin = performance.now();
    text = await (await fetch(url + path)).text();
    taken.push(performance.now() - begin);
  }
  const first = taken[0]!;
  taken.sort((a, b) => a - b);
  const median = taken[Math.floor(TIMES / 2)]!;
  console.log(
    `${path.replace(firstId, ':id')}: ${(JSON.parse(text) as unknown[]).length} rows, ${(text.length / 1e6).toFixed(2)} MB, at first ${first.toFixed(0)} ms, then ${median.toFixed(0)} ms: ${(median / MOST).toFixed(2)} of ${MOST} ms`,
  );
}
child.kill('SIGKILL');
