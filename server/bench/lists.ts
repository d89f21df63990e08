import type { EntryBody } from '@wick/contract/run/run';
import { demoJobs, demoShop } from '@wick/plan/demo/jobs';
import { demoMoulds } from '@wick/plan/demo/moulds';
import { demoRuns } from '@wick/plan/demo/runs';
import { usualSteps } from '@wick/plan/card/usual-steps';
import { newId } from '@wick/plan/job/ids';
import { summaryOf } from '@wick/plan/job/summary';
import request from 'supertest';
import { createJobRepo } from '../src/repo/job-repo.ts';
import { createRunRepo } from '../src/repo/run-repo.ts';
import { startApp } from '../src/test/app.ts';

/** How long the lists of a large workshop take, over HTTP and with all of their text read: printed beside what they may take. */
const JOBS = 2000;
const RUNS = 500;
const MOST = 300;
const TIMES = 7;

const lesson: EntryBody = {
  ...{ kind: 'lesson', target: 'plan', text: 'Warm the mould', change: 'warm-mould', amount: 5 },
};

const { app, opened, job, close } = await startApp('Footbridge kerb plate');
const jobRepo = createJobRepo(opened.database);
const runRepo = createRunRepo(opened.database);
const jobIds: string[] = [];
for (let n = 0; n < JOBS; n++) {
  const document = { ...demoJobs[n % demoJobs.length]!, name: `Part ${n + 1}` };
  jobIds.push((await jobRepo.add({ document, summary: summaryOf(document, demoShop) })).id);
}
const plan = {
  ...{ jobRevision: 1, job: job.document, shop: demoShop, mould: demoMoulds[0]! },
  ...{ stepsRevision: 1, steps: usualSteps },
};
for (let n = 0; n < RUNS; n++) {
  const { entries, startedAt } = demoRuns[n % demoRuns.length]!;
  const own = entries.map((entry) => ({ ...entry, id: newId() }));
  const last = own.at(-1)!;
  await runRepo.addMade(
    {
      ...{ id: newId(), jobId: jobIds[n % 50]!, number: Math.floor(n / 50) + 1, kind: 'part', speed: 1 },
      ...{ seed: 0, startedAt },
    },
    plan,
    [...own, { id: newId(), at: last.at, by: 'Ada', body: lesson }],
  );
}

for (const path of ['/api/jobs', '/api/book', '/api/lessons', `/api/jobs/${jobIds[0]}/runs`]) {
  const taken: number[] = [];
  let rows = 0;
  for (let n = 0; n < TIMES; n++) {
    const begin = performance.now();
    const { body } = await request(app).get(path).expect(200);
    taken.push(performance.now() - begin);
    rows = (body as unknown[]).length;
  }
  const [median, worst] = [taken.sort((a, b) => a - b)[Math.floor(TIMES / 2)]!, taken.at(-1)!];
  console.log(
    `${path.replace(jobIds[0]!, ':id')}: ${rows} rows, ${median.toFixed(0)} ms, at worst ${worst.toFixed(0)} ms: ${(worst / MOST).toFixed(2)} of ${MOST} ms`,
  );
}
await close();
