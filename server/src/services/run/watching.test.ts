import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Entry, EntryBody, Limits, Run } from '@wick/contract/run/run';
import { demoJobs } from '@wick/plan/demo/jobs';
import { simulatedInstruments } from '@wick/plan/run/simulated';
import type { OpenedDatabase } from '../../repo/database.ts';
import { openEmpty } from '../../test/database.ts';
import { createServices, type Services } from '../services.ts';
import { createRehearsals } from './rehearsals.ts';
import { createWatching } from './watching.ts';

let opened: OpenedDatabase;
let services: Services;
let jobId: string;
const faults: unknown[] = [];

beforeAll(async () => {
  opened = await openEmpty();
  services = createServices(opened.database, undefined, (error) => faults.push(error));
  const gore = demoJobs.find(({ name }) => name === 'Dome gore 7')!;
  await services.moulds.write(0, {
    ...{ id: gore.mould!.id, name: 'Mould', material: '', plies: 8, condition: 'sound', history: [] },
  });
  jobId = (await services.jobs.importFile(JSON.stringify(gore))).id;
});
afterAll(async () => {
  services.stop();
  await opened.close();
});

const limits: Limits = { pressure: 5000, coldest: 288, warmest: 320, silence: 60 };
let count = 0;
const say = (run: Run, body: EntryBody, at = Date.now()) =>
  services.runs.append(run.id, 'tablet', [
    { id: `own-${++count}`, at: new Date(at).toISOString(), by: 'Ada', body },
  ]);
const alarmsOf = async (run: Run) =>
  (await services.runs.entriesOf(run.id)).filter(({ body }) => body.kind === 'alarm');
const start = (id: string, changes: Partial<Run> = {}) =>
  services.runs.add(jobId, { id, kind: 'part', speed: 1, seed: 3, ...changes });
const gauge = (id: string) =>
  services.instruments
    .add({ id, name: id, measures: 'absolutePressure', unit: 'mbar', resolution: 10, noise: 0, kind: 'hand' })
    .then(() => services.instruments.find(id));

test('a limit that is passed is called once, again when it was answered and goes on, and not after the watch', async () => {
  const run = await start('watched');
  const instrument = await gauge('bag-gauge');
  await say(run, { kind: 'attach', instrumentId: 'bag-gauge', place: 'bag' });
  await say(run, { kind: 'watch', watcher: 'Ada', limits });
  const read = (id: string, value: number) =>
    services.readings.append(instrument, [{ id, at: Date.now(), value }]);
  // The watch is taken up as soon as it was written down.
  await new Promise((resolve) => setTimeout(resolve, 50));
  await read('1', 3000);
  expect(await services.watching.look()).toBe(0);
  await read('2', 5200);
  expect(await services.watching.look()).toBe(1);
  expect(await services.watching.look()).toBe(0);
  const [alarm] = await alarmsOf(run);
  expect(alarm).toMatchObject({
    by: '',
    device: 'server',
    body: { kind: 'alarm', cause: 'pressure', instrumentId: 'bag-gauge', value: 5200, limit: 5000 },
  });
  await say(run, { kind: 'answered', alarmId: alarm!.id }, Date.now() - 6 * 60_000);
  expect(await services.watching.look()).toBe(1);
  const [, second] = await alarmsOf(run);
  await say(run, { kind: 'answered', alarmId: second!.id });
  expect(await services.watching.look()).toBe(0);
  await say(run, { kind: 'watchEnds' });
  await read('3', 50_000);
  expect(await services.watching.look()).toBe(0);
});

test('a gauge that falls silent is called, also after the server was started anew', async () => {
  const run = await start('silent');
  const instrument = await gauge('quiet-gauge');
  await say(run, { kind: 'attach', instrumentId: 'quiet-gauge', place: 'bag' }, Date.now() - 300_000);
  await services.readings.append(instrument, [{ id: '1', at: Date.now() - 200_000, value: 1000 }]);
  await say(run, { kind: 'watch', watcher: 'Ada', limits }, Date.now() - 250_000);
  const again = createServices(opened.database);
  await again.goOn();
  try {
    expect(await again.watching.look()).toBe(1);
    expect((await alarmsOf(run))[0]!.body).toMatchObject({ cause: 'silence', value: 1000, limit: 60 });
    await say(run, { kind: 'watchEnds' });
  } finally {
    again.stop();
  }
});

test('after a time in which this machine slept a gauge has its whole time again to be heard', async () => {
  const run = await start('slept');
  const instrument = await gauge('sleepy-gauge');
  await say(run, { kind: 'attach', instrumentId: 'sleepy-gauge', place: 'bag' }, Date.now() - 300_000);
  await services.readings.append(instrument, [{ id: '1', at: Date.now() - 5000, value: 1000 }]);
  await say(run, { kind: 'watch', watcher: 'Ada', limits }, Date.now() - 250_000);
  let ahead = 0;
  const own = createWatching({
    ...{ runs: services.runs, instrumentOf: services.instruments.find, lastOf: services.readings.lastOf },
    surroundings: () => Promise.resolve({ ambientPressure: 94_000, temperature: 293 }),
    onFault: (error) => faults.push(error),
    now: () => Date.now() + ahead,
  });
  await own.start();
  try {
    expect(await own.look()).toBe(0);
    ahead = 3_600_000;
    expect(await own.look()).toBe(0);
    // Looked at every few seconds since, and still nothing.
    for (let n = 0; n < 15; n++) {
      ahead += 4500;
      await own.look();
    }
    expect((await alarmsOf(run)).map(({ body }) => (body as { cause: string }).cause)).toEqual(['silence']);
    await say(run, { kind: 'watchEnds' });
  } finally {
    own.stop();
  }
});

test('once resin and hardener have met the thermometer is followed, and its moves are written down', async () => {
  const run = await start('curing');
  await services.instruments.add({
    ...{ id: 'mould-thermometer', name: 'On the mould', measures: 'temperature', unit: '°C' },
    ...{ resolution: 0.1, noise: 0, kind: 'hand' },
  });
  const instrument = await services.instruments.find('mould-thermometer');
  await say(run, { kind: 'attach', instrumentId: 'mould-thermometer', place: 'mould' });
  const warmths = async () =>
    (await services.runs.entriesOf(run.id)).flatMap(({ body }) =>
      body.kind === 'warmth' ? [body.temperature] : [],
    );
  await services.readings.append(instrument, [{ id: '1', at: Date.now(), value: 295 }]);
  await services.watching.look();
  expect(await warmths()).toEqual([]);
  await say(run, { kind: 'mixed', mass: null });
  await new Promise((resolve) => setTimeout(resolve, 50));
  await services.watching.look();
  await services.readings.append(instrument, [{ id: '2', at: Date.now() + 1, value: 295.2 }]);
  await services.watching.look();
  await services.readings.append(instrument, [{ id: '3', at: Date.now() + 2, value: 297 }]);
  await services.watching.look();
  expect(await warmths()).toEqual([295, 297]);
});

async function passRehearsal(seconds: number): Promise<void> {
  const end = Date.now() + seconds * 1000;
  while (Date.now() < end) {
    await services.rehearsals.pass();
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

test('a rehearsal’s own instruments post; a dying pump is called by the watch', async () => {
  const run = await start('rehearsed', { kind: 'rehearsal', speed: 60 });
  await services.rehearsals.start(run);
  await services.rehearsals.start(run);
  const attached = (await services.runs.entriesOf(run.id)).filter(({ body }) => body.kind === 'attach');
  expect(attached).toHaveLength(6);
  const clock = () => Date.parse(run.startedAt) + 60 * (Date.now() - Date.parse(run.startedAt));
  await say(run, { kind: 'pull' }, clock());
  await passRehearsal(3);
  const [absolute] = simulatedInstruments(run);
  expect(services.readings.lastOf(absolute!.id)!.value).toBeLessThan(4000);
  await say(
    run,
    { kind: 'watch', watcher: 'Ada', limits: { ...limits, pressure: 4000, silence: 600 } },
    clock(),
  );
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(await services.watching.look()).toBe(0);
  await say(run, { kind: 'trouble', what: 'leak', placeId: 'pot:catch', amount: 3 }, clock());
  await say(run, { kind: 'trouble', what: 'pumpDies', placeId: null, amount: 0 }, clock());
  await passRehearsal(2);
  await services.watching.look();
  const causes = (await alarmsOf(run)).map(({ body }) => (body as { cause: string }).cause);
  expect(causes).toContain('pressure');
});

test('one that is begun anew from its log keeps the readings it had, and adds to them', async () => {
  const run = await services.runs.find('rehearsed');
  const [absolute] = simulatedInstruments(run);
  const { number } = await services.instruments.find(absolute!.id);
  const before = await services.readings.samples(number, 0, 8e12, 4000);
  const again = createServices(opened.database, undefined, (error) => faults.push(error));
  await again.goOn();
  try {
    for (let n = 0; n < 15; n++) {
      await again.rehearsals.pass();
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  } finally {
    again.stop();
  }
  const after = await services.readings.samples(number, 0, 8e12, 4000);
  expect(after.count).toBeGreaterThan(before.count);
  before.ats.forEach((at, n) => {
    const where = after.ats.indexOf(at);
    expect(after.values[where]).toBe(before.values[n]);
  });
  expect(faults).toEqual([]);
});

test('one that nobody comes back to ends, at the next look or when it is found after a restart', async () => {
  let ahead = 0;
  const own = createRehearsals({
    ...services,
    about: async () => ({
      job: (await services.jobs.get(jobId)).document,
      shop: (await services.shop.getShop()).shop,
      mould: null,
    }),
    onFault: (error) => faults.push(error),
    now: () => Date.now() + ahead,
  });
  const run = await start('alone', { kind: 'rehearsal', speed: 60 });
  await own.start(run);
  ahead = 20 * 60_000;
  await own.pass();
  expect((await services.runs.find('alone')).endedAt).toBeNull();
  // 5000 readings at four a second.
  ahead = 22 * 60_000;
  await own.pass();
  expect((await services.runs.find('alone')).endedAt).not.toBeNull();
  own.stop();

  const found = await start('found', { kind: 'rehearsal', speed: 60 });
  const late = createRehearsals({
    ...services,
    about: () => Promise.reject(new Error('not asked')),
    onFault: (error) => faults.push(error),
    now: () => Date.now() + ahead,
  });
  await late.start(found);
  expect((await services.runs.find('found')).endedAt).not.toBeNull();
  late.stop();
});

test('of many the one left alone longest ends, watch and all, and makes room', async () => {
  const made: Run[] = [];
  for (let n = 0; n < 5; n++) {
    made.push(await start(`many-${n}`, { kind: 'rehearsal', speed: 60 }));
    await services.rehearsals.start(made[n]!);
    if (n === 0) await say(made[0]!, { kind: 'watch', watcher: 'Ada', limits });
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  const ended = await Promise.all(
    made.map(async ({ id }) => (await services.runs.find(id)).endedAt !== null),
  );
  expect(ended).toEqual([true, false, false, false, false]);
  const said = (await services.runs.entriesOf('many-0')).map(({ body }) => body.kind);
  expect(said.at(-1)).toBe('watchEnds');
});

test('a deleted job’s rehearsal ends without harming the others', async () => {
  const run = await start('gone', { kind: 'rehearsal', speed: 60 });
  await services.rehearsals.start(run);
  await opened.database.execute("delete from runs where id = 'gone'");
  await new Promise((resolve) => setTimeout(resolve, 1200));
  await services.rehearsals.pass();
  expect(faults).toHaveLength(1);
  await services.rehearsals.pass();
  expect(faults).toHaveLength(1);
});

test('entries at the same time stand in the order they came in', async () => {
  const run = await start('order');
  const at = new Date().toISOString();
  const sent = Array.from({ length: 50 }, (_, n) => ({
    id: `n${n}`,
    at,
    by: '',
    body: { kind: 'note', text: `${n}` } as EntryBody,
  }));
  await Promise.all(
    Array.from({ length: 5 }, (_, n) =>
      services.runs.append(run.id, `device ${n}`, sent.slice(n * 10, n * 10 + 10)),
    ),
  );
  const kept: Entry[] = await services.runs.entriesOf(run.id);
  expect(kept).toHaveLength(50);
  expect(kept.map(({ order }) => order)).toEqual([...kept.map(({ order }) => order)].sort((a, b) => a - b));
});

test('a clock is called when it is due, once, also by a server that was started in between; warmth moves it', async () => {
  const run = await start('clocked', { kind: 'rehearsal', speed: 60 });
  const clock = () => Date.parse(run.startedAt) + 60 * (Date.now() - Date.parse(run.startedAt));
  const dues = async () =>
    (await services.runs.entriesOf('clocked')).flatMap(({ body, by, device }) =>
      body.kind === 'due' ? [[body.what, by, device]] : [],
    );
  const slides = { temperature: 293.15, activationEnergy: 60_000 };
  const bare = { kind: 'timer', stepId: null, endsWith: null } as const;
  await say(run, { ...bare, word: 'Gel coat', opens: 120, closes: 86_400, slides }, clock());
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(await services.watching.look()).toBe(0);
  const again = createServices(opened.database);
  await again.goOn();
  try {
    // Two minutes at 20 C take less than three at the workshop's own, and 60 times as quick a few seconds on the wall.
    for (let n = 0; n < 60 && (await dues()).length === 0; n++) {
      await new Promise((resolve) => setTimeout(resolve, 100));
      await again.watching.look();
    }
  } finally {
    again.stop();
  }
  expect(await dues()).toEqual([['opens', '', 'server']]);
  await services.watching.look();
  expect(await dues()).toHaveLength(1);
});

test('a thermometer at the mould is written down while a clock slides with it, and only where it has moved', async () => {
  const run = await start('warmed');
  const instrument = await services.instruments
    .add({
      id: 'mould-heat',
      name: 'Mould',
      measures: 'temperature',
      unit: '°C',
      resolution: 0.1,
      noise: 0,
      kind: 'hand',
    })
    .then(() => services.instruments.find('mould-heat'));
  await say(run, { kind: 'attach', instrumentId: 'mould-heat', place: 'mould' });
  await say(run, {
    ...{ kind: 'timer', word: 'Skin coat', stepId: null, endsWith: null, opens: 7200, closes: null },
    slides: { temperature: 293.15, activationEnergy: 60_000 },
  });
  await new Promise((resolve) => setTimeout(resolve, 50));
  const told = async () =>
    (await services.runs.entriesOf('warmed')).flatMap(({ body }) =>
      body.kind === 'warmth' ? [body.temperature] : [],
    );
  for (const [n, value] of [295, 295.2, 298].entries()) {
    await services.readings.append(instrument, [{ id: `${n}`, at: Date.now() + n, value }]);
    await services.watching.look();
  }
  expect(await told()).toEqual([295, 298]);
});
