import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { createJimp } from '@jimp/core';
import jpeg from '@jimp/js-jpeg';
import png from '@jimp/js-png';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { StoredJob, StoredSteps } from '@wick/contract/api';
import type { Entry } from '@wick/contract/run/run';
import type { RunPlan } from '@wick/contract/run/plan';
import { MAX_PHOTO_BYTES } from '@wick/contract/run/photo';
import { usualSteps } from '@wick/plan/card/usual-steps';
import type { Express } from 'express';
import request from 'supertest';
import { startApp, type TestApp } from '../test/app.ts';
import { rowsOf } from '../services/backup/backup-file.ts';
import { restorePhotoFiles } from '../services/photos/photo-files.ts';

let own: TestApp;
let app: Express;
let job: StoredJob;

beforeAll(async () => {
  own = await startApp('Footbridge kerb plate');
  ({ app, job } = own);
});
afterAll(() => own.close());

const begin = async (id: string): Promise<void> => {
  await request(app)
    .post(`/api/jobs/${job.id}/runs`)
    .send({ id, kind: 'part', speed: 1, seed: 1 })
    .expect(201);
};
const planOf = async (id: string): Promise<RunPlan> =>
  (await request(app).get(`/api/runs/${id}/plan`).expect(200)).body as RunPlan;
const entriesOf = async (id: string): Promise<Entry[]> =>
  (await request(app).get(`/api/runs/${id}/entries`).expect(200)).body as Entry[];

describe('the library of steps', () => {
  test('is the usual one until it is changed; every revision stays, a stale write changes nothing', async () => {
    const first = (await request(app).get('/api/steps').expect(200)).body as StoredSteps;
    expect([first.revision, first.steps]).toEqual([1, usualSteps]);
    const changed = { ...usualSteps, steps: usualSteps.steps.map((step) => ({ ...step, who: 'Bo' })) };
    const written = await request(app)
      .put('/api/steps')
      .send({ revision: 1, by: 'Ada', steps: changed })
      .expect(200);
    expect(written.body).toMatchObject({ revision: 2, by: 'Ada' });
    const stale = await request(app)
      .put('/api/steps')
      .send({ revision: 1, by: 'Bo', steps: usualSteps })
      .expect(409);
    expect(stale.body).toMatchObject({ code: 'STALE', current: { revision: 2 } });
    const both = (await request(app).get('/api/steps/history').expect(200)).body as StoredSteps[];
    expect(both.map(({ revision }) => revision)).toEqual([2, 1]);
    expect(both[1]!.steps).toEqual(usualSteps);
  });

  test('what is wrong in it is named, with where', async () => {
    const bad = { ...usualSteps, steps: [usualSteps.steps[0], usualSteps.steps[0]] };
    const twice = await request(app).put('/api/steps').send({ revision: 2, by: '', steps: bad }).expect(422);
    expect(twice.body.detail).toContain('two steps have the same id');
    const backward = {
      ...usualSteps,
      steps: [{ ...usualSteps.steps[0], wait: { word: 'w', opens: 60, closes: 30, temperature: null } }],
    };
    const window = await request(app)
      .put('/api/steps')
      .send({ revision: 2, by: '', steps: backward })
      .expect(422);
    expect(window.body.detail).toContain('a window closes after it opens');
    expect(((await request(app).get('/api/steps')).body as StoredSteps).revision).toBe(2);
  });
});

describe('the plan a run follows', () => {
  test('is frozen when it begins; a newer one is taken only by name of its revision, and the differences are written down', async () => {
    await begin('frozen');
    const before = await planOf('frozen');
    expect(before).toMatchObject({
      number: 1,
      jobRevision: job.revision,
      stepsRevision: 2,
      job: { name: 'Footbridge kerb plate' },
    });
    const [first, ...rest] = before.job.laminate.plies;
    const document = {
      ...job.document,
      laminate: { ...job.document.laminate, plies: [{ ...first!, angle: 0.5 }, ...rest] },
    };
    const written = (
      await request(app).put(`/api/jobs/${job.id}`).send({ revision: job.revision, document }).expect(200)
    ).body as StoredJob;
    expect((await planOf('frozen')).job).toEqual(before.job);
    const stale = await request(app)
      .post('/api/runs/frozen/plan')
      .send({ jobRevision: written.revision + 1 })
      .expect(409);
    expect(stale.body.detail).toContain('changed again since');
    const taken = (
      await request(app).post('/api/runs/frozen/plan').send({ jobRevision: written.revision }).expect(200)
    ).body as RunPlan;
    expect([taken.number, taken.job.laminate.plies[0]!.angle]).toEqual([2, 0.5]);
    // The same once more changes nothing.
    await request(app).post('/api/runs/frozen/plan').send({ jobRevision: written.revision }).expect(200);
    const said = (await entriesOf('frozen')).map(({ body }) => body);
    expect(said).toEqual([
      { kind: 'planTaken', number: 2, differences: [expect.stringMatching(/laminate › plies › .*: angle/)] },
    ]);
    job = { ...job, ...written, document };
  });

  test('a run of before that has none takes the job as it is, and keeps to it', async () => {
    await own.services.runs.add(job.id, { id: 'older', kind: 'part', speed: 1, seed: 1 });
    const both = await Promise.all([planOf('older'), planOf('older')]);
    expect(both.map(({ number }) => number)).toEqual([1, 1]);
    await request(app).get('/api/runs/nowhere/plan').expect(404);
  });

  test('what only the server says is not taken from a screen', async () => {
    const entry = {
      id: 'x',
      at: new Date().toISOString(),
      by: 'Ada',
      body: { kind: 'due', timerId: 't', what: 'opens' },
    };
    const refused = await request(app)
      .post('/api/runs/frozen/entries')
      .send({ entries: [entry] })
      .expect(422);
    expect(refused.body.detail).toContain('given by the server alone');
    const nameless = {
      ...entry,
      by: ' ',
      body: { kind: 'overruled', holdId: 'tight', title: '', why: 'because' },
    };
    const unsigned = await request(app)
      .post('/api/runs/frozen/entries')
      .send({ entries: [nameless] })
      .expect(422);
    expect(unsigned.body.detail).toContain('needs a name');
  });
});

const Image = createJimp({ formats: [jpeg, png] });
const picture = (
  width: number,
  height: number,
  type: 'image/jpeg' | 'image/png' = 'image/jpeg',
): Promise<Buffer> => new Image({ width, height, color: 0x336699ff }).getBuffer(type);

/** A JPEG with EXIF in it: turned by a quarter, and where it was taken. Layout: Exif 2.3, IFD0 with two tags (from memory). */
function withExif(file: Buffer): Buffer {
  const place = Buffer.from('51.5N 0.1W Oxbow\0');
  const tiff = Buffer.alloc(8 + 2 + 24 + 4 + place.length);
  tiff.write('MM\0*', 0, 'latin1');
  tiff.writeUInt32BE(8, 4);
  tiff.writeUInt16BE(2, 8);
  // Orientation 6: the camera was held upright. ImageDescription, as text further on.
  tiff.writeUInt16BE(0x010e, 10);
  tiff.writeUInt16BE(2, 12);
  tiff.writeUInt32BE(place.length, 14);
  tiff.writeUInt32BE(38, 18);
  tiff.writeUInt16BE(0x0112, 22);
  tiff.writeUInt16BE(3, 24);
  tiff.writeUInt32BE(1, 26);
  tiff.writeUInt16BE(6, 30);
  place.copy(tiff, 38);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, (body.length + 2) >> 8, (body.length + 2) & 255]);
  return Buffer.concat([file.subarray(0, 2), head, body, file.subarray(2)]);
}

/** A PNG that says it is enormous, and holds next to nothing. */
function bomb(): Buffer {
  const chunk = (name: string, data: Buffer) => {
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    return Buffer.concat([length, Buffer.from(name), data, Buffer.alloc(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(60_000, 0);
  header.writeUInt32BE(60_000, 4);
  header.set([8, 6, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('pictures', () => {
  const put = (id: string, bytes: Buffer, type = 'image/jpeg') =>
    request(app).put(`/api/runs/pictured/photos/${id}`).set('content-type', type).send(bytes);
  beforeAll(() => begin('pictured'));

  test('are turned upright and scaled down, with nothing in them of where and when; the same once more changes nothing', async () => {
    const sent = withExif(await picture(2000, 1000));
    expect(sent.includes('Oxbow')).toBe(true);
    const kept = (await put('p1', sent).expect(201)).body as { width: number; height: number };
    // Held upright: what was 2000 by 1000 stands 1000 by 2000, and the longer side is 1600.
    expect([kept.width, kept.height]).toEqual([800, 1600]);
    const again = await put('p1', await picture(30, 30)).expect(201);
    expect(again.body).toEqual(kept);
    const back = await request(app)
      .get('/api/runs/pictured/photos/p1')
      .buffer(true)
      .expect(200)
      .expect('content-type', 'image/jpeg');
    const bytes = back.body as Buffer;
    expect(bytes.includes('Exif') || bytes.includes('Oxbow')).toBe(false);
    const small = await Image.fromBuffer(
      (await request(app).get('/api/runs/pictured/photos/p1?size=small').buffer(true)).body as Buffer,
    );
    expect([small.width, small.height]).toEqual([120, 240]);
  });

  test('hostile, broken, huge and empty ones are refused in words, and nothing is left of them', async () => {
    const whole = await picture(300, 200);
    const cases: [string, Buffer, string, number, RegExp][] = [
      ['bomb', bomb(), 'image/png', 422, /60000 by 60000 pixels/],
      ['cut', whole.subarray(0, whole.length / 2), 'image/jpeg', 422, /cut short or damaged|no JPEG/],
      ['text', Buffer.from('<svg onload=alert(1)>'), 'image/png', 422, /no JPEG or PNG/],
      ['empty', Buffer.alloc(0), 'image/png', 422, /nothing was sent/],
      ['huge', Buffer.alloc(MAX_PHOTO_BYTES + 1), 'image/png', 413, /larger than the 12 MB/],
      ['html', whole, 'text/html', 415, /image\/jpeg or image\/png/],
      ['id%2E%2E%2Fup', whole, 'image/jpeg', 422, /an id is up to 40 letters/],
    ];
    for (const [id, bytes, type, status, words] of cases) {
      const { body } = await put(id, bytes, type).expect(status);
      expect((body as { detail: string }).detail).toMatch(words);
    }
    expect(readdirSync(join(own.photos, 'pictured')).sort()).toEqual(['p1.large.jpg', 'p1.small.jpg']);
    await request(app).get('/api/runs/pictured/photos/cut').expect(404);
    await request(app)
      .put('/api/runs/nowhere/photos/p')
      .set('content-type', 'image/png')
      .send(whole)
      .expect(404);
  });

  test('go into a backup and come back out of it; what would lie elsewhere is not written', async () => {
    const path = await own.backups.make();
    const back = join(own.photos, '..', 'restored');
    await restorePhotoFiles(back, rowsOf(path));
    for (const name of ['p1.large.jpg', 'p1.small.jpg'])
      expect(readFileSync(join(back, 'pictured', name))).toEqual(
        readFileSync(join(own.photos, 'pictured', name)),
      );
    async function* hostile() {
      yield ['photoFiles', { runId: '../up', name: 'p.large.jpg', data: '' }] as const;
      yield ['photoFiles', { runId: 'run', name: '../../p.large.jpg', data: '' }] as const;
      yield ['photoFiles', { runId: 'run', name: 'p.exe', data: '' }] as const;
    }
    await restorePhotoFiles(join(own.photos, '..', 'hostile'), hostile());
    expect(existsSync(join(own.photos, '..', 'hostile'))).toBe(false);
  });
});
