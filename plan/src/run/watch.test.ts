import { describe, expect, test } from '@jest/globals';
import type { Entry, EntryBody, Limits } from '@wick/contract/run/run';
import { runTime } from './clock.ts';
import { runStateOf } from './state.ts';
import { alarmsDue } from './watch.ts';

const start = Date.parse('2026-03-14T09:00:00Z');
const limits: Limits = { pressure: 3000, coldest: 290, warmest: 310, silence: 60 };
let order = 0;
const said = (seconds: number, body: EntryBody, id = `e${++order}`, by = 'Ada'): Entry => ({
  ...{ id, by, body, order: ++order, runId: 'r', device: 'd' },
  at: new Date(start + seconds * 1000).toISOString(),
  writtenAt: new Date(start + seconds * 1000 + 40).toISOString(),
});
const hung = (instrumentId: string, place: 'bag' | 'mould' = 'bag') =>
  said(0, { kind: 'attach', instrumentId, place });
const instruments = new Map([
  ['fine', { measures: 'absolutePressure', resolution: 10 }],
  ['needle', { measures: 'gaugePressure', resolution: 1700 }],
  ['warmth', { measures: 'temperature', resolution: 0.1 }],
] as const);
const due = (entries: Entry[], seconds: number, last: [string, number, number][], awake?: number) =>
  alarmsDue(runStateOf(entries), {
    ...{ now: start + seconds * 1000, ambientPressure: 94_000, instruments },
    ...(awake === undefined ? {} : { awakeSince: start + awake * 1000 }),
    last: new Map(last.map(([id, at, value]) => [id, { at: start + at * 1000, value }])),
  });

describe('what a run comes to by its entries', () => {
  test('times shut off, with their verdicts, whatever order they came in; what is struck out does not count', () => {
    const judged: EntryBody = {
      ...{ kind: 'judged', shutId: 'first', verdict: 'leaks', throughput: { value: 1, low: 0.5, high: 2 } },
      ...{ throughputLimit: 0.1, freeVolume: 0.01, start: 1000, duration: 900, voids: 0.02 },
    };
    const entries = [
      said(500, { kind: 'shut' }, 'first'),
      said(10, { kind: 'pull' }),
      said(1500, judged),
      said(1400, { kind: 'pull' }),
      said(2000, { kind: 'shut' }, 'second'),
      said(2001, { kind: 'shut' }, 'pressed twice'),
      said(2500, { kind: 'letGo' }, 'mistake'),
      said(2600, { kind: 'struck', entryId: 'mistake', why: 'wrong button' }),
    ];
    for (const list of [entries, [...entries].reverse()]) {
      const state = runStateOf(list);
      expect(
        state.shutTimes.map(({ id, from, to, judged: own }) => [
          id,
          (from - start) / 1000,
          to && (to - start) / 1000,
          own?.verdict,
        ]),
      ).toEqual([
        ['first', 500, 1400, 'leaks'],
        ['second', 2000, null, undefined],
      ]);
      expect(state.valve).toBe('shut');
      expect(state.pulls).toHaveLength(2);
    }
  });

  test('the watch is taken over by name', () => {
    const watch = (watcher: string, seconds: number) => said(seconds, { kind: 'watch', watcher, limits });
    const state = runStateOf([watch('Ada', 0), watch('Ben', 100)]);
    expect(state.watch).toMatchObject({ watcher: 'Ben', before: ['Ada'] });
    expect(runStateOf([watch('Ada', 0), said(50, { kind: 'watchEnds' })]).watch).toBeNull();
  });

  test('the clock of a rehearsal is quicker from its start on', () => {
    const run = { startedAt: new Date(start).toISOString(), speed: 60 };
    expect(runTime(run, start + 10_000)).toBe(start + 600_000);
    expect(runTime({ ...run, speed: 1 }, start + 10_000)).toBe(start + 10_000);
  });
});

describe('alarms', () => {
  const watched = [
    hung('fine'),
    hung('needle'),
    hung('warmth', 'mould'),
    said(5, { kind: 'watch', watcher: 'Ada', limits }),
  ];
  const calm: [string, number, number][] = [
    ['fine', 99, 2000],
    ['needle', 99, 91_000],
    ['warmth', 99, 300],
  ];
  const but = (id: string, at: number, value: number) =>
    calm.map((one) => (one[0] === id ? ([id, at, value] as [string, number, number]) : one));

  test('nothing is called while all is well, nor where nobody watches', () => {
    expect(due(watched, 100, calm)).toEqual([]);
    expect(due(watched.slice(0, 3), 100, but('fine', 99, 9000))).toEqual([]);
  });

  test('the finest gauge on the bag calls; a coarse one only when that is silent', () => {
    expect(due(watched, 100, but('fine', 99, 3001))).toMatchObject([
      { cause: 'pressure', instrumentId: 'fine', value: 3001 },
    ]);
    // 94 000 - 89 600 = 4 400, within its steps of what the other says.
    expect(due(watched, 100, but('needle', 99, 89_600))).toEqual([]);
    const silent = but('fine', 30, 2000).map((one) =>
      one[0] === 'needle' ? (['needle', 99, 89_600] as [string, number, number]) : one,
    );
    expect(due(watched, 100, silent).map(({ cause, instrumentId }) => [cause, instrumentId])).toEqual([
      ['silence', 'fine'],
      ['pressure', 'needle'],
    ]);
  });

  test('cold, warm and silent; silence counts from the watch where nothing was ever read', () => {
    expect(due(watched, 100, but('warmth', 99, 289))).toMatchObject([{ cause: 'cold', limit: 290 }]);
    expect(due(watched, 100, but('warmth', 99, 311))).toMatchObject([{ cause: 'warm', limit: 310 }]);
    expect(due(watched, 64, [])).toEqual([]);
    expect(due(watched, 66, []).map(({ cause }) => cause)).toEqual(['silence', 'silence', 'silence']);
  });

  test('what was silent while nobody could look has its whole time again', () => {
    const silent = due(watched, 500, []).length;
    expect(silent).toBe(3);
    expect(due(watched, 500, [], 450)).toEqual([]);
    expect(due(watched, 511, [], 450)).toHaveLength(3);
  });

  test('an alarm waits for its answer, and comes again five minutes after it where nothing has changed', () => {
    const alarm = said(
      100,
      { kind: 'alarm', cause: 'pressure', instrumentId: 'fine', value: 3500, limit: 3000 },
      'alarm-1',
    );
    const high = (at: number) =>
      but('fine', at, 3500).map(([id, , value]) => [id, at, value] as [string, number, number]);
    expect(due([...watched, alarm], 5000, high(4999))).toEqual([]);
    const answered = [...watched, alarm, said(200, { kind: 'answered', alarmId: 'alarm-1' })];
    expect(due(answered, 499, high(498))).toEqual([]);
    expect(due(answered, 501, high(500))).toHaveLength(1);
    expect(runStateOf(answered).alarms[0]!.answeredBy).toBe('Ada');
  });
});
