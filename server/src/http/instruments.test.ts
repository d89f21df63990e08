import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Instrument, NewInstrument, ReadingWindow, Samples, Taken } from '@wick/contract/run/instrument';
import type { Entry, EntryBody, NewEntry } from '@wick/contract/run/run';
import { createRandom } from '@wick/core/random';
import { pino } from 'pino';
import request from 'supertest';
import { createBackupRepo } from '../repo/backup-repo.ts';
import type { OpenedDatabase } from '../repo/database.ts';
import { openEmpty } from '../test/database.ts';
import { createBackupService } from '../services/backup/backup-service.ts';
import { createServices, type Services } from '../services/services.ts';
import { createApp } from './app.ts';
import { OWN_NAMES } from './guard.ts';

let opened: OpenedDatabase;
let services: Services;
let app: ReturnType<typeof createApp>;
let server: Server;
let base: string;

beforeAll(async () => {
  opened = await openEmpty();
  services = createServices(opened.database, undefined, (error) => {
    throw error;
  });
  const folder = mkdtempSync(join(tmpdir(), 'wick-instruments-'));
  const backups = createBackupService(createBackupRepo(opened.database), {
    ...{ folder, passing: folder },
    photos: join(folder, 'photos'),
  });
  app = createApp({
    ...services,
    log: pino({ level: 'silent' }),
    ...{ hosts: OWN_NAMES, isOnNetwork: false, isSecure: false },
    backup: { backups, passing: folder, restore: () => Promise.reject(new Error('not here')) },
  });
  server = createServer(app).listen(0, '127.0.0.1');
  await once(server, 'listening');
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  services.stop();
  server.closeAllConnections();
  server.close();
  await opened.close();
});

const gauge: NewInstrument = {
  ...{ id: 'gauge-1', name: 'Gauge on the pot', measures: 'absolutePressure', unit: 'mbar', kind: 'device' },
  ...{ resolution: 10, noise: 5 },
};
async function device(id: string, changes: Partial<NewInstrument> = {}): Promise<string> {
  const { body } = await request(app)
    .post('/api/instruments')
    .send({ ...gauge, ...changes, id })
    .expect(201);
  return (body as { word: string }).word;
}
const post = (word: string, text: string, type = 'application/x-ndjson') =>
  request(app)
    .post('/api/readings')
    .set('authorization', `Bearer ${word}`)
    .set('content-type', type)
    .send(text);
const lines = (...values: unknown[]) => `${values.map((value) => JSON.stringify(value)).join('\n')}\n`;
const listed = async (id: string) =>
  ((await request(app).get('/api/instruments')).body as Instrument[]).find((one) => one.id === id)!;
const samplesOf = async (id: string): Promise<Samples> =>
  (await request(app).get(`/api/instruments/${id}/samples?from=1&to=8000000000000&most=4000`).expect(200))
    .body as Samples;
const now = () => new Date().toISOString();

describe('a device posts readings', () => {
  test('in its own unit or another, at a time or so long ago; each is kept once, in SI', async () => {
    const word = await device('units');
    const at = new Date(Date.now() - 60_000).toISOString();
    const text = lines(
      { id: 'a', at, value: 12.5 },
      { id: 'b', ago: 30, value: 9.4, unit: 'Torr' },
      { id: 3, ago: 0, value: 1.3, unit: 'kpa' },
    );
    expect((await post(word, text).expect(200)).body).toEqual({
      kept: 3,
      known: 0,
      refused: [],
      clockOffset: null,
    });
    expect((await post(word, text).expect(200)).body).toMatchObject({ kept: 0, known: 3 });
    const { values, ats } = await samplesOf('units');
    // 1 Torr = 133.3224 Pa (NIST SP 811).
    expect(values).toEqual([1250, expect.closeTo(9.4 * 133.3224, 3), 1300]);
    expect(ats[0]).toBe(Date.parse(at));
    expect(ats[2]! - ats[1]!).toBeGreaterThan(29_000);
    expect((await listed('units')).last?.value).toBe(1300);
  });

  test('whose clock is wrong says what it shows, and all after that is put right', async () => {
    const word = await device('clock');
    const off = 3 * 3_600_000;
    const shown = (ms: number) => new Date(Date.now() + off + ms).toISOString();
    const refused = await post(word, lines({ id: '1', at: shown(0), value: 10 })).expect(422);
    expect(refused.body.detail).toMatch(/lies 3 h ahead of this server. Send \{"now": …\} first/);
    const taken = (
      await post(word, lines({ now: shown(0) }, { id: '1', at: shown(-5000), value: 10 })).expect(200)
    ).body as Taken;
    expect(taken.kept).toBe(1);
    expect(taken.clockOffset).toBeCloseTo(-off / 1000, 0);
    const { ats } = await samplesOf('clock');
    expect(Math.abs(ats[0]! - (Date.now() - 5000))).toBeLessThan(2000);
    expect((await listed('clock')).clockOffset).toBeCloseTo(-off / 1000, 0);
  });

  test('what cannot be taken is named line by line, and what can be is kept', async () => {
    const word = await device('odd');
    const good = (id: string) => ({ id, ago: 1, value: 20 });
    const text = `${lines(good('1'), { ...good('2'), unit: 'furlong' }, { ...good('3'), value: 'much' }, { ...good('4'), value: 1e9 }, { id: '5', value: 3 }, good('6'))}{"id":"7","ago":1,"val`;
    const { body } = await post(word, text).expect(200);
    expect(body.kept).toBe(2);
    expect((body as Taken).refused).toEqual([
      {
        line: 2,
        why: expect.stringMatching(/“furlong” is no unit of absolute pressure. Known are mbar, inHg/),
      },
      { line: 3, why: expect.stringMatching(/value: a value is a number/i) },
      {
        line: 4,
        why: expect.stringMatching(/1000000000 mbar cannot be read as absolute pressure/),
      },
      { line: 5, why: expect.stringMatching(/either at \(a time\) or ago/) },
      { line: 7, why: expect.stringMatching(/half a line. Send it again whole/) },
    ]);
    await post(word, '{"id":"8","ago"').expect(422);
    await post(word, lines(null)).expect(422);
    await post(word, lines({ ...good('9'), value: null })).expect(422);
    await post(word, '{"id":"10","ago":1,"value":NaN}\n').expect(422);
    await post(word, lines({ ...good('11'), at: 'yesterday', ago: undefined })).expect(422);
    expect((await samplesOf('odd')).count).toBe(2);
    expect((await post(word, '').expect(200)).body.kept).toBe(0);
  });

  test('too much at once, or of another kind, is refused and changes nothing', async () => {
    const word = await device('much');
    const many = Array.from({ length: 5002 }, (_, n) => ({ id: `${n}`, ago: 1, value: 20 }));
    const { body } = await post(word, lines(...many)).expect(200);
    expect(body).toMatchObject({
      kept: 5000,
      refused: [{ line: 5001, why: expect.stringMatching(/up to 5000 lines/) }],
    });
    await post(word, 'x'.repeat(1_000_001)).expect(413);
    await post(word, lines(many[0]), 'text/plain').expect(415);
    expect((await samplesOf('much')).count).toBe(5000);
  });

  test('without a word, with a made-up, a stolen half, a revoked or an earlier one, nothing is taken', async () => {
    const word = await device('words');
    const text = lines({ id: '1', ago: 0, value: 10 });
    await request(app)
      .post('/api/readings')
      .set('content-type', 'application/x-ndjson')
      .send(text)
      .expect(401);
    for (const wrong of ['words', 'words.', `${word}x`, word.slice(0, -1), 'nobody.abc', '..', "words';--.x"])
      expect((await post(wrong, text).expect(401)).body.code).toBe('BAD_WORD');
    await post(word, text).expect(200);
    const renewed = (await request(app).post('/api/instruments/words/word').expect(200)).body as {
      word: string;
    };
    await post(word, text).expect(401);
    await post(renewed.word, text).expect(200);
    // Lists that are read while it is put away bring no old word back.
    const lists = Promise.all(Array.from({ length: 10 }, () => request(app).get('/api/instruments')));
    await request(app).delete('/api/instruments/words').expect(204);
    await lists;
    await post(renewed.word, text).expect(401);
    await request(app).delete('/api/instruments/words').expect(404);
    expect((await listed('words')).revokedAt).not.toBeNull();
    expect((await samplesOf('words')).count).toBe(1);
    expect(JSON.stringify((await request(app).get('/api/instruments')).body)).not.toContain(
      renewed.word.split('.')[1],
    );
  });

  test('a flood of a thousand requests is slowed down by name, loses nothing it answered for, and leaves others in peace', async () => {
    const word = await device('flood');
    const calm = await device('calm');
    const answers = await Promise.all(
      Array.from({ length: 1000 }, async (_, n) => {
        const response = await fetch(`${base}/api/readings`, {
          method: 'POST',
          headers: { authorization: `Bearer ${word}`, 'content-type': 'application/x-ndjson' },
          body: lines({ id: `${n}`, ago: 0, value: 10 }),
        });
        return { status: response.status, detail: ((await response.json()) as { detail?: string }).detail };
      }),
    );
    const kept = answers.filter(({ status }) => status === 200).length;
    const slowed = answers.filter(({ status }) => status === 429);
    expect(kept + slowed.length).toBe(1000);
    expect(slowed.length).toBeGreaterThan(500);
    expect(slowed[0]!.detail).toMatch(/more than 20 times a second. Send its readings in batches/);
    expect((await samplesOf('flood')).count).toBe(kept);
    await post(calm, lines({ id: '1', ago: 0, value: 10 })).expect(200);
  });

  test('a typed value is a reading; one typed for a device, or far ahead, is not taken', async () => {
    const hand = { ...gauge, id: 'by-eye', kind: 'hand', measures: 'gaugePressure', unit: 'inHg' };
    const added = (await request(app).post('/api/instruments').send(hand).expect(201)).body as { word: null };
    expect(added.word).toBeNull();
    const type = (id: string, body: object) =>
      request(app).post(`/api/instruments/${id}/readings`).send(body);
    const typed = { id: 'typed-1', at: now(), value: 86_000 };
    expect((await type('by-eye', typed).expect(200)).body).toMatchObject({ kept: 1, known: 0 });
    expect((await type('by-eye', typed).expect(200)).body).toMatchObject({ kept: 0, known: 1 });
    await type('by-eye', { ...typed, id: 'x', value: 5e6 }).expect(422);
    await type('by-eye', { ...typed, id: 'x', at: new Date(Date.now() + 3_600_000).toISOString() }).expect(
      422,
    );
    await type('gauge-nobody', typed).expect(404);
    await device('posting');
    expect((await type('posting', typed).expect(422)).body.detail).toMatch(/is read by a device/);
    await request(app).post('/api/instruments').send(hand).expect(409);
    await request(app)
      .post('/api/instruments')
      .send({ ...hand, id: 'y', unit: 'kg' })
      .expect(422);
    await request(app)
      .post('/api/instruments')
      .send({ ...hand, id: 'y', resolution: 0 })
      .expect(422);
  });
});

describe('windows of readings', () => {
  test('are thinned with their lows and highs kept; late readings come in where they belong', async () => {
    const word = await device('window');
    const random = createRandom(11);
    const start = Date.now() - 40_000_000;
    const all = Array.from({ length: 30_000 }, (_, n) => ({
      id: `${n}`,
      at: start + n * 1000,
      value: 10 + 5 * random(),
    }));
    // One in between stands out; batches come in any order, some twice.
    all[17_321]!.value = 99;
    const batches = Array.from({ length: 10 }, (_, n) => all.slice(n * 3000, (n + 1) * 3000));
    for (const n of [3, 9, 0, 1, 7, 3, 2, 8, 5, 4, 6, 5])
      await post(
        word,
        lines(...batches[n]!.map((one) => ({ ...one, at: new Date(one.at).toISOString() }))),
      ).expect(200);
    const ask = async (from: number, to: number, places: number) =>
      (
        await request(app)
          .get(`/api/instruments/window/window?from=${from}&to=${to}&places=${places}`)
          .expect(200)
      ).body as ReadingWindow;
    const whole = await ask(start, start + 30_000_000, 500);
    expect(whole.count).toBe(30_000);
    expect(whole.starts.length).toBeLessThanOrEqual(520);
    expect(Math.max(...whole.highs)).toBe(9900);
    const place = whole.highs.indexOf(9900);
    expect(Math.abs(whole.starts[place]! - all[17_321]!.at)).toBeLessThan(300_000);
    const mean = all.reduce((sum, { value }) => sum + value, 0) / all.length;
    const means = whole.means.reduce((sum, value) => sum + value, 0) / whole.means.length;
    expect(means / 100).toBeCloseTo(mean, 1);
    // Near enough every reading has a place of its own.
    const near = await ask(start + 17_000_000, start + 17_400_000, 1000);
    expect(near.count).toBe(401);
    expect(near.starts).toHaveLength(401);
    expect(near.highs[321]).toBe(9900);
    const samples = (
      await request(app).get(
        `/api/instruments/window/samples?from=${start}&to=${start + 30_000_000}&most=1000`,
      )
    ).body as Samples;
    expect(samples.count).toBe(30_000);
    expect(samples.ats).toHaveLength(1000);
    expect(samples.values.every((value, n) => Math.abs(value - all[n * 30]!.value * 100) < 1e-6)).toBe(true);
  });

  test('a stretch that is none is refused with what is wanted', async () => {
    await device('none');
    for (const query of [
      '',
      '?from=1',
      '?from=5&to=4&places=10',
      '?from=a&to=b&places=10',
      '?from=0&to=9&places=1e9',
      '?from=0&to=9&places=-1',
    ])
      expect(
        (await request(app).get(`/api/instruments/none/window${query}`).expect(422)).body.detail,
      ).toMatch(/Say which stretch/);
    await request(app).get('/api/instruments/nobody/window?from=0&to=9&places=10').expect(404);
  });
});

const jobId = async () =>
  ((await request(app).post('/api/jobs').send({ name: 'Run here' })).body as { id: string }).id;
const entry = (id: string, body: EntryBody, at = now()): NewEntry => ({ id, at, by: 'Ada', body });

describe('runs and what is said in them', () => {
  test('a run is added once, numbered after the others; entries sent again are known by their id', async () => {
    const job = await jobId();
    const run = { id: 'run-1', kind: 'part', speed: 1, seed: 0 };
    const added = (await request(app).post(`/api/jobs/${job}/runs`).send(run).expect(201)).body;
    expect(added).toMatchObject({ ...run, jobId: job, number: 1 });
    expect((await request(app).post(`/api/jobs/${job}/runs`).send(run).expect(201)).body).toEqual(added);
    expect(
      (
        await request(app)
          .post(`/api/jobs/${job}/runs`)
          .send({ ...run, id: 'run-2' })
      ).body.number,
    ).toBe(2);
    await request(app)
      .post(`/api/jobs/${await jobId()}/runs`)
      .send(run)
      .expect(409);
    await request(app)
      .post('/api/jobs/nobody/runs')
      .send({ ...run, id: 'run-3' })
      .expect(404);
    const say = (entries: unknown[]) => request(app).post('/api/runs/run-1/entries').send({ entries });
    const first = [entry('e1', { kind: 'pull' }), entry('e2', { kind: 'shut' })];
    const kept = (await say(first).expect(200)).body as Entry[];
    expect(kept.map(({ id, device, by }) => ({ id, device, by }))).toEqual([
      { id: 'e1', device: 'this machine', by: 'Ada' },
      { id: 'e2', device: 'this machine', by: 'Ada' },
    ]);
    const again = (await say([...first, entry('e3', { kind: 'note', text: 'hiss at the foot' })]).expect(200))
      .body as Entry[];
    expect(again.slice(0, 2)).toEqual(kept);
    expect(((await request(app).get('/api/runs/run-1/entries')).body as Entry[]).map(({ id }) => id)).toEqual(
      ['e1', 'e2', 'e3'],
    );
    // All or none.
    await say([entry('e4', { kind: 'pull' }), { id: 'e5' }]).expect(422);
    await say([entry('e4', { kind: 'pull' }, '2999-01-01T00:00:00Z')]).expect(422);
    await say([
      entry('e4', { kind: 'alarm', cause: 'pressure', instrumentId: 'x', value: 1, limit: 2 }),
    ]).expect(422);
    await request(app).post('/api/runs/nobody/entries').send({ entries: first }).expect(404);
    expect((await request(app).get('/api/runs/run-1/entries')).body).toHaveLength(3);
  });
});

/** Events of a stream until some are there. */
async function listen(lastEventId?: string) {
  const controller = new AbortController();
  const response = await fetch(`${base}/api/stream`, {
    signal: controller.signal,
    headers: lastEventId === undefined ? {} : { 'last-event-id': lastEventId },
  });
  expect(response.headers.get('content-type')).toBe('text/event-stream');
  const reader = response.body!.getReader();
  const events: { id: string; kind: string; data: never }[] = [];
  let text = '';
  void (async () => {
    for (;;) {
      const { value, done } = await reader.read().catch(() => ({ value: undefined, done: true }));
      if (done) return;
      text += new TextDecoder().decode(value);
      const parts = text.split('\n\n');
      text = parts.pop()!;
      for (const part of parts) {
        const [, id, kind, data] = /^id: (.*)\nevent: (.*)\ndata: (.*)$/.exec(part)!;
        events.push({ id: id!, kind: kind!, data: JSON.parse(data!) as never });
      }
    }
  })();
  async function until(isThere: () => boolean, wait = 5000) {
    const end = Date.now() + wait;
    while (!isThere()) {
      if (Date.now() > end) throw new Error(`not told: ${JSON.stringify(events.slice(-5))}`);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
  return { events, until, close: () => controller.abort() };
}

describe('the stream', () => {
  test('tells every screen what happens, and one that comes back what it missed, once', async () => {
    const word = await device('told');
    const job = await jobId();
    await request(app)
      .post(`/api/jobs/${job}/runs`)
      .send({ id: 'run-told', kind: 'part', speed: 1, seed: 0 });
    const say = (id: string) =>
      request(app)
        .post('/api/runs/run-told/entries')
        .send({ entries: [entry(id, { kind: 'note', text: id })] })
        .expect(200);
    const [one, two] = [await listen(), await listen()];
    await say('s1');
    await post(word, lines({ id: '1', ago: 0, value: 10 }, { id: '2', ago: 0, value: 11 })).expect(200);
    for (const screen of [one, two]) {
      await screen.until(() => screen.events.some(({ kind }) => kind === 'readings'));
      expect(
        screen.events.filter(({ kind }) => kind === 'entry').map(({ data }) => (data as Entry).id),
      ).toEqual(['s1']);
      expect(screen.events.find(({ kind }) => kind === 'readings')!.data).toMatchObject({
        instrumentId: 'told',
        points: [
          [expect.any(Number), 1000],
          [expect.any(Number), 1100],
        ],
      });
    }
    const { id } = one.events.at(-1)!;
    one.close();
    await say('s2');
    await post(word, lines({ id: '3', ago: 0, value: 12 })).expect(200);
    const back = await listen(id);
    await say('s3');
    await back.until(() => back.events.filter(({ kind }) => kind === 'entry').length === 2);
    expect(back.events.filter(({ kind }) => kind === 'entry').map(({ data }) => (data as Entry).id)).toEqual([
      's2',
      's3',
    ]);
    const points = () =>
      back.events
        .filter(({ kind }) => kind === 'readings')
        .flatMap(({ data }) => (data as { points: [number, number][] }).points);
    expect(points().map(([, value]) => value)).toEqual([1200]);
    back.close();
    two.close();
  });

  test('a screen that missed too much is told to ask for everything anew', async () => {
    const word = await device('gap');
    const first = await listen();
    await first.until(() => first.events.length > 0);
    const { id } = first.events[0]!;
    first.close();
    await post(
      word,
      lines(...Array.from({ length: 4500 }, (_, n) => ({ id: `${n}`, ago: 0, value: 10 }))),
    ).expect(200);
    const back = await listen(id);
    await back.until(() => back.events.some(({ kind }) => kind === 'gap'));
    back.close();
  });
});
