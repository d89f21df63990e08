import { IDBFactory } from 'fake-indexeddb';
import 'fake-indexeddb/auto';
import type { Entry, NewEntry } from '@wick/contract/run/run';
import { createRandom } from '@wick/core/random';
import { expect, test } from '@playwright/test';
import { openDeviceStores } from '../web/src/data/device-stores.ts';
import { createOutbox, type Outbox } from '../web/src/session/outbox.ts';
import { newFolder, startServer, type RunningServer } from './support/server.ts';

const PORT = 4395;
const DEVICES = 3;
const EACH = [167, 167, 166];
const KILLS = 4;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

class NotReached extends Error {}
const storage = { getItem: () => null, removeItem: () => undefined } as unknown as Storage;

/** A screen of the workshop: the outbox and the database of the program itself, on a network that is cut at times. */
function aDevice(url: string, runId: string, name: string) {
  const database = new IDBFactory();
  let isCut = false;
  async function send(id: string, entries: NewEntry[]): Promise<Entry[]> {
    if (isCut) throw new NotReached();
    const answer = await fetch(`${url}/api/runs/${id}/entries`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ entries }),
    }).catch(() => null);
    // The answer may be lost on its way back.
    const text = await answer?.text().catch(() => null);
    if (!answer || text == null || isCut || answer.status >= 500) throw new NotReached();
    if (!answer.ok) throw new Error(`${answer.status} ${text}`);
    return JSON.parse(text) as Entry[];
  }
  function open(): Outbox {
    globalThis.indexedDB = database;
    const { entries, photos } = openDeviceStores(storage);
    const opened = createOutbox({
      ...{ entries, photos, send },
      sendPhoto: () => Promise.reject(new NotReached()),
      isPassing: (error) => error instanceof NotReached,
    });
    opened.flush();
    return opened;
  }
  let outbox = open();
  let onDevice: Promise<unknown> = Promise.resolve();
  return {
    say: (n: number) =>
      (onDevice = outbox.say(runId, {
        ...{ id: `${name}-${n}`, at: new Date().toISOString(), by: name },
        body: { kind: 'note', text: `${name} ${n}` },
      })),
    setCut: (to: boolean) => (isCut = to),
    /** The page is loaded anew, once what was said is on the device. */
    async reload() {
      await onDevice;
      outbox.stop();
      outbox = open();
    },
    left: () => outbox.waitingCount.value,
    refusal: () => outbox.refusal.value,
    stop: () => outbox.stop(),
  };
}

test('500 entries of three devices, the network cut and the server killed at random: each kept once, in order, none lost', async () => {
  test.setTimeout(240_000);
  const random = createRandom(11);
  const folder = newFolder();
  let server: RunningServer = await startServer(folder, PORT);
  const { url } = server;
  const ask = async <T>(path: string, body?: unknown): Promise<T> =>
    (await (
      await fetch(`${url}${path}`, {
        method: body === undefined ? 'GET' : 'POST',
        headers: { 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      })
    ).json()) as T;
  const [job] = await ask<{ id: string }[]>('/api/jobs');
  await ask(`/api/jobs/${job!.id}/runs`, { id: 'besieged', kind: 'part', speed: 1, seed: 1 });
  const devices = Array.from({ length: DEVICES }, (_, n) => aDevice(url, 'besieged', `device${n}`));

  let [said, kills] = [0, 0];
  /** So many are said at most before the next kill: each falls into the midst of the writing, however slow the machine. */
  const BETWEEN = 110;
  const writers = devices.map(async (device, d) => {
    for (let n = 0; n < EACH[d]!; n++) {
      while (kills < KILLS && said >= (kills + 1) * BETWEEN) await pause(20);
      device.say(n);
      said += 1;
      await pause(60 * random());
      if (random() < 0.04) device.setCut(true);
      else if (random() < 0.2) device.setCut(false);
      if (random() < 0.03) await device.reload();
    }
    device.setCut(false);
  });
  while (kills < KILLS) {
    const next = (kills + 0.3 + 0.7 * random()) * BETWEEN;
    while (said < next) await pause(5);
    await server.kill();
    kills += 1;
    server = await startServer(folder, PORT);
  }
  await Promise.all(writers);
  await expect.poll(() => devices.map((device) => device.left()), { timeout: 60_000 }).toEqual([0, 0, 0]);
  expect(devices.map((device) => device.refusal())).toEqual([null, null, null]);

  const kept = await ask<Entry[]>('/api/runs/besieged/entries');
  expect(kept).toHaveLength(500);
  expect(new Set(kept.map(({ id }) => id)).size).toBe(500);
  kept.forEach(({ order }, n) => n > 0 && expect(order).toBeGreaterThan(kept[n - 1]!.order));
  for (const [d, count] of EACH.entries())
    expect(kept.filter(({ by }) => by === `device${d}`).map(({ id }) => id)).toEqual(
      Array.from({ length: count }, (_, n) => `device${d}-${n}`),
    );
  devices.forEach((device) => device.stop());
  await server.kill();
});
