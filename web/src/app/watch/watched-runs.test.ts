import { expect, test } from '@jest/globals';
import type { Entry, EntryBody, WatchedRun } from '@wick/contract/run/run';
import type { StreamKind } from '@wick/contract/run/stream';
import { createWatchedRuns } from './watched-runs.ts';

let order = 0;
const said = (runId: string, body: EntryBody, id = `e${++order}`): Entry => ({
  ...{ id, runId, body, by: 'Ada', device: 'tablet', order: ++order },
  at: new Date(1.7e12 + order * 1000).toISOString(),
  writtenAt: new Date(1.7e12 + order * 1000).toISOString(),
});
const limits = { pressure: 3000, coldest: null, warmest: null, silence: 60 };
const watchOf = (runId: string) => said(runId, { kind: 'watch', watcher: 'Ada', limits });
const alarmOf = (runId: string, id: string) =>
  said(runId, { kind: 'alarm', cause: 'pressure', instrumentId: 'g', value: 4000, limit: 3000 }, id);
const watched = (id: string, entries: Entry[]): WatchedRun => ({
  run: {
    ...{ id, jobId: 'j', number: 1, kind: 'part', speed: 1, seed: 0 },
    ...{ startedAt: '2026-03-14T09:00:00Z', endedAt: null },
  },
  jobName: 'Gore',
  entries,
});

function open(list: () => Promise<WatchedRun[]>) {
  const listeners = new Map<StreamKind, (data: never) => void>();
  const runs = createWatchedRuns({
    list,
    stream: { on: (kind, listener) => (listeners.set(kind, listener), () => undefined) },
  });
  return { runs, tell: (kind: StreamKind, data: unknown) => listeners.get(kind)?.(data as never) };
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

test('an alarm stands until it is answered on any screen, however often it is told', async () => {
  const { runs, tell } = open(async () => [watched('r', [watchOf('r')])]);
  await runs.load();
  expect([runs.isWatched.value, runs.alarms.value.length]).toEqual([true, 0]);
  const alarm = alarmOf('r', 'alarm-1');
  tell('entry', alarm);
  tell('entry', alarm);
  expect(runs.alarms.value.map(({ jobName, watcher, entry }) => [jobName, watcher, entry.id])).toEqual([
    ['Gore', 'Ada', 'alarm-1'],
  ]);
  tell('entry', said('r', { kind: 'answered', alarmId: 'alarm-1' }));
  expect(runs.alarms.value).toEqual([]);
});

test('an alarm that is told while an older list is on its way is not lost by that list', async () => {
  const answers: ((runs: WatchedRun[]) => void)[] = [];
  const { runs, tell } = open(() => new Promise((resolve) => answers.push(resolve)));
  const watch = watchOf('r');
  const first = runs.load();
  answers[0]!([watched('r', [watch])]);
  await first;
  tell('gap', {});
  tell('entry', alarmOf('r', 'meanwhile'));
  expect(runs.alarms.value).toHaveLength(1);
  answers[1]!([watched('r', [watch])]);
  await settle();
  expect(runs.alarms.value.map(({ entry }) => entry.id)).toEqual(['meanwhile']);
});

test('a watch that begins elsewhere is taken up; what other runs say is not; one that ends calls nobody', async () => {
  let now: WatchedRun[] = [];
  const { runs, tell } = open(async () => now);
  await runs.load();
  tell('entry', alarmOf('unwatched', 'a'));
  expect(runs.isWatched.value).toBe(false);
  now = [watched('r', [watchOf('r'), alarmOf('r', 'b')])];
  tell('entry', watchOf('r'));
  await settle();
  expect(runs.alarms.value).toHaveLength(1);
  now = [watched('late', [watchOf('late'), alarmOf('late', 'c')])];
  tell('entry', alarmOf('late', 'c'));
  await settle();
  expect(runs.alarms.value.map(({ run }) => run.id)).toEqual(['late']);
  tell('entry', said('late', { kind: 'watchEnds' }));
  expect([runs.isWatched.value, runs.alarms.value.length]).toEqual([false, 0]);
});

test('a clock that is due is called until it has ended; of a rehearsal it is said that it is one', async () => {
  const rehearsal = watched('rehearsed', []);
  const one = watched('r', []);
  const { runs, tell } = open(async () => [
    one,
    { ...rehearsal, run: { ...rehearsal.run, kind: 'rehearsal' } },
  ]);
  await runs.load();
  const clock: EntryBody = {
    ...{ kind: 'timer', word: 'Release is ready', stepId: null, endsWith: null },
    ...{ opens: 2700, closes: null, slides: null },
  };
  for (const id of ['r', 'rehearsed']) {
    tell('entry', said(id, clock, `timer-${id}`));
    expect(runs.calls.value.map(({ timerId }) => timerId)).not.toContain(`timer-${id}`);
    tell('entry', said(id, { kind: 'due', timerId: `timer-${id}`, what: 'opens' }));
  }
  expect(runs.calls.value.map(({ word, part, isRehearsal }) => [word, part, isRehearsal])).toEqual([
    ['Release is ready', 'part 1', false],
    ['Release is ready', 'rehearsal', true],
  ]);
  tell('entry', said('r', { kind: 'timerEnds', timerId: 'timer-r' }));
  expect(runs.calls.value.map(({ timerId }) => timerId)).toEqual(['timer-rehearsed']);
});

test('after a gap all is asked for again; a late answer to an earlier question is not believed, none leaves what there was', async () => {
  const answers: ((runs: WatchedRun[]) => void)[] = [];
  const { runs, tell } = open(() => new Promise((resolve) => answers.push(resolve)));
  void runs.load();
  tell('gap', {});
  answers[1]!([watched('r', [watchOf('r')])]);
  await settle();
  answers[0]!([]);
  await settle();
  expect(runs.isWatched.value).toBe(true);
  const failing = open(() => Promise.reject(new Error('away')));
  await failing.runs.load();
  expect(failing.runs.isWatched.value).toBe(false);
});
