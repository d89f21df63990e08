import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { demoJobs } from '@wick/contract/demo/jobs';
import type { StoredJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import { createPinia, setActivePinia } from 'pinia';
import { useJobStore } from './job-store.ts';

/** A server in a few lines: keeps one job, checks revisions, can be switched off. */
function fakeServer(document: Job) {
  const state = { revision: 1, document, isUp: true, writes: 0 };
  const stored = (): StoredJob => ({
    id: 'j',
    revision: state.revision,
    changedAt: '2026-01-01T10:00:00Z',
    document: state.document,
  });
  const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });
  const fetchFake = async (_path: unknown, options: RequestInit = {}): Promise<Response> => {
    if (!state.isUp) throw new TypeError('connection refused');
    if (options.method !== 'PUT') return answer(200, stored());
    state.writes += 1;
    const sent = JSON.parse(String(options.body)) as { revision: number; document: Job };
    if (sent.revision !== state.revision)
      return answer(409, {
        code: 'STALE',
        title: 'Stale',
        status: 409,
        detail: 'Changed elsewhere.',
        current: stored(),
      });
    state.revision += 1;
    state.document = sent.document;
    return answer(200, stored());
  };
  return { state, fetchFake };
}

function fakeStorage() {
  const items = new Map<string, string>();
  return {
    items,
    getItem: (key: string) => items.get(key) ?? null,
    setItem: (key: string, value: string) => void items.set(key, value),
    removeItem: (key: string) => void items.delete(key),
  };
}

const rename = (name: string) => (job: Job) => ({ ...job, name });
let server: ReturnType<typeof fakeServer>;
let storage: ReturnType<typeof fakeStorage>;

beforeEach(() => {
  jest.useFakeTimers();
  setActivePinia(createPinia());
  server = fakeServer(demoJobs[0]!);
  storage = fakeStorage();
  Object.assign(globalThis, { fetch: server.fetchFake, localStorage: storage });
});
afterEach(() => {
  jest.useRealTimers();
});

async function opened() {
  const job = useJobStore();
  await job.open('j');
  return job;
}
const rest = (ms = 5000) => jest.advanceTimersByTimeAsync(ms);

describe('undo', () => {
  test('each change is a step; undo and redo walk them; a new change drops what was undone', async () => {
    const job = await opened();
    job.apply(rename('A'));
    job.apply(rename('B'));
    job.undo();
    expect(job.document!.name).toBe('A');
    job.undo();
    expect(job.document).toEqual(demoJobs[0]);
    expect(job.canUndo).toBe(false);
    job.redo();
    expect(job.document!.name).toBe('A');
    job.apply(rename('C'));
    expect(job.canRedo).toBe(false);
    await rest();
    expect(server.state.document.name).toBe('C');
  });

  test('a gesture of many moves is one step, and can be given up', async () => {
    const job = await opened();
    for (const name of ['1', '2', '3']) job.preview(rename(name));
    expect(job.isGesturing).toBe(true);
    job.undo();
    expect(job.document!.name).toBe('3');
    job.endGesture();
    job.undo();
    expect(job.document).toEqual(demoJobs[0]);
    job.preview(rename('4'));
    job.endGesture(false);
    expect(job.document).toEqual(demoJobs[0]);
    expect(job.canUndo).toBe(false);
  });

  test('a hundred steps are kept, and a change that changes nothing is none', async () => {
    const job = await opened();
    for (let i = 0; i < 130; i++) job.apply(rename(`N${i}`));
    job.apply((document) => document);
    let steps = 0;
    for (; job.canUndo; steps++) job.undo();
    expect(steps).toBe(100);
    expect(job.document!.name).toBe('N29');
  });
});

describe('autosave', () => {
  test('quick changes are saved once, and the draft is forgotten when the server has them', async () => {
    const job = await opened();
    for (const name of ['A', 'B', 'C']) job.apply(rename(name));
    expect(storage.items.size).toBe(1);
    expect(job.saveState).toBe('waiting');
    await rest();
    expect(server.state).toMatchObject({ writes: 1, revision: 2 });
    expect(server.state.document.name).toBe('C');
    expect(job.saveState).toBe('saved');
    expect(storage.items.size).toBe(0);
  });

  test('with the server gone the draft stays and is sent when it is back', async () => {
    const job = await opened();
    server.state.isUp = false;
    job.apply(rename('Kept'));
    await rest();
    expect(job.saveState).toBe('offline');
    expect(storage.items.size).toBe(1);
    server.state.isUp = true;
    await rest();
    expect(job.saveState).toBe('saved');
    expect(server.state.document.name).toBe('Kept');
  });

  test('a draft left by a closed browser is taken up again and saved', async () => {
    const first = await opened();
    server.state.isUp = false;
    first.apply(rename('From before'));
    await rest(500);
    setActivePinia(createPinia());
    server.state.isUp = true;
    const second = await opened();
    expect(second.document!.name).toBe('From before');
    await rest();
    expect(server.state.document.name).toBe('From before');
  });

  test('an unreadable draft is dropped, not opened', async () => {
    storage.setItem('wick-draft-j', '{"revision": 1, "document": {"format": "other"}}');
    const job = await opened();
    expect(job.document).toEqual(demoJobs[0]);
    expect(storage.items.size).toBe(0);
  });

  test('storage that refuses does not stop the save', async () => {
    storage.setItem = () => {
      throw new Error('full');
    };
    const job = await opened();
    job.apply(rename('Anyway'));
    await rest();
    expect(server.state.document.name).toBe('Anyway');
  });
});

describe('a stale write', () => {
  async function conflicting() {
    const job = await opened();
    server.state.revision = 5;
    server.state.document = { ...demoJobs[0]!, name: 'Theirs' };
    job.apply(rename('Mine'));
    await rest();
    expect(job.saveState).toBe('conflict');
    expect(job.conflict!.document.name).toBe('Theirs');
    return job;
  }

  test('changes nothing on the server until someone chooses', async () => {
    const job = await conflicting();
    job.apply(rename('Mine still'));
    await rest();
    expect(server.state.document.name).toBe('Theirs');
    expect(job.saveState).toBe('conflict');
  });

  test('keeping mine writes it over theirs', async () => {
    const job = await conflicting();
    job.resolveConflict('mine');
    await rest();
    expect(server.state).toMatchObject({ revision: 6 });
    expect(server.state.document.name).toBe('Mine');
  });

  test('taking theirs leaves mine one undo away', async () => {
    const job = await conflicting();
    job.resolveConflict('theirs');
    expect(job.document!.name).toBe('Theirs');
    job.undo();
    expect(job.document!.name).toBe('Mine');
    await rest();
    expect(server.state.document.name).toBe('Mine');
  });

  test('a draft older than what is stored is offered, not forced', async () => {
    storage.setItem(
      'wick-draft-j',
      JSON.stringify({ revision: 1, document: { ...demoJobs[0]!, name: 'Old draft' } }),
    );
    server.state.revision = 9;
    const job = await opened();
    expect(job.saveState).toBe('conflict');
    expect(job.document!.name).toBe('Old draft');
    job.resolveConflict('theirs');
    expect(job.document).toEqual(demoJobs[0]);
  });
});
