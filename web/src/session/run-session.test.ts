import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Entry, NewEntry, Run } from '@wick/contract/run/run';
import type { StreamKind } from '@wick/contract/run/stream';
import { createRandom } from '@wick/core/random';
import { effectScope, ref } from 'vue';
import { createOutbox } from './outbox.ts';
import { createRunSession } from './run-session.ts';

class NotReached extends Error {}
const isNotReached = (error: unknown) => error instanceof NotReached;

function memory() {
  const items = new Map<string, string>();
  return {
    items,
    getItem: (key: string) => items.get(key) ?? null,
    setItem: (key: string, value: string) => void items.set(key, value),
    removeItem: (key: string) => void items.delete(key),
  };
}

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
      const storage = memory();
      const told = new Set<string>();
      let sending = 0;
      const send = async (runId: string, entries: NewEntry[]) => {
        sending += 1;
        expect(sending).toBe(1);
        try {
          const luck = random();
          if (luck < 0.25) throw new NotReached();
          await new Promise((resolve) => setTimeout(resolve, 400 * random()));
          const answer = server.keep(runId, entries);
          // It was kept, and the answer is lost.
          if (luck < 0.5) throw new NotReached();
          return answer;
        } finally {
          sending -= 1;
        }
      };
      const parts = {
        runId: 'r',
        send,
        isNotReached,
        storage,
        onKept: (all: readonly Entry[]) => all.forEach(({ id }) => told.add(id)),
      };
      let outbox = createOutbox(parts);
      for (let n = 0; n < 60; n++) {
        outbox.say(note(`n${n}`));
        await settle(300 * random());
        if (random() < 0.1) {
          // The page is loaded anew: what waits is still there. One request may be under way.
          await settle(500);
          outbox.stop();
          outbox = createOutbox(parts);
          void outbox.flush();
        }
      }
      await settle(120_000);
      expect(server.kept.map(({ id }) => id)).toEqual(Array.from({ length: 60 }, (_, n) => `n${n}`));
      expect(outbox.waiting.value).toEqual([]);
      expect(told.size).toBe(60);
      expect(storage.items.size).toBe(0);
    }
  });

  test('one that is refused is named and does not hold up the others', async () => {
    const server = aServer();
    const refuseOdd = async (runId: string, entries: NewEntry[]) => {
      if (entries.some(({ id }) => id === 'odd')) throw new Error('The time lies ahead.');
      return server.keep(runId, entries);
    };
    let isDown = true;
    const send = async (runId: string, entries: NewEntry[]) => {
      if (isDown) throw new NotReached();
      return refuseOdd(runId, entries);
    };
    const outbox = createOutbox({
      runId: 'r',
      send,
      isNotReached,
      storage: memory(),
      onKept: () => undefined,
    });
    for (const id of ['a', 'odd', 'b']) outbox.say(note(id));
    await settle(10);
    expect(outbox.waiting.value).toHaveLength(3);
    isDown = false;
    await settle(5000);
    expect(server.kept.map(({ id }) => id)).toEqual(['a', 'b']);
    expect(outbox.refusal.value).toBe('The time lies ahead.');
    expect(outbox.waiting.value).toEqual([]);
  });

  test('without room on the device it goes on from the screen alone; what is garbled there is let go', async () => {
    const full = {
      ...memory(),
      setItem: () => {
        throw new Error('quota');
      },
    };
    const server = aServer();
    const outbox = createOutbox({
      runId: 'r',
      send: async (id, entries) => server.keep(id, entries),
      isNotReached,
      storage: full,
      onKept: () => undefined,
    });
    outbox.say(note('a'));
    await settle(10);
    expect(server.kept).toHaveLength(1);
    const garbled = { ...memory(), getItem: () => '{"x":' };
    expect(
      createOutbox({
        runId: 'r',
        send: async () => [],
        isNotReached,
        storage: garbled,
        onKept: () => undefined,
      }).waiting.value,
    ).toEqual([]);
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

function open(changes: { runs?: Run[]; kept?: Entry[] } = {}) {
  const server = aServer();
  server.kept.push(...(changes.kept ?? []));
  const stream = aStream();
  const runs = [...(changes.runs ?? [])];
  const scope = effectScope();
  const session = scope.run(() =>
    createRunSession('j', {
      ...{ storage: memory(), stream, isNotReached, name: ref('Ada') },
      listRuns: async () => [...runs],
      listEntries: async (runId) => server.kept.filter((entry) => entry.runId === runId),
      addRun: async (_job, run) => {
        await new Promise((resolve) => setTimeout(resolve, 30));
        const made = aRun(run.id, { ...run, number: runs.length + 1 });
        runs.unshift(made);
        return made;
      },
      send: async (runId, entries) => {
        await new Promise((resolve) => setTimeout(resolve, 50));
        return server.keep(runId, entries);
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
