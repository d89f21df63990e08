import type { Entry, NewEntry } from '@wick/contract/run/run';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface Waiting extends DBSchema {
  entries: { key: number; value: { readonly runId: string; readonly entry: NewEntry } };
  photos: {
    key: number;
    value: { readonly runId: string; readonly photoId: string; readonly picture: Blob };
  };
  /** Of runs by their ids, what this device last knew. */
  copies: { key: string; value: readonly Entry[] };
}

/** Values in the order in which they were added, each under a key of its own. */
export interface DeviceStore<T> {
  readonly all: () => Promise<readonly { readonly key: number; readonly value: T }[]>;
  readonly add: (value: T) => Promise<number>;
  readonly remove: (keys: readonly number[]) => Promise<void>;
}

const NAME = 'wick outbox';

/** What waits to be sent, and what is known of runs, in the database of the browser. */
export function openDeviceStores(storage: Storage = localStorage) {
  const opened = open(storage);
  // Whoever asks is told.
  opened.catch(() => undefined);

  const storeOf = <N extends 'entries' | 'photos'>(name: N): DeviceStore<Waiting[N]['value']> => ({
    async all() {
      const tx = (await opened).transaction(name);
      const [keys, values] = await Promise.all([tx.store.getAllKeys(), tx.store.getAll()]);
      return values.map((value, n) => ({ key: keys[n]!, value }));
    },
    add: async (value) => (await opened).add(name, value),
    async remove(keys) {
      const tx = (await opened).transaction(name, 'readwrite');
      await Promise.all([...keys.map((key) => tx.store.delete(key)), tx.done]);
    },
  });
  return {
    entries: storeOf('entries'),
    photos: storeOf('photos'),
    copies: {
      read: async (runId: string) => (await (await opened).get('copies', runId)) ?? null,
      keep: async (runId: string, list: readonly Entry[]) => void (await (await opened).put('copies', list, runId)),
    },
  };
}

async function open(storage: Storage): Promise<IDBPDatabase<Waiting>> {
  const database = await openDB<Waiting>(NAME, 1, {
    upgrade(fresh) {
      for (const name of ['entries', 'photos'] as const) fresh.createObjectStore(name, { autoIncrement: true });
      fresh.createObjectStore('copies');
    },
  });
  await takeOver(database, storage);
  return database;
}

const EARLIER = 'wick outbox ';

/** Until now entries waited elsewhere in the browser, a list a run. */
async function takeOver(database: IDBPDatabase<Waiting>, storage: Storage): Promise<void> {
  for (const key of Object.keys(storage).filter((name) => name.startsWith(EARLIER))) {
    try {
      const list = JSON.parse(storage.getItem(key) ?? '[]') as NewEntry[];
      for (const entry of list) await database.add('entries', { runId: key.slice(EARLIER.length), entry });
    } catch {
      // What is garbled there was no entry.
    }
    storage.removeItem(key);
  }
}
