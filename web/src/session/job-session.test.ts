import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { demoJobs } from '@wick/plan/demo/jobs';
import { readJob } from '@wick/plan/files/job-file';
import { withName } from '@wick/plan/job/edits';
import { proxyRefs } from 'vue';
import { memoryDrafts, openSession, storedAs } from '../test/open-session.ts';
import { createBrowserDrafts } from './drafts.ts';
import { announceTab } from './tabs.ts';
import { createSessions } from './sessions.ts';
import type { WriteOutcome } from './saver.ts';

/** A server in a few lines: keeps jobs by id, checks revisions, can be slow, refuse, or be switched off. */
function fakeServer(...ids: string[]) {
  const jobs = new Map(ids.map((id) => [id, { revision: 1, document: demoJobs[0]! }]));
  const state = {
    isUp: true,
    delay: 0,
    refusal: null as { message: string; isPassing: boolean } | null,
    writes: 0,
    tries: 0,
    reads: 0,
    most: 0,
    now: 0,
  };
  const pause = () => new Promise((resolve) => setTimeout(resolve, state.delay));
  const stored = (id: string) => storedAs(jobs.get(id)!.document, jobs.get(id)!.revision, id);
  return {
    jobs,
    state,
    async read(id: string) {
      state.reads += 1;
      await pause();
      if (!state.isUp) throw new Error('The server does not answer.');
      return stored(id);
    },
    async write(id: string, revision: number, document: Job): Promise<WriteOutcome> {
      state.tries += 1;
      state.now += 1;
      state.most = Math.max(state.most, state.now);
      await pause();
      state.now -= 1;
      if (!state.isUp) return { kind: 'notReached', message: 'no answer' };
      if (state.refusal) return { kind: 'refused', ...state.refusal };
      const job = jobs.get(id)!;
      if (job.revision !== revision) return { kind: 'stale', current: stored(id) };
      state.writes += 1;
      job.revision += 1;
      job.document = document;
      return { kind: 'written', written: { revision: job.revision, changedAt: '2026-01-01T10:05:00Z' } };
    },
  };
}

let server: ReturnType<typeof fakeServer>;
let drafts: ReturnType<typeof memoryDrafts>;
let sessions: ReturnType<typeof createSessions>;

beforeEach(() => {
  jest.useFakeTimers();
  server = fakeServer('j', 'k');
  drafts = memoryDrafts();
  sessions = createSessions({ read: server.read, write: server.write, drafts });
});
afterEach(() => {
  jest.useRealTimers();
});

const rest = (ms = 8000) => jest.advanceTimersByTimeAsync(ms);
async function open(id = 'j') {
  const opening = sessions.open(id);
  await rest(Math.max(5, server.state.delay));
  const session = await opening;
  return { raw: session, job: proxyRefs(session) };
}
const nameOn = (id = 'j') => server.jobs.get(id)!.document.name;

describe('undo', () => {
  test('each change is a step; undo and redo walk them; a new change drops what was undone', async () => {
    const { job } = await open();
    job.apply(withName('A'), 'name A');
    job.apply(withName('B'), 'name B');
    expect(job.undoLabel).toBe('name B');
    job.undo();
    expect(job.document.name).toBe('A');
    expect(job.redoLabel).toBe('name B');
    job.undo();
    expect(job.document).toBe(demoJobs[0]);
    expect(job.canUndo).toBe(false);
    job.redo();
    expect(job.document.name).toBe('A');
    job.apply(withName('C'));
    expect(job.canRedo).toBe(false);
    await rest();
    expect(nameOn()).toBe('C');
  });

  test('a gesture of many moves is one step, and can be given up', async () => {
    const { job } = await open();
    for (const name of ['1', '2', '3']) job.preview(withName(name));
    expect(job.isGesturing).toBe(true);
    job.undo();
    expect(job.document.name).toBe('3');
    await rest();
    expect(server.state.writes).toBe(0);
    job.endGesture();
    job.undo();
    expect(job.document).toBe(demoJobs[0]);
    job.preview(withName('4'));
    job.endGesture(false);
    expect(job.document).toBe(demoJobs[0]);
    expect(job.canUndo).toBe(false);
  });

  test('a change in the midst of a gesture ends the gesture first: two steps', async () => {
    const { job } = await open();
    job.preview(withName('dragged'));
    job.apply((document) => ({ ...document, vacuum: { ...job.document.vacuum, ventPressure: 900 } }));
    expect(job.isGesturing).toBe(false);
    job.undo();
    expect([job.document.name, job.document.vacuum.ventPressure]).toEqual(['dragged', 1800]);
  });

  test('a hundred steps are kept, and a change that changes nothing is none', async () => {
    const { job } = await open();
    for (let i = 0; i < 130; i++) job.apply(withName(`N${i}`));
    job.apply((document) => document);
    let steps = 0;
    for (; job.canUndo; steps++) job.undo();
    expect(steps).toBe(100);
    expect(job.document.name).toBe('N29');
  });
});

describe('autosave', () => {
  test('quick changes are saved once, and the draft is forgotten when the server has them', async () => {
    const { job } = await open();
    for (const name of ['A', 'B', 'C']) job.apply(withName(name));
    expect(drafts.items.size).toBe(1);
    expect(job.saveState).toBe('waiting');
    await rest();
    expect([server.state.writes, job.revision, nameOn()]).toEqual([1, 2, 'C']);
    expect(job.saveState).toBe('saved');
    expect(drafts.items.size).toBe(0);
  });

  test('with the server gone the draft stays and is sent when it is back', async () => {
    const { job } = await open();
    server.state.isUp = false;
    job.apply(withName('Kept'));
    await rest();
    expect(job.saveState).toBe('offline');
    expect(drafts.items.size).toBe(1);
    server.state.isUp = true;
    await rest();
    expect([job.saveState, nameOn()]).toEqual(['saved', 'Kept']);
  });

  test('a refusal is said and its draft kept; the next change is sent again', async () => {
    const { job } = await open();
    server.state.refusal = { message: 'The outline crosses itself.', isPassing: false };
    job.apply(withName('Too much'));
    await rest();
    expect([job.saveState, job.saveMessage]).toEqual(['refused', 'The outline crosses itself.']);
    expect(drafts.items.get('j')!.document.name).toBe('Too much');
    server.state.refusal = null;
    job.apply(withName('Fits'));
    await rest();
    expect([job.saveState, nameOn()]).toEqual(['saved', 'Fits']);
  });

  test('a refusal that may pass is tried again by itself', async () => {
    const { job } = await open();
    server.state.refusal = { message: 'The disk is full.', isPassing: true };
    job.apply(withName('Later'));
    await rest(5000);
    expect([job.saveState, job.saveMessage]).toEqual(['refused', 'The disk is full.']);
    server.state.refusal = null;
    await rest(10_000);
    expect([job.saveState, nameOn()]).toEqual(['saved', 'Later']);
  });

  test('changes while a slow write is under way are written after it, one write at a time', async () => {
    const { job } = await open();
    server.state.delay = 2500;
    job.apply(withName('First'));
    await rest(1000);
    job.apply(withName('Second'));
    await rest(1000);
    job.apply(withName('Third'));
    await rest(10_000);
    expect([nameOn(), job.saveState, server.state.most]).toEqual(['Third', 'saved', 1]);
    expect(drafts.items.size).toBe(0);
  });
});

describe('leaving a job', () => {
  test('while an earlier save is under way loses nothing: the newer value is written after it', async () => {
    const { raw, job } = await open();
    server.state.delay = 2500;
    job.apply(withName('First'));
    await rest(1000);
    job.apply(withName('Second'));
    const left = sessions.leave(raw);
    expect(drafts.items.get('j')!.document.name).toBe('Second');
    await rest(10_000);
    await left;
    expect(nameOn()).toBe('Second');
    expect(drafts.items.size).toBe(0);
  });

  test('is done when what was still to be written is', async () => {
    server.state.delay = 500;
    const { raw, job } = await open();
    job.apply(withName('Last'));
    let isDone = false;
    const leaving = sessions.leave(raw).then(() => (isDone = true));
    await rest(400);
    expect([isDone, nameOn()]).toEqual([false, demoJobs[0]!.name]);
    await rest(200);
    await leaving;
    expect([isDone, nameOn()]).toEqual([true, 'Last']);
  });

  test.each([
    ['refused', () => (server.state.refusal = { message: 'The outline crosses itself.', isPassing: false })],
    ['met by another hand', () => (server.jobs.get('j')!.revision = 7)],
    ['met by nobody', () => (server.state.isUp = false)],
  ])('is done too when the write is %s, and the draft stays', async (_, trouble) => {
    const { raw, job } = await open();
    job.apply(withName('Mine'));
    trouble();
    let isDone = false;
    void sessions.leave(raw).then(() => (isDone = true));
    await rest(1000);
    expect(isDone).toBe(true);
    expect(drafts.items.get('j')!.document.name).toBe('Mine');
  });

  test('does not keep the next job waiting', async () => {
    const { raw, job } = await open();
    job.apply(withName('Slow'));
    server.state.delay = 60_000;
    void sessions.leave(raw);
    await rest(100);
    server.state.delay = 0;
    const next = await open('k');
    next.job.apply(withName('Quick'));
    await rest(1000);
    expect([nameOn('k'), next.job.saveState]).toEqual(['Quick', 'saved']);
  });

  test('with the server gone keeps the draft; opened again it is taken up and written', async () => {
    const { raw, job } = await open();
    server.state.isUp = false;
    job.apply(withName('Kept'));
    void sessions.leave(raw);
    await rest();
    expect(drafts.items.get('j')!.document.name).toBe('Kept');
    server.state.isUp = true;
    const again = await open();
    expect(again.job.document.name).toBe('Kept');
    await rest();
    expect(nameOn()).toBe('Kept');
  });

  test('and coming back at once reads what was just written, not what was there before', async () => {
    const { raw, job } = await open();
    server.state.delay = 800;
    job.apply(withName('Just written'));
    void sessions.leave(raw);
    const again = sessions.open('j');
    await rest(4000);
    const { document, saveState } = proxyRefs(await again);
    expect([document.name, saveState]).toEqual(['Just written', 'saved']);
    expect(drafts.items.size).toBe(0);
  });

  test('a write that does not come back in time is not overtaken: the draft opens, and one of both versions is asked for', async () => {
    const { raw, job } = await open();
    server.state.delay = 30_000;
    job.apply(withName('Very slow'));
    void sessions.leave(raw);
    await rest(1000);
    const again = sessions.open('j');
    await rest(4000);
    server.state.delay = 0;
    await rest(40_000);
    const { job: reopened } = { job: proxyRefs(await again) };
    expect(reopened.document.name).toBe('Very slow');
    await rest(10_000);
    expect(['saved', 'conflict']).toContain(reopened.saveState);
    expect(nameOn()).toBe('Very slow');
  });

  test('in the midst of a drag gives the drag up', async () => {
    const { raw, job } = await open();
    job.preview(withName('half way'));
    void sessions.leave(raw);
    await rest();
    expect(nameOn()).toBe(demoJobs[0]!.name);
  });
});

describe('drafts in the browser', () => {
  /** A Storage lists its own items as its properties. */
  const storage = () =>
    Object.defineProperties({} as Record<string, string>, {
      getItem: { value: (key: string) => items()[key] ?? null },
      setItem: { value: (key: string, value: string) => void (items()[key] = value), writable: true },
      removeItem: { value: (key: string) => void delete items()[key] },
    });
  const items = () => globalThis.localStorage as unknown as Record<string, string>;
  const open = new Set<string>();
  const of = (tab: string) => {
    open.add(tab);
    return createBrowserDrafts(tab, async () => open);
  };
  const browserDrafts = of('here');
  beforeEach(() => {
    open.clear();
    Object.assign(globalThis, { localStorage: storage() });
  });

  test('two tabs with the server away keep one each; what a tab that is gone has left is taken over, once', async () => {
    const [one, two] = [of('one'), of('two')];
    one.keep('j', { revision: 3, document: { ...demoJobs[1]!, name: 'In one' } });
    two.keep('j', { revision: 3, document: { ...demoJobs[1]!, name: 'In two' } });
    expect([one.read('j')!.document.name, two.read('j')!.document.name]).toEqual(['In one', 'In two']);
    const third = of('three');
    await third.adopt('j');
    expect(third.read('j')).toBeNull();
    open.delete('one');
    await third.adopt('j');
    expect(third.read('j')!.document.name).toBe('In one');
    open.delete('two');
    // It has one of its own now; the next tab finds the other.
    await third.adopt('j');
    const fourth = of('four');
    await fourth.adopt('j');
    expect([third.read('j')!.document.name, fourth.read('j')!.document.name]).toEqual(['In one', 'In two']);
    expect(Object.keys(items()).sort()).toEqual(['wick-draft-j four', 'wick-draft-j three']);
  });

  test('a tab is open for as long as the browser holds its lock', async () => {
    const held = new Set<string>();
    const locks = {
      request: async (name: string) => void held.add(name),
      query: async () => ({ held: [...held, 'another program'].map((name) => ({ name })) }),
    } as unknown as LockManager;
    const [one, two] = [announceTab('one', locks), announceTab('two', locks)];
    expect(await one!()).toEqual(new Set(['one', 'two']));
    held.delete('wick-tab one');
    expect(await two!()).toEqual(new Set(['two']));
    expect(await announceTab('alone', undefined)()).toEqual(new Set(['alone']));
  });

  test('come back as they were; one that cannot be read is dropped', () => {
    browserDrafts.keep('j', { revision: 3, document: demoJobs[1]! });
    expect(browserDrafts.read('j')).toEqual({ revision: 3, document: demoJobs[1] });
    browserDrafts.forget('j');
    expect(browserDrafts.read('j')).toBeNull();
    for (const text of ['{"revision": 1, "document": {"format": "other"}}', '{"revi', '{"revision": "x"}']) {
      items()['wick-draft-j here'] = text;
      expect(browserDrafts.read('j')).toBeNull();
      expect(Object.keys(items())).toEqual([]);
    }
  });

  test('a draft whose outline crosses itself is not lost for that', () => {
    const [a, b, c, ...rest] = demoJobs[2]!.part.outline;
    const crossed = { ...demoJobs[2]!, part: { ...demoJobs[2]!.part, outline: [b!, a!, c!, ...rest] } };
    expect(readJob(crossed)).toMatchObject({ ok: false, message: expect.stringContaining('crosses itself') });
    browserDrafts.keep('j', { revision: 1, document: crossed });
    expect(browserDrafts.read('j')!.document).toEqual(crossed);
  });

  test('a draft of an earlier version is brought up to date; storage that refuses stops nothing', async () => {
    const file = new URL('../../../contract/src/migrations/frozen/version-4-spinner.json', import.meta.url);
    const old = JSON.parse(readFileSync(file, 'utf8')) as { version: number };
    expect(old.version).toBe(4);
    items()['wick-draft-j'] = JSON.stringify({ revision: 2, document: old });
    await browserDrafts.adopt('j');
    expect(browserDrafts.read('j')!.document.layouts[0]!.lines).toEqual(demoJobs[1]!.layouts[0]!.lines);
    localStorage.setItem = () => {
      throw new Error('full');
    };
    expect(() => browserDrafts.keep('j', { revision: 1, document: demoJobs[0]! })).not.toThrow();
  });
});

describe('a stale write', () => {
  async function conflicting() {
    const { job } = await open();
    Object.assign(server.jobs.get('j')!, { revision: 5, document: { ...demoJobs[0]!, name: 'Theirs' } });
    job.apply(withName('Mine'));
    await rest();
    expect(job.saveState).toBe('conflict');
    expect(job.conflict!.document.name).toBe('Theirs');
    return job;
  }

  test('changes nothing on the server until someone chooses', async () => {
    const job = await conflicting();
    const { tries } = server.state;
    job.apply(withName('Mine still'));
    await rest();
    expect(server.state.tries).toBe(tries);
    expect([nameOn(), job.saveState]).toEqual(['Theirs', 'conflict']);
    expect(drafts.items.get('j')!.document.name).toBe('Mine still');
  });

  test('keeping mine writes it over theirs', async () => {
    const job = await conflicting();
    job.resolveConflict('mine');
    await rest();
    expect([server.jobs.get('j')!.revision, nameOn(), job.saveState]).toEqual([6, 'Mine', 'saved']);
  });

  test('taking theirs leaves mine one undo away', async () => {
    const job = await conflicting();
    job.resolveConflict('theirs');
    expect([job.document.name, job.saveState, drafts.items.size]).toEqual(['Theirs', 'saved', 0]);
    job.undo();
    expect(job.document.name).toBe('Mine');
    await rest();
    expect(nameOn()).toBe('Mine');
  });

  test('a draft older than what is stored is offered, not forced', async () => {
    drafts.keep('j', { revision: 1, document: { ...demoJobs[0]!, name: 'Old draft' } });
    server.jobs.get('j')!.revision = 9;
    const { job } = await open();
    await rest();
    expect([job.saveState, job.document.name, server.state.writes]).toEqual(['conflict', 'Old draft', 0]);
    job.resolveConflict('theirs');
    expect(job.document).toEqual(demoJobs[0]);
  });
});

test('a session for tests writes what it is given', async () => {
  const job = openSession(demoJobs[0]!);
  job.apply(withName('x'));
  await rest();
  expect(job.revision).toBe(2);
});
