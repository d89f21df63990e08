import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { beforeEach, expect, test } from '@jest/globals';
import type { Entry, NewEntry } from '@wick/contract/run/run';
import { openDeviceStores } from './device-stores.ts';

const note = (id: string): NewEntry => ({ id, at: '2026-03-14T09:00:00Z', by: 'Ada', body: { kind: 'note', text: id } });

/** As browsers have it: what is kept there are its own keys. */
function aStorage(items: Record<string, string> = {}): Storage {
  const own: Record<string, unknown> = { ...items };
  Object.defineProperties(own, {
    getItem: { value: (key: string) => own[key] ?? null },
    removeItem: { value: (key: string) => delete own[key] },
  });
  return own as unknown as Storage;
}

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

test('what is added comes back in its order, also to another page, until it is removed', async () => {
  const { entries, photos } = openDeviceStores(aStorage());
  const keys = [];
  for (const id of ['a', 'b', 'c']) keys.push(await entries.add({ runId: 'r', entry: note(id) }));
  await photos.add({ runId: 'r', photoId: 'p', picture: new Blob(['x']) });
  const another = openDeviceStores(aStorage());
  expect((await another.entries.all()).map(({ value }) => value.entry.id)).toEqual(['a', 'b', 'c']);
  expect((await another.photos.all()).map(({ value }) => value.photoId)).toEqual(['p']);
  await another.entries.remove([keys[1]!]);
  expect((await entries.all()).map(({ key }) => key)).toEqual([keys[0], keys[2]]);
});

test('what waited in the browser before comes along, once; what is garbled there is let go', async () => {
  const storage = aStorage({
    'wick outbox r1': JSON.stringify([note('a'), note('b')]),
    'wick outbox r2': '{"x":',
    'wick name': 'Ada',
  });
  const { entries } = openDeviceStores(storage);
  expect((await entries.all()).map(({ value }) => [value.runId, value.entry.id])).toEqual([
    ['r1', 'a'],
    ['r1', 'b'],
  ]);
  expect(Object.keys(storage)).toEqual(['wick name']);
  expect(await openDeviceStores(storage).entries.all()).toHaveLength(2);
});

test('of each run the last copy is kept', async () => {
  const { copies } = openDeviceStores(aStorage());
  const entry: Entry = { ...note('a'), runId: 'r', order: 1, writtenAt: '', device: 'tablet' };
  expect(await copies.read('r')).toBeNull();
  await copies.keep('r', [entry]);
  await copies.keep('r', [entry, { ...entry, id: 'b' }]);
  expect((await copies.read('r'))!.map(({ id }) => id)).toEqual(['a', 'b']);
});

test('a browser without a database refuses, and whoever asks is told', async () => {
  globalThis.indexedDB = {
    open: () => {
      throw new Error('not allowed here');
    },
  } as unknown as IDBFactory;
  const { entries, copies } = openDeviceStores(aStorage());
  await expect(entries.all()).rejects.toThrow('not allowed here');
  await expect(copies.read('r')).rejects.toThrow('not allowed here');
});
