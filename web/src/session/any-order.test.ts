import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import { demoJobs } from '@wick/plan/demo/jobs';
import { readUnfinished } from '@wick/plan/files/job-file';
import { anyEdit } from '@wick/plan/test/any-edit';
import fc from 'fast-check';
import { memoryDrafts, storedAs } from '../test/open-session.ts';
import type { JobSession } from './job-session.ts';
import type { WriteOutcome } from './saver.ts';
import { createSessions } from './sessions.ts';

const START = demoJobs[2]!;

/** A server that can be slow, down, or die in the midst of a write: before it has taken it, or after. */
function frailServer() {
  let stored = { revision: 1, document: START };
  const state = { isUp: true, delay: 0, dies: null as 'before' | 'after' | null };
  const acknowledged: Job[] = [];
  const pause = () => new Promise((resolve) => setTimeout(resolve, state.delay));
  const away: WriteOutcome = { kind: 'notReached', message: 'no answer' };
  return {
    state,
    acknowledged,
    stored: () => stored,
    async read() {
      await pause();
      return storedAs(stored.document, stored.revision);
    },
    async write(_: string, revision: number, document: Job): Promise<WriteOutcome> {
      await pause();
      const { dies } = state;
      state.dies = null;
      if (!state.isUp || dies === 'before') return away;
      if (stored.revision !== revision)
        return { kind: 'stale', current: storedAs(stored.document, stored.revision) };
      stored = { revision: revision + 1, document: JSON.parse(JSON.stringify(document)) as Job };
      if (dies === 'after') return away;
      acknowledged.push(document);
      return { kind: 'written', written: { revision: stored.revision, changedAt: '2026-01-01T10:05:00Z' } };
    },
  };
}

const happenings = fc.array(
  fc.oneof(
    { weight: 6, arbitrary: fc.record({ kind: fc.constant('edit' as const), seed: fc.integer() }) },
    {
      weight: 2,
      arbitrary: fc.record({
        kind: fc.constant('gesture' as const),
        seed: fc.integer(),
        keeps: fc.boolean(),
      }),
    },
    { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom('undo' as const, 'redo' as const) }) },
    {
      weight: 4,
      arbitrary: fc.record({ kind: fc.constant('wait' as const), ms: fc.integer({ min: 0, max: 4000 }) }),
    },
    {
      weight: 2,
      arbitrary: fc.record({ kind: fc.constant('slow' as const), ms: fc.integer({ min: 0, max: 3000 }) }),
    },
    { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom('down' as const, 'up' as const) }) },
    {
      weight: 1,
      arbitrary: fc.record({ kind: fc.constantFrom('dies before' as const, 'dies after' as const) }),
    },
    { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom('leave' as const, 'tab dies' as const) }) },
  ),
  { minLength: 1, maxLength: 30 },
);

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

type Happening = typeof happenings extends fc.Arbitrary<(infer T)[]> ? T : never;

const text = (job: Job) => JSON.stringify(job);

async function play(list: readonly Happening[]) {
  const server = frailServer();
  const drafts = memoryDrafts();
  const parts = { read: server.read, write: server.write, drafts };
  let sessions = createSessions(parts);
  const open = async () => {
    const opening = sessions.open('j');
    await jest.advanceTimersByTimeAsync(12_000);
    return opening;
  };
  /** One hand alone works here: where two versions are offered its own is the one that counts. */
  const mine = (session: JobSession) => session.conflict.value && session.resolveConflict('mine');
  let session = await open();
  let first = session.document.value;
  let steps = 0;
  let ids = 0;
  const newId = () => `new-${(ids += 1)}`;
  for (const happening of list) {
    mine(session);
    const before = session.document.value;
    switch (happening.kind) {
      case 'edit':
        session.apply(anyEdit(before, happening.seed, newId()).edit, 'edit');
        if (session.document.value !== before) steps += 1;
        break;
      case 'gesture': {
        session.preview(anyEdit(before, happening.seed, newId()).edit);
        session.preview(anyEdit(before, happening.seed + 1, newId()).edit);
        session.endGesture(happening.keeps);
        if (!happening.keeps) expect(session.document.value).toBe(before);
        if (session.document.value !== before) steps += 1;
        break;
      }
      case 'undo':
        session.undo();
        if (session.document.value !== before) {
          steps -= 1;
          session.redo();
          expect(session.document.value).toBe(before);
          session.undo();
        }
        break;
      case 'redo':
        session.redo();
        if (session.document.value !== before) steps += 1;
        break;
      case 'wait':
        await jest.advanceTimersByTimeAsync(happening.ms);
        break;
      case 'slow':
        server.state.delay = happening.ms;
        break;
      case 'down':
      case 'up':
        server.state.isUp = happening.kind === 'up';
        break;
      case 'dies before':
      case 'dies after':
        server.state.dies = happening.kind === 'dies before' ? 'before' : 'after';
        break;
      case 'leave':
      case 'tab dies':
        if (happening.kind === 'leave') void sessions.leave(session);
        else {
          // Nothing more is heard of the old page; what it has sent may still arrive.
          session.abandon();
          sessions = createSessions(parts);
        }
        session = await open();
        // What was last on the screen is on it again.
        expect(text(session.document.value)).toBe(text(before));
        first = session.document.value;
        steps = 0;
        break;
    }
    expect(readUnfinished(JSON.parse(text(session.document.value))).ok).toBe(true);
  }
  Object.assign(server.state, { isUp: true, delay: 0, dies: null });
  await jest.advanceTimersByTimeAsync(20_000);
  mine(session);
  await jest.advanceTimersByTimeAsync(20_000);
  return { session, server, drafts, first, steps };
}

test('whatever happens to page and server, no edit is lost and undo leads back to the start', async () => {
  await fc.assert(
    fc.asyncProperty(happenings, async (list) => {
      const { session, server, drafts, first, steps } = await play(list);
      // In the end the server has what is on the screen, and no draft is left over.
      expect(session.saveState.value).toBe('saved');
      expect(text(server.stored().document)).toBe(text(session.document.value));
      expect(drafts.items.size).toBe(0);
      for (let n = 0; n < steps; n++) session.undo();
      expect(session.document.value).toBe(first);
      expect(session.canUndo.value).toBe(false);
      session.abandon();
    }),
    { numRuns: 200 },
  );
});

test('a write that was taken but not acknowledged is no other hand', async () => {
  const { session, server } = await play([
    { kind: 'dies after' },
    { kind: 'edit', seed: 4 },
    { kind: 'wait', ms: 4000 },
    { kind: 'wait', ms: 4000 },
  ]);
  expect(session.conflict.value).toBeNull();
  expect(server.stored().revision).toBe(2);
  session.abandon();
});
