import { createJimp } from '@jimp/core';
import jpeg from '@jimp/js-jpeg';
import png from '@jimp/js-png';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { StoredJob } from '@wick/contract/api';
import type { BookLine, OpenLesson } from '@wick/contract/review';
import type { EntryBody } from '@wick/contract/run/run';
import { MAX_PHOTOS } from '@wick/contract/run/photo';
import type { Express } from 'express';
import request from 'supertest';
import { startApp, type TestApp } from '../test/app.ts';

let own: TestApp;
let app: Express;
let job: StoredJob;

beforeAll(async () => {
  own = await startApp('Footbridge kerb plate');
  ({ app, job } = own);
});
afterAll(() => own.close());

const begin = (id: string, kind: 'part' | 'rehearsal' = 'part') =>
  request(app).post(`/api/jobs/${job.id}/runs`).send({ id, kind, speed: 1, seed: 1 }).expect(201);
let counted = 0;
/** Said one after the other, a minute apart. @returns their ids */
async function say(run: string, ...bodies: EntryBody[]): Promise<string[]> {
  const entries = bodies.map((body) => {
    counted += 1;
    const at = new Date(Date.UTC(2026, 2, 14, 9, counted)).toISOString();
    return { id: `e${counted}`, at, by: 'Ada', body };
  });
  await request(app).post(`/api/runs/${run}/entries`).send({ entries }).expect(200);
  return entries.map(({ id }) => id);
}
const finding = (more: Partial<Extract<EntryBody, { kind: 'finding' }>> = {}): EntryBody => ({
  ...{ kind: 'finding', is: 'drySpot', side: 'mould', form: 'pin', path: [{ x: 0.9, y: 0.2 }], size: 0.04 },
  ...{ pattern: null, photoIds: [], note: 'white bundles', ...more },
});
const booked = (outcome: 'good' | 'scrap', fill = 1800): EntryBody => ({
  kind: 'booked',
  figures: {
    ...{ process: 'infusion', mouldId: null, mouldName: '', materials: [], outcome, cost: 120 },
    fill: { planned: 1500, measured: fill },
    fillRange: { early: 1300, late: 1900 },
    fraction: { planned: 0.52, measured: null },
    weight: { planned: 3, measured: 3.1 },
    drawn: { planned: 4, measured: 4.1 },
    leak: { planned: 1e-3, measured: 4e-4 },
    gel: { planned: null, measured: null },
    ...{ findings: { drySpot: 1 }, causeId: 'leak', answers: { pressure: 'fell' }, outside: [] },
  },
  evidence: [
    {
      ...{ side: 'permeability', told: -0.2, deviation: 0.08 },
      parts: [{ materialId: 'quad-glass-850', side: 'permeability', share: 1, used: 1, base: 'abc' }],
    },
  ],
  rows: [
    {
      ...{ id: 'fill', group: 'fill', name: 'All wet', quantity: 'duration' },
      planned: { early: 1300, middle: 1500, late: null },
      ...{ measured: fill, isInside: true, means: '' },
    },
  ],
  causes: [{ id: 'leak', name: 'The bag leaked', belief: 0.7, for: ['the vacuum fell off'], against: [] }],
});
const lesson: EntryBody = {
  ...{ kind: 'lesson', target: 'plan', text: 'Mix a fifth more', change: 'reserve', amount: 0.2 },
};
const book = async (query = '') =>
  (await request(app).get(`/api/book${query}`).expect(200)).body as BookLine[];
const lessons = async () => (await request(app).get('/api/lessons').expect(200)).body as OpenLesson[];
const report = (run: string, query = '') =>
  request(app)
    .get(`/api/runs/${run}/report${query}`)
    .buffer(true)
    .parse((response, done) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () => done(null, Buffer.concat(chunks)));
    });
const Image = createJimp({ formats: [jpeg, png] });
const picture = async (width = 40) =>
  Buffer.from(await new Image({ width, height: 30, color: 0x2a6f78ff }).getBuffer('image/png'));

describe('the book', () => {
  test('each part once by its last word; a struck word is not in it; rehearsals only where asked for', async () => {
    await begin('b1');
    await say('b1', booked('good', 1700));
    const [again] = await say('b1', booked('scrap', 2400));
    expect(await book()).toMatchObject([
      { runId: 'b1', number: 1, jobName: 'Footbridge kerb plate', figures: { outcome: 'scrap' } },
    ]);
    await say('b1', { kind: 'struck', entryId: again!, why: 'the wrong part' });
    const [line] = await book();
    expect(line).toMatchObject({ figures: { outcome: 'good', fill: { measured: 1700 } }, by: 'Ada' });
    expect(line!.evidence).toHaveLength(1);
    // The rows of the record are not sent with a list.
    expect(JSON.stringify(line)).not.toContain('All wet');
    await begin('b2', 'rehearsal');
    await say('b2', booked('good'));
    expect(await book()).toHaveLength(1);
    expect(await book('?rehearsals=1')).toHaveLength(2);
  });

  test('what is said of a part is checked: no finding without a place, no signature without a name', async () => {
    await begin('b3');
    const before = await book();
    const send = (body: unknown, by = 'Ada') =>
      request(app)
        .post('/api/runs/b3/entries')
        .send({
          entries: [{ id: `x${Math.random()}`.replace('.', ''), at: '2026-03-14T09:00:00Z', by, body }],
        });
    for (const wrong of [
      { ...finding(), path: [] },
      { ...finding(), path: [{ x: Number.MAX_VALUE, y: 0 }] },
      { ...finding(), is: 'ghost' },
      { ...finding(), path: Array.from({ length: 5000 }, () => ({ x: 0, y: 0 })) },
      { kind: 'weighed', what: 'part', mass: -1, flange: null, isTrimmed: true },
      { kind: 'gauged', x: 0, y: 0, thickness: 'thin' },
      { ...booked('good'), rows: Array.from({ length: 400 }, () => ({})) },
    ])
      await send(wrong).expect(422);
    await send({ kind: 'signed', as: 'Inspector' }, '').expect(422);
    expect(await book()).toEqual(before);
  });
});

describe('lessons', () => {
  test('are open until they are taken, set aside or struck', async () => {
    await begin('l1');
    const [first, second, third] = await say(
      'l1',
      lesson,
      { ...lesson, text: 'Two' },
      { ...lesson, text: 'Three' },
    );
    expect((await lessons()).map(({ text }) => text)).toEqual(['Three', 'Two', 'Mix a fifth more']);
    await say(
      'l1',
      { kind: 'lessonSettled', lessonId: first!, is: 'taken', jobId: 'other' },
      { kind: 'lessonSettled', lessonId: second!, is: 'dropped', jobId: null },
    );
    expect((await lessons()).map(({ text }) => text)).toEqual(['Three']);
    expect((await lessons())[0]).toMatchObject({
      jobId: job.id,
      change: 'reserve',
      amount: 0.2,
      process: 'infusion',
    });
    await say('l1', { kind: 'struck', entryId: third!, why: '' });
    expect(await lessons()).toEqual([]);
  });
});

describe('the record as PDF', () => {
  test('the same run is the same file, on either paper; a new word makes another', async () => {
    await begin('r1');
    await say('r1', finding(), booked('good'), lesson, { kind: 'signed', as: 'Inspector' });
    const [one, two] = [await report('r1').expect(200), await report('r1').expect(200)];
    const data = one.body as Buffer;
    expect(one.headers['content-type']).toBe('application/pdf');
    expect(data.subarray(0, 5).toString()).toBe('%PDF-');
    expect(data.equals(two.body as Buffer)).toBe(true);
    const letter = (await report('r1', '?paper=Letter').expect(200)).body as Buffer;
    expect(letter.equals(data)).toBe(false);
    expect(letter.toString('latin1')).toContain('[0 0 612 792]');
    await say('r1', { kind: 'note', text: 'looked at again' });
    expect(((await report('r1').expect(200)).body as Buffer).equals(data)).toBe(false);
  });

  test('of a run that nobody reviewed it is there all the same; of none there is none', async () => {
    await begin('r2');
    const { body } = await report('r2').expect(200);
    expect((body as Buffer).byteLength).toBeGreaterThan(5000);
    await request(app).get('/api/runs/nothing/report').expect(404);
  });

  test('long words, odd letters and findings beside the part do not break it', async () => {
    await begin('r3');
    await say(
      'r3',
      finding({ note: 'x'.repeat(900), path: [{ x: -900, y: 900 }] }),
      finding({
        note: '<svg onload=alert(1)> & “quotes” ≤ ½ Ω 漢字 🙂',
        form: 'line',
        path: [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
        ],
      }),
      { kind: 'note', text: '\u202e right to left \u0007' },
    );
    const { body } = await report('r3').expect(200);
    expect((body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });
});

describe('pictures of findings', () => {
  const send = (run: string, id: string, bytes: Uint8Array, type = 'image/png') =>
    request(app).put(`/api/runs/${run}/photos/${id}`).set('content-type', type).send(Buffer.from(bytes));

  test('two hundred of one part: each is kept, all of them are in the record', async () => {
    await begin('p1');
    const bytes = await picture();
    for (let n = 0; n < 200; n++) await send('p1', `pic-${n}`, bytes).expect(201);
    const many = Array.from({ length: 20 }, (_, n) =>
      finding({ photoIds: Array.from({ length: 10 }, (_unused, m) => `pic-${10 * n + m}`) }),
    );
    await say('p1', ...many);
    const { body } = await report('p1').expect(200);
    const images = (body as Buffer).toString('latin1').match(/\/Subtype\s*\/Image/g) ?? [];
    expect(images.length).toBeGreaterThanOrEqual(200);
    expect(200).toBeLessThan(MAX_PHOTOS);
  }, 120_000);

  test('broken, foreign and oversized ones are each answered in words, and the finding stays', async () => {
    await begin('p2');
    const good = await picture();
    const broken: [string, Uint8Array][] = [
      ['text', Buffer.from('<script>alert(1)</script>')],
      ['cut', good.subarray(0, good.length / 2)],
      ['svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')],
      [
        'liar',
        Buffer.concat([
          good.subarray(0, 16),
          Buffer.from([0x7f, 0xff, 0xff, 0xff, 0x7f, 0xff, 0xff, 0xff]),
          good.subarray(24),
        ]),
      ],
    ];
    for (const [id, bytes] of broken) {
      const { body } = await send('p2', id, bytes).expect(422);
      expect((body as { detail: string }).detail).toMatch(/^The picture was not kept\. .+\.$/);
    }
    await send('p2', 'huge', Buffer.alloc(13_000_000)).expect(413);
    await send('p2', '../../etc', good).expect(404);
    await say('p2', finding({ photoIds: ['text', 'cut', 'gone'] }));
    // What is not here is said to be missing, and the record is made.
    await report('p2').expect(200);
    await send('p2', 'good', good).expect(201);
  });
});
