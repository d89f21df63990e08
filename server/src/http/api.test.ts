import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyJob } from '@wick/plan/job/new-job';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { brokenJobFiles } from '@wick/plan/files/test/broken-job-files';
import { demoJobs } from '@wick/plan/demo/jobs';
import { type Job } from '@wick/contract/job/job';
import type { JobListItem, JobRevision, StoredJob, StoredMaterial, StoredMould } from '@wick/contract/api';
import { outcomeKeyOf } from '@wick/plan/forecast/key';
import { laidOut } from '@wick/plan/job/laid';
import { mirrorJob } from '@wick/plan/part/edits';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import type { OpenedDatabase } from '../repo/database.ts';
import { openEmpty } from '../test/database.ts';
import { createBackupRepo } from '../repo/backup-repo.ts';
import { createJobRepo, type JobRepo } from '../repo/job-repo.ts';
import { createResultRepo, type ResultRepo } from '../repo/result-repo.ts';
import { createBackupService } from '../services/backup/backup-service.ts';
import { createJobService } from '../services/job-service.ts';
import { seedIfEmpty } from '../services/seed.ts';
import { createServices, type Services } from '../services/services.ts';
import { createApp } from './app.ts';
import { OWN_NAMES } from './guard.ts';

let app: Express;
let jobRepo: JobRepo;
let resultRepo: ResultRepo;
let parts: Parameters<typeof createApp>[0] & Pick<Services, 'upkeep'>;
let opened: OpenedDatabase;
const quiet = pino({ level: 'silent' });

beforeAll(async () => {
  opened = await openEmpty();
  const { database } = opened;
  jobRepo = createJobRepo(database);
  resultRepo = createResultRepo(database);
  expect(await seedIfEmpty(database)).toBe(true);
  expect(await seedIfEmpty(database)).toBe(false);
  const folder = mkdtempSync(join(tmpdir(), 'wick-api-'));
  const backups = createBackupService(createBackupRepo(database), {
    ...{ folder, passing: folder },
    photos: join(folder, 'photos'),
  });
  parts = {
    ...createServices(database),
    log: quiet,
    ...{ hosts: OWN_NAMES, isOnNetwork: false, isSecure: false },
    backup: { backups, passing: folder, restore: () => Promise.reject(new Error('not here')) },
  };
  app = createApp(parts);
});
afterAll(() => opened.close());

const over = (jobs: JobRepo) => createJobService({ jobs, results: resultRepo }, parts.shop);

const create = async (name = 'Test job'): Promise<StoredJob> =>
  (await request(app).post('/api/jobs').send({ name }).expect(201)).body;
const remove = (id: string, revision = 1) => request(app).delete(`/api/jobs/${id}?revision=${revision}`);
const countJobs = async () => (await request(app).get('/api/jobs')).body.length as number;

describe('jobs', () => {
  test('the demo workshop is there, with verdicts', async () => {
    const { body } = await request(app).get('/api/jobs').expect(200);
    const gore = body.find((job: { name: string }) => job.name === 'Dome gore 7');
    expect(gore.outcome.band).toBe('willNotFill');
    expect(gore.isStale).toBe(false);
    expect(gore.sketch.outline.length).toBeGreaterThan(5);
    await request(app).get('/api/health').expect(200, { status: 'ok' });
  });

  test('a write moves the revision on; the stale one gets 409 with what is stored', async () => {
    const job = await create();
    const write = (revision: number, name: string) =>
      request(app)
        .put(`/api/jobs/${job.id}`)
        .send({ revision, document: { ...job.document, name } });
    const written = (await write(1, 'First').expect(200)).body;
    // The document is the writer's own: it does not travel back.
    expect(written).toEqual({ revision: 2, changedAt: expect.any(String) });
    const { body } = await write(1, 'Second').expect(409);
    expect(body).toMatchObject({ code: 'STALE', current: { revision: 2, document: { name: 'First' } } });
    expect((await request(app).get(`/api/jobs/${job.id}`)).body.document.name).toBe('First');
  });

  test('of twenty writes at once from the same revision exactly one wins', async () => {
    const job = await create();
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        request(app)
          .put(`/api/jobs/${job.id}`)
          .send({ revision: 1, document: { ...job.document, name: `Writer ${i}` } }),
      ),
    );
    expect(answers.filter((answer) => answer.status === 200)).toHaveLength(1);
    expect(answers.filter((answer) => answer.status === 409)).toHaveLength(19);
  });

  test.each<[string, unknown, number, string]>([
    ['no revision', { document: emptyJob('x') }, 422, 'revision'],
    ['revision of nonsense', { revision: 'last', document: emptyJob('x') }, 422, 'revision'],
    [
      'document of nonsense',
      { revision: 1, document: { format: 'vivid-wick-job', version: 1 } },
      422,
      'name',
    ],
    [
      'nameless document',
      { revision: 1, document: { ...emptyJob('x'), name: '  ' } },
      422,
      'give the job a name',
    ],
    [
      'absurd size',
      { revision: 1, document: { ...emptyJob('x'), name: 'x'.repeat(5_000_000) } },
      413,
      'larger than the 4 MB',
    ],
  ])('%s is refused and nothing changes', async (_, body, status, says) => {
    const job = await create();
    const answer = await request(app)
      .put(`/api/jobs/${job.id}`)
      .send(body as object)
      .expect(status);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect(answer.body.detail).toContain(says);
    expect((await request(app).get(`/api/jobs/${job.id}`)).body).toEqual(job);
  });

  test('what is not there is said plainly', async () => {
    expect((await request(app).get('/api/jobs/nobody').expect(404)).body.detail).toContain('not here');
    expect((await request(app).delete('/api/jobs/nobody?revision=1').expect(404)).body.code).toBe(
      'NOT_FOUND',
    );
    expect((await request(app).get('/api/elsewhere').expect(404)).body.detail).toContain('/api/elsewhere');
    expect(
      (await request(app).post('/api/jobs').set('content-type', 'application/json').send('{"na').expect(400))
        .body.code,
    ).toBe('NOT_JSON');
  });

  const listed = async (id: string): Promise<JobListItem> =>
    (await request(app).get('/api/jobs')).body.find((item: JobListItem) => item.id === id);

  test('copied, also as the other hand, in one write; a failure in between leaves nothing behind', async () => {
    const job = await create('Original');
    const copyOf = (id: string, more: object = {}) =>
      request(app)
        .post('/api/jobs')
        .send({ copyOf: id, ...more });
    expect((await copyOf(job.id).expect(201)).body.document.name).toBe('Original, copy');
    const { body } = await request(app).get('/api/jobs');
    const gore = body.find(({ name }: JobListItem) => name === 'Dome gore 7').id;
    const { document } = (await copyOf(gore, { mirrored: true }).expect(201)).body as StoredJob;
    expect(document).toEqual({ ...mirrorJob(demoJobs[0]!), name: 'Dome gore 7, other hand' });
    const before = await countJobs();
    const failing: JobRepo = { ...jobRepo, add: () => Promise.reject(new Error('power cut')) };
    const broken = createApp({ ...parts, jobs: over(failing) });
    await request(broken).post('/api/jobs').send({ copyOf: gore, mirrored: true }).expect(500);
    expect(await countJobs()).toBe(before);
    await copyOf('nobody').expect(404);
  });

  test('a new job takes the shape it is given, and none that crosses itself', async () => {
    const outline = [
      { x: 0, y: 0 },
      { x: 2, y: 0 },
      { x: 2, y: 0.5 },
      { x: 0, y: 0.5 },
    ];
    const send = (body: object) => request(app).post('/api/jobs').send(body);
    const made = (await send({ name: 'Shaped', outline, process: 'closedMould' }).expect(201)).body;
    expect(made.document).toMatchObject({ process: 'closedMould', part: { outline } });
    const square = [0.1, 0.2].flatMap((x) => [0.1, 0.2].map((y) => ({ x, y: x > 0.1 ? 0.3 - y : y })));
    const holed = (await send({ name: 'Holed', outline, holes: [square, square] }).expect(201)).body.document
      .part.holes;
    expect(holed.map(({ outline: ring }: { outline: unknown }) => ring)).toEqual([square, square]);
    expect(holed[0].id).not.toBe(holed[1].id);
    const crossed = [outline[0], outline[2], outline[1], outline[3]];
    expect((await send({ name: 'Crossed', outline: crossed }).expect(422)).body.detail).toContain('crosses');
  });

  test('results stand beside the job: writing one moves no revision on, and it is stale once the job flows otherwise', async () => {
    const job = (
      await request(app)
        .post('/api/jobs/import')
        .type('application/json')
        .send(JSON.stringify({ ...demoJobs[1], name: 'Own spinner' }))
    ).body as StoredJob;
    expect((await listed(job.id)).outcome).toBeNull();
    const laid = laidOut(job.document);
    const { body } = await request(app).get('/api/shop');
    const outcome = { ...(await listed((await spinnerItem()).id)).outcome! };
    const result = { layoutId: laid.layout.id, key: outcomeKeyOf(laid, body.shop), outcome };
    await request(app)
      .put(`/api/jobs/${job.id}/results`)
      .send({ revision: 1, results: [result] })
      .expect(204);
    expect(await listed(job.id)).toMatchObject({ revision: 1, isStale: false, outcome });
    expect((await request(app).get(`/api/jobs/${job.id}/results`)).body).toEqual([result]);
    const write = (revision: number, document: Job) =>
      request(app).put(`/api/jobs/${job.id}`).send({ revision, document }).expect(200);
    await write(1, { ...job.document, name: 'Renamed' });
    expect((await listed(job.id)).isStale).toBe(false);
    await write(2, { ...job.document, vacuum: { ...job.document.vacuum, ventPressure: 9000 } });
    expect((await listed(job.id)).isStale).toBe(true);
    await request(app)
      .put(`/api/jobs/${job.id}/results`)
      .send({ revision: 3, results: [{ ...result, key: 'short' }] })
      .expect(422);
    await request(app).put('/api/jobs/nobody/results').send({ revision: 1, results: [] }).expect(404);
    // From a revision that is no longer there it is refused, and what was found stays.
    await request(app)
      .put(`/api/jobs/${job.id}/results`)
      .send({ revision: 2, results: [{ ...result, key: '0'.repeat(16) }] })
      .expect(409);
    expect((await request(app).get(`/api/jobs/${job.id}/results`)).body).toEqual([result]);
    await remove(job.id, 3).expect(204);
    expect(await listed(job.id)).toBeUndefined();
  });

  const spinnerItem = async (): Promise<JobListItem> =>
    (await request(app).get('/api/jobs')).body.find(({ name }: JobListItem) => name === 'Hydro spinner');

  test('the list does not read the documents', async () => {
    const reads: string[] = [];
    const spied = new Proxy(opened.database, {
      get: (target, key, receiver) => {
        if (key !== 'select') return Reflect.get(target, key, receiver) as unknown;
        return (fields?: object) => {
          reads.push(...Object.keys(fields ?? { everything: true }));
          return target.select(fields as never);
        };
      },
    });
    expect((await createJobRepo(spied).list()).length).toBeGreaterThan(3);
    expect(reads).not.toContain('everything');
    expect(reads).not.toContain('document');
  });
});

describe('earlier versions of a job', () => {
  const write = (id: string, revision: number, document: Job) =>
    request(app).put(`/api/jobs/${id}`).send({ revision, document });
  const versions = async (id: string) =>
    (await request(app).get(`/api/jobs/${id}/revisions`).expect(200)).body as JobRevision[];

  test('every write leaves what was there, to look at and take back; what is taken back can be undone as well', async () => {
    const job = await create('First');
    for (const [n, name] of ['Second', 'Third'].entries())
      await write(job.id, n + 1, { ...job.document, name }).expect(200);
    await write(job.id, 1, { ...job.document, name: 'Stale' }).expect(409);
    expect((await versions(job.id)).map(({ revision }) => revision)).toEqual([2, 1]);
    const { body } = await request(app).get(`/api/jobs/${job.id}/revision?revision=1`).expect(200);
    expect(body.document.name).toBe('First');
    const take = (revision: number, earlier: number) =>
      request(app).post(`/api/jobs/${job.id}/take-back`).send({ revision, earlier });
    expect((await take(2, 1).expect(409)).body.current.document.name).toBe('Third');
    expect((await take(3, 1).expect(200)).body).toMatchObject({ revision: 4, document: { name: 'First' } });
    expect((await take(4, 3).expect(200)).body.document.name).toBe('Third');
    await take(5, 77).expect(404);
    await request(app).get('/api/jobs/nobody/revisions').expect(404);
  });

  test('they are thinned with age, and go with the job', async () => {
    const job = await create('Long');
    for (let revision = 1; revision < 60; revision++)
      await write(job.id, revision, { ...job.document, name: `Write ${revision}` }).expect(200);
    const left = (await versions(job.id)).map(({ revision }) => revision);
    expect(left.slice(0, 20)).toEqual(Array.from({ length: 20 }, (_, back) => 59 - back));
    expect(left.length).toBeLessThan(45);
    expect(left.at(-1)).toBe(1);
  });

  test('a mould that goes while a job is put on it is told, not lost', async () => {
    const { body } = await request(app).get('/api/moulds').expect(200);
    const mould = { ...body[0].mould, id: 'fleeting', name: 'Fleeting', history: [] };
    const job = await create('On a mould');
    const on = { ...job.document, mould: { id: 'fleeting', name: 'Fleeting' } };
    for (let round = 0; round < 6; round++) {
      await request(app).put('/api/moulds/fleeting').send({ revision: 0, mould }).expect(200);
      const { revision } = (await request(app).get(`/api/jobs/${job.id}`)).body;
      const [taken, gone] = await Promise.all([
        write(job.id, revision, on),
        request(app).delete('/api/moulds/fleeting?revision=1'),
      ]);
      const isThere = gone.status !== 204;
      expect([taken.status, gone.status]).toEqual(isThere ? [200, 409] : [404, 204]);
      const now = (await request(app).get(`/api/jobs/${job.id}`)).body;
      if (isThere) await write(job.id, now.revision, job.document).expect(200);
      if (isThere) await request(app).delete('/api/moulds/fleeting?revision=1').expect(204);
    }
  });
});

describe('jobs put away', () => {
  const listed = async (id: string) =>
    (await request(app).get('/api/jobs')).body.find((item: { id: string }) => item.id === id);

  test('a deleted job is gone from everywhere until it is brought back as it was', async () => {
    const job = await create('Regretted');
    await remove(job.id).expect(204);
    expect(await listed(job.id)).toBeUndefined();
    await request(app).get(`/api/jobs/${job.id}`).expect(404);
    await request(app).put(`/api/jobs/${job.id}`).send({ revision: 1, document: job.document }).expect(404);
    const restored = await request(app).post(`/api/jobs/${job.id}/restore`).expect(200);
    expect(restored.body.document).toEqual(job.document);
    expect((await listed(job.id)).name).toBe('Regretted');
    await request(app).post(`/api/jobs/${job.id}/restore`).expect(404);
  });

  test('deleted jobs are cleared away after thirty days of use, whatever the clock says', async () => {
    const job = await create('Old');
    await remove(job.id).expect(204);
    const { passDay } = parts.upkeep;
    // A clock that leaps a year ahead, and back, has made it two days.
    for (const day of ['2027-11-26', '2027-11-26', '2026-11-26']) await passDay(day);
    await request(app).post(`/api/jobs/${job.id}/restore`).expect(200);
    await remove(job.id).expect(204);
    for (let day = 1; day < 30; day++) await passDay(`2026-12-${day}`);
    await request(app).post(`/api/jobs/${job.id}/restore`).expect(200);
    await remove(job.id).expect(204);
    for (let day = 1; day <= 30; day++) await passDay(`2027-01-${day}`);
    await request(app).post(`/api/jobs/${job.id}/restore`).expect(404);
  });

  test('archived and back, its document untouched', async () => {
    const job = await create('Shelved');
    await request(app)
      .put(`/api/jobs/${job.id}/archived`)
      .send({ revision: 1, isArchived: true })
      .expect(204);
    expect(await listed(job.id)).toMatchObject({ isArchived: true, revision: 1 });
    await request(app)
      .put(`/api/jobs/${job.id}/archived`)
      .send({ revision: 1, isArchived: 'maybe' })
      .expect(422);
    await request(app)
      .put(`/api/jobs/${job.id}/archived`)
      .send({ revision: 1, isArchived: false })
      .expect(204);
    expect(await listed(job.id)).toMatchObject({ isArchived: false });
    await request(app).put(`/api/jobs/${job.id}`).send({ revision: 1, document: job.document }).expect(200);
    // What was looked at before the change is neither put away nor deleted.
    await request(app)
      .put(`/api/jobs/${job.id}/archived`)
      .send({ revision: 1, isArchived: true })
      .expect(409);
    await remove(job.id, 1).expect(409);
    await request(app).delete(`/api/jobs/${job.id}`).expect(422);
    expect(await listed(job.id)).toMatchObject({ isArchived: false, revision: 2 });
  });
});

describe('job files', () => {
  test('export and import give the same job', async () => {
    const job = await create();
    await request(app).put(`/api/jobs/${job.id}`).send({ revision: 1, document: demoJobs[0] }).expect(200);
    const file = await request(app).get(`/api/jobs/${job.id}/file`).expect(200);
    expect(file.headers['content-disposition']).toContain('Dome-gore-7.wick.json');
    const imported = await request(app)
      .post('/api/jobs/import')
      .type('application/json')
      .send(file.text)
      .expect(201);
    expect(imported.body.document).toEqual(demoJobs[0]);
  });

  test.each(brokenJobFiles())('$name is refused and adds nothing', async ({ text, says }) => {
    const before = await countJobs();
    const answer = await request(app).post('/api/jobs/import').type('application/json').send(text);
    expect([400, 422]).toContain(answer.status);
    expect(answer.body.detail).toContain(says);
    expect(await countJobs()).toBe(before);
  });
});

describe('shop and library', () => {
  test('settings are revision-checked, and wrong ones refused', async () => {
    const { body } = await request(app).get('/api/shop').expect(200);
    const shop = { ...body.shop, altitude: 900, units: { length: 'in' } };
    const isStale = async () =>
      (await request(app).get('/api/jobs')).body.find(({ name }: JobListItem) => name === 'Hydro spinner')
        .isStale;
    expect(await isStale()).toBe(false);
    await request(app).put('/api/shop').send({ revision: body.revision, shop }).expect(200);
    // At another altitude it presses differently: what was forecast is out of date.
    expect(await isStale()).toBe(true);
    await request(app).put('/api/shop').send({ revision: body.revision, shop }).expect(409);
    const wrong = { ...shop, units: { length: 'furlong' } };
    expect(
      (await request(app).put('/api/shop').send({ revision: 2, shop: wrong }).expect(422)).body.detail,
    ).toContain('not one of its quantity');
    await request(app)
      .put('/api/shop')
      .send({ revision: 2, shop: { ...shop, altitude: 90_000 } })
      .expect(422);
  });

  test('a material is added, changed, and never overwritten by a stale hand', async () => {
    const [first] = (await request(app).get('/api/materials').expect(200)).body;
    const material = { ...first.material, id: 'own-copy', name: 'Own copy' };
    const write = (revision: number, value: object) =>
      request(app).put('/api/materials/own-copy').send({ revision, material: value });
    await write(0, material).expect(200);
    await write(1, { ...material, name: 'Better' }).expect(200);
    expect((await write(1, material).expect(409)).body.current.material.name).toBe('Better');
    await write(0, material).expect(409);
    expect((await write(2, { ...material, id: 'other' }).expect(422)).body.detail).toContain(
      'Make them agree',
    );
    await write(2, { ...material, kind: 'unobtainium' }).expect(422);
  });
});

describe('the library', () => {
  const entry = async (id: string): Promise<StoredMaterial> =>
    (await request(app).get('/api/materials')).body.find(
      ({ material }: StoredMaterial) => material.id === id,
    );

  test('keeps every state an entry was in', async () => {
    const { revision, material } = await entry('hose-8');
    await request(app)
      .put('/api/materials/hose-8')
      .send({ revision, material: { ...material, name: 'Hose, thin' } })
      .expect(200);
    const { body } = await request(app).get('/api/materials/hose-8/history').expect(200);
    expect(body.map((version: { material: { name: string } }) => version.material.name)).toEqual([
      'Hose, thin',
      'Clear hose 8',
    ]);
  });

  test('what a job uses stays, and the jobs are named; what none uses goes', async () => {
    const used = await entry('quad-glass-850');
    const answer = await request(app)
      .delete(`/api/materials/quad-glass-850?revision=${used.revision}`)
      .expect(409);
    expect(answer.body.code).toBe('IN_USE');
    expect(answer.body.detail).toContain('“Dome gore 7”');
    expect(answer.body.detail).toContain('“Footbridge kerb plate”');
    expect(await entry('quad-glass-850')).toEqual(used);
    await request(app).delete('/api/materials/profile-15').expect(422);
    await request(app).delete('/api/materials/profile-15?revision=9').expect(409);
    await request(app).delete('/api/materials/profile-15?revision=1').expect(204);
    expect(await entry('profile-15')).toBeUndefined();
  });

  test('a file is taken in whole or not at all, and counted', async () => {
    const { revision, material } = await entry('mesh-fine');
    const send = (materials: object[], revision = 0) =>
      request(app)
        .post('/api/materials/import')
        .send({
          materials: materials.map((own) => ({ revision, ...('material' in own ? own : { material: own }) })),
        });
    const fresh = { ...material, id: 'mesh-new', name: 'New mesh' };
    const bad = { ...material, id: 'mesh-bad', porosity: 3 };
    expect((await send([fresh, bad]).expect(422)).body.detail).toContain('porosity');
    expect(await entry('mesh-new')).toBeUndefined();
    expect((await send([fresh, fresh]).expect(422)).body.detail).toContain('twice');
    const kind = { ...(await entry('peel-nylon')).material, id: 'mesh-fine' };
    expect((await send([kind]).expect(422)).body.detail).toContain('Give it another id');
    const changed = { revision, material: { ...material, name: 'Knit mesh, finer' } };
    const stale = { ...changed, revision: revision + 1 };
    expect((await send([fresh, stale]).expect(409)).body.detail).toContain('“Knit mesh fine” changed');
    expect(await entry('mesh-new')).toBeUndefined();
    expect((await send([fresh, changed]).expect(200)).body).toEqual({ added: 1, changed: 1, same: 0 });
    expect((await send([fresh, changed]).expect(200)).body).toEqual({ added: 0, changed: 0, same: 2 });
  });
});

describe('moulds', () => {
  test('are written by revision, and stay while a job is made on them', async () => {
    const { body } = await request(app).get('/api/moulds').expect(200);
    const { revision, mould } = body.find((item: StoredMould) => item.mould.id === 'spinner-mould');
    const event = { id: 'e9', date: '2026-11-02', kind: 'pull', text: 'Spinner 3' };
    const write = (from: number, changed: object) =>
      request(app).put('/api/moulds/spinner-mould').send({ revision: from, mould: changed });
    const next = { ...mould, history: [...mould.history, event] };
    expect((await write(revision, next).expect(200)).body.mould.history.at(-1)).toEqual(event);
    expect((await write(revision, next).expect(409)).body.current.revision).toBe(revision + 1);
    const wrong = { ...mould, history: [{ ...event, date: 'last week' }] };
    expect((await write(revision + 1, wrong).expect(422)).body.detail).toContain('2026-03-14');
    const gone = await request(app)
      .delete(`/api/moulds/spinner-mould?revision=${revision + 1}`)
      .expect(409);
    expect(gone.body.detail).toContain('“Hydro spinner” is made on it');
    await request(app)
      .put('/api/moulds/own')
      .send({ revision: 0, mould: { ...mould, id: 'own', history: [] } })
      .expect(200);
    await request(app).delete('/api/moulds/own?revision=1').expect(204);
  });
});

describe('a full disk', () => {
  test.each([{ code: '53100' }, { cause: { message: 'could not extend file: No space left on device' } }])(
    'answers 507 and keeps what was saved (%j)',
    async (fault) => {
      const job = await create();
      const failing: JobRepo = {
        ...jobRepo,
        replace: () => Promise.reject(Object.assign(new Error('write failed'), fault)),
      };
      const fullApp = createApp({ ...parts, jobs: over(failing) });
      const changed: Job = { ...job.document, name: 'Lost?' };
      const answer = await request(fullApp)
        .put(`/api/jobs/${job.id}`)
        .send({ revision: 1, document: changed })
        .expect(507);
      expect(answer.body.detail).toContain('the disk is full');
      expect((await request(app).get(`/api/jobs/${job.id}`)).body).toEqual(job);
    },
  );

  test('an unknown fault answers 500 without its inner words', async () => {
    const failing: JobRepo = { ...jobRepo, list: () => Promise.reject(new Error('secret detail')) };
    const broken = createApp({ ...parts, jobs: over(failing) });
    const answer = await request(broken).get('/api/jobs').expect(500);
    expect(answer.text).not.toContain('secret');
  });
});
