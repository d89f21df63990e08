import type { Entry, EntryBody, WatchedRun } from '@wick/contract/run/run';
import { runningTimers } from '@wick/plan/card/timers';
import { isOf, runStateOf } from '@wick/plan/run/state';
import { computed, shallowRef } from 'vue';
import type { Call } from '../../data/local-calls.ts';
import type { Stream } from '../../data/stream.ts';

interface Parts {
  readonly list: () => Promise<WatchedRun[]>;
  readonly stream: Pick<Stream, 'on'>;
}

/** After these a run is looked after, or it has been. */
const TELLING: readonly EntryBody['kind'][] = ['watch', 'alarm', 'timer', 'due'];

/** Runs that are looked after anywhere in the workshop: alarms that nobody has answered, and clocks that are due. */
export function createWatchedRuns({ list, stream }: Parts) {
  const runs = shallowRef<readonly WatchedRun[]>([]);
  let asked = 0;
  /** While the list is on its way: it may not have them yet. */
  let heard: Entry[] | null = null;

  async function load(): Promise<void> {
    const own = ++asked;
    heard = [];
    const now = await list().catch(() => null);
    if (own !== asked) return;
    const meanwhile = heard;
    heard = null;
    if (!now) return;
    runs.value = now;
    for (const entry of meanwhile) add(entry);
  }
  function take(entry: Entry): void {
    heard?.push(entry);
    const known = runs.value.some(({ run }) => run.id === entry.runId);
    if (!known) {
      // Its watch began meanwhile, or what was asked for has not come yet.
      if (TELLING.includes(entry.body.kind)) void load();
      return;
    }
    add(entry);
  }
  function add(entry: Entry): void {
    runs.value = runs.value.map((one) =>
      one.run.id === entry.runId && !one.entries.some(({ id }) => id === entry.id)
        ? { ...one, entries: [...one.entries, entry] }
        : one,
    );
  }
  stream.on('entry', take);
  stream.on('gap', () => void load());

  const states = computed(() => runs.value.map((one) => ({ ...one, state: runStateOf(one.entries) })));
  return {
    load,
    take,
    isWatched: computed(() => states.value.some(({ state }) => state.watch !== null)),
    alarms: computed(() =>
      states.value.flatMap(({ run, jobName, state }) =>
        state.watch === null
          ? []
          : state.alarms
              .filter(({ answeredBy }) => answeredBy === null)
              .map(({ entry }) => ({ run, jobName, watcher: state.watch!.watcher, entry })),
      ),
    ),
    /** Of clocks that still run, what was called last. */
    calls: computed(() =>
      states.value.flatMap(({ run, jobName, state }) => {
        const called = new Map(
          state.entries.filter(isOf('due')).map(({ body }) => [body.timerId, body.what]),
        );
        return runningTimers(state.entries).flatMap(({ id, body: { word } }): Call[] => {
          const what = called.get(id);
          const isRehearsal = run.kind === 'rehearsal';
          const part = isRehearsal ? 'rehearsal' : `part ${run.number}`;
          return what ? [{ timerId: id, what, word, jobId: run.jobId, jobName, part, isRehearsal }] : [];
        });
      }),
    ),
  };
}
