import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Entry, NewEntry, Run } from '@wick/contract/run/run';
import type { StreamKind } from '@wick/contract/run/stream';
import { createRandom } from '@wick/core/random';
import { effectScope, ref } from 'vue';
import { createOutbox, type WaitingEntry, type WaitingPhoto } from './outbox.ts';
import { createRunSession } from './run-session.ts';

class NotReached extends Error {}
const isPassing = (error: unknown) => error instanceof NotReached;

/** A store of a device that takes its time. */
function aStore<T>(delay: () => number = () => 0) {
  const items: { key: number; value: T }[] = [];
  let last = 0;
  const wait = () => new Promise((resolve) => setTimeout(resolve, delay()));
  return {
    items,
    async all() {
      await wait();
      return [...items];
    },
    async add(value: T) {
      await wait();
      items.push({ key: ++last, value });
      return last;
    },
    async remove(keys: readonly number[]) {
      await wait();
      for (const key of keys)
        items.splice(
          items.findIndex((item) => item.key === key),
          1,
        );
    },
  };
}
const noPhoto = () => Promise.reject(new Error('none'));
const copies = { read: async () => null, keep: async () => undefined };

/** A server that keeps entries once, in the order they come in. */
function aServer() {
  const kept: Entry[] = [];
  function keep(runId: string, sent: readonly NewEntry[]): Entry[] {
    for (const entry of sent)
      if (!kept.some(({ id }) => id === entry.id))
        kept.push({ ...entry, runId, order: kept.length + 1, writtenAt: entry.at, device: 'tablet' });
    return kept.filter(({ id }) => sent.some((one) => one.id === id));
  }
  return { kept, keep };
}

const note = (id: string): NewEntry => ({
  id,
  at: '2026-03-14T09:00:00Z',
  by: 'Ada',
  body: { kind: 'note', text: id },
});

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());
const settle = async (ms = 0) => {
  await jest.advanceTimersByTimeAsync(ms);
};

describe('the outbox', () => {
  test('through a network that fails, answers late or not at all, every entry arrives once and in order', async () => {
    for (let seed = 1; seed <= 15; seed++) {
      const random = createRandom(seed);
      const server = aServer();
      const entries = aStore<WaitingEntry>(() => 60 * random());
      const told = new Set<string>();
      const open = () => {
        let sending = 0;
        const send = async (runId: string, list: NewEntry[]) => {
          // One request at a time of a page; one of the page before may still be under way.
          expect(++sending).toBe(1);
          try {
            const luck = random();
            if (luck < 0.25) throw new NotReached();
            await new Promise((resolve) => setTimeout(resolve, 400 * random()));
            const answer = server.keep(runId, list);
            // It was kept, and the answer is lost.
            if (luck < 0.5) throw new NotReached();
            return answer;
          } finally {
            sending -= 1;
          }
        };
        const outbox = createOutbox({ entries, photos: aStore(), send, sendPhoto: noPhoto, isPassing });
        outbox.onKept((all) => all.forEach(({ id }) => told.add(id)));
        outbox.flush();
        return outbox;
      };
      let outbox = open();
      for (let n = 0; n < 60; n++) {
        // Of two runs, as they come.
        void outbox.say(n % 7 === 3 ? 'other' : 'r', note(`n${n}`));
        await settle(300 * random());
        if (random() < 0.1) {
          // The page is loaded anew: what waits is still there.
          await settle(600);
          outbox.stop();
          outbox = open();
        }
      }
      await settle(200_000);
      expect(server.kept.map(({ id }) => id)).toEqual(Array.from({ length: 60 }, (_, n) => `n${n}`));
      expect(
        server.kept.every(({ id, runId }) => (Number(id.slice(1)) % 7 === 3) === (runId === 'other')),
      ).toBe(true);
      expect(outbox.waitingCount.value).toBe(0);
      expect(told.size).toBe(60);
      expect(entries.items).toEqual([]);
    }
  });

  test('what another page left behind since is taken up and sent, before what is said here', async () => {
    const server = aServer();
    const entries = aStore<WaitingEntry>();
    const send = async (id: string, list: NewEntry[]) => server.keep(id, list);
    const outbox = createOutbox({ entries, photos: aStore(), send, sendPhoto: noPhoto, isPassing });
    await settle(10);
    void entries.add({ runId: 'r', entry: note('left') });
    await settle(10);
    outbox.flush();
    await settle(10);
    void outbox.say('r', note('own'));
    await settle(10);
    expect(server.kept.map(({ id }) => id)).toEqual(['left', 'own']);
    expect([outbox.waitingCount.value, entries.items]).toEqual([0, []]);
  });

  test('one that is refused is named and does not hold up the others', async () => {
    const server = aServer();
    let isDown = true;
    const send = async (runId: string, list: NewEntry[]) => {
      if (isDown) throw new NotReached();
      if (list.some(({ id }) => id === 'odd')) throw new Error('The time lies ahead.');
      return server.keep(runId, list);
    };
    const outbox = createOutbox({
      entries: aStore(),
      photos: aStore(),
      send,
      sendPhoto: noPhoto,
      isPassing,
    });
    for (const id of ['a', 'odd', 'b']) void outbox.say('r', note(id));
    await settle(10);
    expect(outbox.waitingEntries.value).toHaveLength(3);
    isDown = false;
    await settle(5000);
    expect(server.kept.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(outbox.refusal.value).toBe('The time lies ahead.');
    expect(outbox.waitingEntries.value).toEqual([]);
  });

  test('without room on the device it goes on from the screen alone, and says so', async () => {
    const full = { ...aStore<WaitingEntry>(), add: () => Promise.reject(new Error('quota')) };
    const shut = { ...aStore<WaitingEntry>(), all: () => Promise.reject(new Error('no database')) };
    for (const entries of [full, shut]) {
      const server = aServer();
      const send = async (id: string, list: NewEntry[]) => server.keep(id, list);
      const outbox = createOutbox({ entries, photos: aStore(), send, sendPhoto: noPhoto, isPassing });
      void outbox.say('r', note('a'));
      await settle(10);
      expect(server.kept).toHaveLength(1);
      expect(outbox.isOnDevice.value).toBe(false);
    }
  });

  test('pictures wait beside the entries: they hold up none, and are sent one at a time until they are answered', async () => {
    const server = aServer();
    const sent: string[] = [];
    let isDown = true;
    const outbox = createOutbox({
      ...{ entries: aStore<WaitingEntry>(), photos: aStore<WaitingPhoto>(), isPassing },
      send: async (id, list) => server.keep(id, list),
      async sendPhoto(runId, photoId) {
        await new Promise((resolve) => setTimeout(resolve, 300));
        if (isDown) throw new NotReached();
        sent.push(photoId);
        return { id: photoId, runId, width: 1, height: 1, byteCount: 1 };
      },
    });
    for (const photoId of ['p1', 'p2']) outbox.takePhoto({ runId: 'r', photoId, picture: new Blob(['x']) });
    void outbox.say('r', note('a'));
    await settle(1000);
    expect([server.kept.length, outbox.waitingCount.value]).toEqual([1, 2]);
    isDown = false;
    await settle(10_000);
    expect([sent, outbox.waitingCount.value]).toEqual([['p1', 'p2'], 0]);
  });
});

function aStream() {
  const listeners = new Map<StreamKind, ((data: never) => void)[]>();
  return {
    now: () => Date.parse('2026-03-14T09:10:00Z'),
    on(kind: StreamKind, listener: (data: never) => void) {
      listeners.set(kind, [...(listeners.get(kind) ?? []), listener]);
      return () => undefined;
    },
    tell: (kind: StreamKind, data: unknown) =>
      listeners.get(kind)?.forEach((listener) => listener(data as never)),
  };
}

const aRun = (id: string, changes: Partial<Run> = {}): Run => ({
  ...{
    id,
    jobId: 'j',
    number: 1,
    kind: 'part',
    speed: 1,
    seed: 0,
    startedAt: '2026-03-14T09:00:00Z',
    endedAt: null,
  },
  ...changes,
});

function open(
  changes: { runs?: Run[]; kept?: Entry[]; isCut?: () => boolean; known?: Entry[]; lookedAt?: string } = {},
) {
  const server = aServer();
  server.kept.push(...(changes.kept ?? []));
  const stream = aStream();
  const runs = [...(changes.runs ?? [])];
  const scope = effectScope();
  const outbox = createOutbox({
    ...{ entries: aStore<WaitingEntry>(), photos: aStore<WaitingPhoto>(), sendPhoto: noPhoto, isPassing },
    async send(runId, entries) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      if (changes.isCut?.()) throw new NotReached();
      return server.keep(runId, entries);
    },
  });
  const session = scope.run(() =>
    createRunSession('j', {
      ...{ outbox, stream, name: ref('Ada') },
      copies: { ...copies, read: async () => changes.known ?? null },
      lookedAt: { read: () => changes.lookedAt ?? null, keep: () => undefined },
      listRuns: async () => [...runs],
      async listEntries(runId) {
        if (changes.isCut?.()) throw new NotReached('The server does not answer.');
        return server.kept.filter((entry) => entry.runId === runId);
      },
      addRun: async (_job, run) => {
        await new Promise((resolve) => setTimeout(resolve, 30));
        const made = aRun(run.id, { ...run, number: runs.length + 1 });
        runs.unshift(made);
        return made;
      },
    }),
  )!;
  return { session, server, stream, scope };
}

describe('a run on the screen', () => {
  test('the first thing said begins the first part; it stands at once, and once when the stream tells it too', async () => {
    const { session, server, stream, scope } = open();
    await session.load();
    expect(session.run.value).toBeNull();
    const saying = session.say({ kind: 'pull' });
    await settle(40);
    await saying;
    expect(session.run.value).toMatchObject({ kind: 'part', number: 1 });
    expect(session.state.value.valve).toBe('pull');
    expect(session.waitingCount.value).toBe(1);
    await settle(100);
    expect(server.kept).toHaveLength(1);
    expect(server.kept[0]).toMatchObject({ by: 'Ada', body: { kind: 'pull' } });
    stream.tell('entry', server.kept[0]);
    expect(session.entries.value).toHaveLength(1);
    expect(session.waitingCount.value).toBe(0);
    scope.stop();
  });

  test('what other screens say comes in whatever the order, of this run alone', async () => {
    const { session, stream, scope } = open({ runs: [aRun('r')] });
    await session.load();
    await settle(10);
    const told = (order: number, runId = 'r'): Entry => ({
      ...note(`o${order}`),
      runId,
      order,
      writtenAt: '',
      device: 'phone',
    });
    for (const entry of [told(3), told(1), told(2, 'other'), told(1)]) stream.tell('entry', entry);
    expect(session.entries.value.map(({ id }) => id)).toEqual(['o1', 'o3']);
    scope.stop();
  });

  test('after a gap all of it is asked for anew; a run that another screen began is offered', async () => {
    const { session, server, stream, scope } = open({ runs: [aRun('r')] });
    await session.load();
    await settle(10);
    server.keep('r', [note('missed')]);
    stream.tell('gap', {});
    await settle(10);
    expect(session.entries.value.map(({ id }) => id)).toEqual(['missed']);
    stream.tell('run', aRun('second', { number: 2 }));
    stream.tell('run', aRun('elsewhere', { jobId: 'another' }));
    expect(session.runs.value.map(({ id }) => id)).toEqual(['second', 'r']);
    session.choose('second');
    await settle(10);
    expect(session.entries.value).toEqual([]);
    scope.stop();
  });

  test('what is said while a run is being made is said in it, and no other is begun', async () => {
    const { session, server, scope } = open({ runs: [aRun('r')] });
    await session.load();
    const beginning = session.begin('rehearsal', 1);
    const saying = session.say({ kind: 'pull' });
    await settle(200);
    const made = await beginning;
    await saying;
    expect(session.runs.value.map(({ kind }) => kind)).toEqual(['rehearsal', 'part']);
    expect(server.kept.map(({ runId }) => runId)).toEqual([made!.id]);
    scope.stop();
  });

  test('without the network it shows what the device last knew, and what is said meanwhile', async () => {
    let isCut = true;
    const known: Entry[] = [{ ...note('known'), runId: 'r', order: 1, writtenAt: '', device: 'tablet' }];
    const { session, server, scope } = open({ runs: [aRun('r')], known, isCut: () => isCut });
    await session.load();
    await settle(10);
    await session.say({ kind: 'pull' });
    await settle(200);
    expect(session.entries.value.map(({ body }) => body.kind)).toEqual(['note', 'pull']);
    expect([session.waitingCount.value, server.kept.length]).toEqual([1, 0]);
    isCut = false;
    await settle(3000);
    expect([session.waitingCount.value, server.kept.length]).toEqual([0, 1]);
    expect(session.state.value.valve).toBe('pull');
    scope.stop();
  });

  test('a device comes back to the run it looked at, else to the part, whatever was rehearsed beside it since', async () => {
    const runs = [
      aRun('rehearsed', { kind: 'rehearsal', number: 3 }),
      aRun('second', { number: 2 }),
      aRun('first'),
    ];
    for (const [lookedAt, expected] of [
      [undefined, 'second'],
      ['first', 'first'],
      ['rehearsed', 'rehearsed'],
      ['gone', 'second'],
    ] as const) {
      const { session, scope } = open({ runs, ...(lookedAt ? { lookedAt } : {}) });
      await session.load();
      expect(session.run.value?.id).toBe(expected);
      scope.stop();
    }
    const { session, scope } = open({ runs: [runs[0]!] });
    await session.load();
    expect(session.run.value?.id).toBe('rehearsed');
    scope.stop();
  });

  test('the clock of a rehearsal is its own', async () => {
    const { session, server, scope } = open({ runs: [aRun('r', { kind: 'rehearsal', speed: 60 })] });
    await session.load();
    await session.say({ kind: 'pull' });
    await settle(100);
    // Ten minutes after its start, sixty times as quick.
    expect(server.kept[0]!.at).toBe('2026-03-14T19:00:00.000Z');
    scope.stop();
  });
});
