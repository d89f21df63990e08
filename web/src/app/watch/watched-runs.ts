import type { Entry, WatchedRun } from '@wick/contract/run/run';
import { runStateOf } from '@wick/plan/run/state';
import { computed, shallowRef } from 'vue';
import type { Stream } from '../../data/stream.ts';

interface Parts {
  readonly list: () => Promise<WatchedRun[]>;
  readonly stream: Pick<Stream, 'on'>;
}

/** Runs that somebody watches anywhere in the workshop, and the alarms that nobody has answered. */
export function createWatchedRuns({ list, stream }: Parts) {
  const runs = shallowRef<readonly WatchedRun[]>([]);
  let asked = 0;

  async function load(): Promise<void> {
    const own = ++asked;
    const now = await list().catch(() => null);
    if (now && own === asked) runs.value = now;
  }
  function take(entry: Entry): void {
    const known = runs.value.some(({ run }) => run.id === entry.runId);
    if (!known) {
      // Its watch began meanwhile, or what was asked for has not come yet.
      if (entry.body.kind === 'watch' || entry.body.kind === 'alarm') void load();
      return;
    }
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
  };
}
