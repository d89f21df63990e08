import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { routes } from '@wick/contract/api';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import type { OpenedDatabase } from '../repo/database.ts';
import { openEmpty } from '../test/database.ts';
import { createDeviceRepo } from '../repo/device-repo.ts';
import { createFactRepo } from '../repo/fact-repo.ts';
import { createAccessService, type AccessService } from '../services/access/access-service.ts';
import { createServices } from '../services/services.ts';
import { createApp } from './app.ts';
import { OWN_NAMES } from './guard.ts';

const PHRASE = 'gelcoat over seven rivers';
const HOST = 'shop.test';
let opened: OpenedDatabase;
let access: AccessService;
let app: Express;
let time = 0;

beforeAll(async () => {
  opened = await openEmpty();
  const first = createAccessService(createDeviceRepo(opened.database), createFactRepo(opened.database));
  await first.setPassPhrase(PHRASE);
  await createServices(opened.database).jobs.create({ name: 'Secret hull' });
});
afterAll(() => opened.close());

beforeEach(() => {
  time = Date.now();
  access = createAccessService(createDeviceRepo(opened.database), createFactRepo(opened.database), {
    now: () => time,
    steady: () => time,
  });
  app = createApp({
    ...createServices(opened.database),
    access,
    log: pino({ level: 'silent' }),
    ...{ hosts: new Set([...OWN_NAMES, HOST]), isOnNetwork: true, isSecure: false },
    backup: {
      backups: {} as never,
      passing: '',
      restore: () => Promise.reject(new Error('not here')),
    },
  });
});

type Method = 'get' | 'post' | 'put' | 'delete';
/** From another machine, as far as the server can tell: by the name it has on the network. */
const ask = (method: Method, path: string, cookie = '') =>
  request(app)[method](path).set('host', HOST).set('cookie', cookie);
const enter = (body: object) => ask('post', '/api/enter').send(body);
const cookieOf = (answer: { headers: Record<string, unknown> }) =>
  ((answer.headers['set-cookie'] as string[] | undefined)?.[0] ?? '').split(';')[0]!;
const letIn = async (name = 'Tablet') =>
  cookieOf(await enter({ by: 'passPhrase', passPhrase: PHRASE, name }).expect(204));
const auditOf = async (cookie: string) =>
  (await ask('get', '/api/audit', cookie).expect(200)).body.map((line: { what: string }) => line.what);

describe('on the network', () => {
  test('nothing is read or written by anyone who was not let in, by any route', async () => {
    const open = [routes.health, routes.getStanding, routes.enter] as { path: string }[];
    let refused = 0;
    for (const route of Object.values(routes)) {
      if (open.some(({ path }) => path === route.path)) continue;
      const path = route.path.replace(':id', 'any');
      for (const cookie of ['', 'wick=', 'wick=a.b', `wick=${'x'.repeat(5000)}`, 'wick=%00.%00']) {
        const answer = await ask(route.method.toLowerCase() as Method, path, cookie).send(
          route.body ? {} : undefined,
        );
        expect([401, 431]).toContain(answer.status);
        expect(answer.text).not.toContain('Secret hull');
        refused += 1;
      }
    }
    expect(refused).toBeGreaterThan(100);
    for (const path of ['/API/jobs', '/api//jobs', '/api/jobs/', '/api/../api/jobs'])
      expect((await ask('get', path)).text).not.toContain('Secret hull');
    expect((await ask('get', '/api/standing')).body).toEqual({
      kind: 'outside',
      name: null,
      isOnNetwork: true,
    });
  });

  test('the pass phrase lets a device in; its cookie is out of reach of pages, and of other sites', async () => {
    const answer = await enter({ by: 'passPhrase', passPhrase: PHRASE, name: 'Tablet' }).expect(204);
    expect(String(answer.headers['set-cookie'])).toMatch(/HttpOnly.*SameSite=Strict/);
    const cookie = cookieOf(answer);
    expect((await ask('get', '/api/jobs', cookie).expect(200)).body[0].name).toBe('Secret hull');
    expect((await ask('get', '/api/standing', cookie)).body).toMatchObject({ kind: 'full', name: 'Tablet' });
    await ask('post', '/api/leave', cookie).expect(204);
    await ask('get', '/api/jobs', cookie).expect(401);
  });

  test('on this machine itself nothing is asked; through something that passes requests on it is', async () => {
    await request(app).get('/api/jobs').expect(200);
    await request(app).get('/api/jobs').set('x-forwarded-for', '10.0.0.9').expect(401);
    await request(app).get('/api/jobs').set('forwarded', 'for=10.0.0.9').expect(401);
  });

  test('wrong pass phrases at speed get longer and longer waits, and the right one has to wait as well', async () => {
    const guess = (n: number) =>
      enter({ by: 'passPhrase', passPhrase: `guess number ${n}`, name: 'Guesser' });
    const answers = await Promise.all(Array.from({ length: 12 }, (_, n) => guess(n)));
    // One is looked at at a time; the others are not even tried.
    expect(answers.filter(({ status }) => status === 429).length).toBeGreaterThan(8);
    let tried = answers.filter(({ status }) => status === 401).length;
    for (let n = 0; n < 40; n++) if ((await guess(n)).status === 401) tried += 1;
    expect(tried).toBeLessThanOrEqual(5);
    const right = () => enter({ by: 'passPhrase', passPhrase: PHRASE, name: 'Owner' });
    await right().expect(429);
    time += 5000;
    await right().expect(204);
  });

  test('a code of six digits lets one device in, once, for five minutes', async () => {
    const cookie = await letIn();
    const { code } = (await ask('post', '/api/pairings', cookie).expect(200)).body as { code: string };
    expect(code).toMatch(/^\d{6}$/);
    const phone = cookieOf(await enter({ by: 'code', code, name: 'Phone' }).expect(204));
    await ask('get', '/api/jobs', phone).expect(200);
    await enter({ by: 'code', code, name: 'Second' }).expect(401);
    const late = (await ask('post', '/api/pairings', cookie)).body as { code: string };
    time += 6 * 60_000;
    await enter({ by: 'code', code: late.code, name: 'Late' }).expect(401);
  });

  test('a device is sent away at once, and both are on the list of who was let in', async () => {
    const [owner, lost] = [await letIn('Office'), await letIn('Lost phone')];
    const { body } = await ask('get', '/api/devices', owner).expect(200);
    const device = body.find(({ name }: { name: string }) => name === 'Lost phone');
    await ask('delete', `/api/devices/${device.id}`, owner).expect(204);
    await ask('get', '/api/jobs', lost).expect(401);
    await ask('delete', `/api/devices/${device.id}`, owner).expect(404);
    expect((await auditOf(owner)).slice(0, 3)).toEqual(['sent away', 'let in', 'let in']);
  });

  test('a word is exchanged each hour; a stolen one sends its device away when both are used', async () => {
    const first = await letIn('Bench');
    time += 2 * 3_600_000;
    // Two requests under way at once both get through; one brings the new word.
    const both = await Promise.all([ask('get', '/api/jobs', first), ask('get', '/api/jobs', first)]);
    expect(both.map(({ status }) => status)).toEqual([200, 200]);
    const next = both.map(cookieOf).find((cookie) => cookie !== '')!;
    expect(next).not.toBe(first);
    await ask('get', '/api/jobs', next).expect(200);
    time += 5 * 60_000;
    // The thief comes with the old one: owner and thief are both out.
    await ask('get', '/api/jobs', first).expect(401);
    await ask('get', '/api/jobs', next).expect(401);
    expect((await auditOf(await letIn()))[1]).toContain('used by someone else');
  });

  test('a device whose answer with the new word got lost on the way stays in', async () => {
    const first = await letIn('Flaky tablet');
    time += 2 * 3_600_000;
    await ask('get', '/api/jobs', first).expect(200);
    // The new word never arrived; an hour later it still shows the old one.
    time += 3_600_000;
    const next = cookieOf(await ask('get', '/api/jobs', first).expect(200));
    expect(next).not.toBe('');
    await ask('get', '/api/jobs', next).expect(200);
    // From here on the old one is a copy.
    time += 5 * 60_000;
    await ask('get', '/api/jobs', first).expect(401);
    await ask('get', '/api/jobs', next).expect(401);
  });

  test('a link lets screens look and nothing else, until it is taken back', async () => {
    const owner = await letIn();
    const { link } = (await ask('post', '/api/links', owner).send({ name: 'Wall' }).expect(200)).body as {
      link: string;
    };
    await ask('get', '/api/jobs', `wick=${link}`).expect(401);
    const wall = cookieOf(await enter({ by: 'link', link }).expect(204));
    const again = cookieOf(await enter({ by: 'link', link }).expect(204));
    const [job] = (await ask('get', '/api/jobs', wall).expect(200)).body;
    await ask('get', `/api/jobs/${job.id}`, again).expect(200);
    const refused = [
      ask('post', '/api/jobs', wall).send({ name: 'x' }),
      ask('delete', `/api/jobs/${job.id}?revision=1`, wall),
      ask('get', '/api/backup', wall),
      ask('get', '/API/backup', wall),
      ask('get', '/api/devices', wall),
      ask('get', '/api/audit', wall),
      ask('post', '/api/pairings', wall),
    ];
    for (const answer of await Promise.all(refused)) expect(answer.status).toBe(403);
    const { body } = await ask('get', '/api/devices', owner);
    const own = body.find(({ access: kind }: { access: string }) => kind === 'link');
    await ask('delete', `/api/devices/${own.id}`, owner).expect(204);
    await ask('get', '/api/jobs', wall).expect(401);
    await enter({ by: 'link', link }).expect(401);
  });
});

describe('pages of others', () => {
  const local = (method: Method, path: string) => request(app)[method](path);

  test('under a name that was turned to this address nothing is answered', async () => {
    for (const host of ['evil.test', 'evil.test:4173', '127.0.0.1.evil.test', '', 'localhost.evil.test']) {
      const answer = await local('get', '/api/jobs').set('host', host);
      expect(answer.status).toBe(403);
      expect(answer.text).not.toContain('Secret hull');
    }
  });

  test('of other origins neither read nor write, by no kind of content', async () => {
    const before = (await local('get', '/api/jobs')).body.length;
    const body = JSON.stringify({ name: 'Planted' });
    for (const headers of [
      { origin: 'http://evil.test' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' },
      { 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' },
    ])
      for (const type of ['text/plain', 'application/json', 'application/x-www-form-urlencoded']) {
        await local('post', '/api/jobs').set(headers).type(type).send(body).expect(403);
        await local('get', '/api/jobs').set(headers).expect(403);
      }
    // What a page can send without being asked has another type, and is not taken even without those marks.
    for (const type of ['text/plain', 'multipart/form-data', 'application/x-www-form-urlencoded'])
      await local('post', '/api/jobs').type(type).send(body).expect(415);
    expect((await local('get', '/api/jobs')).body).toHaveLength(before);
  });

  test('a link from elsewhere opens the program', async () => {
    const answer = await local('get', '/api/health').set({
      'sec-fetch-site': 'cross-site',
      'sec-fetch-mode': 'navigate',
    });
    expect(answer.status).toBe(200);
  });
});
