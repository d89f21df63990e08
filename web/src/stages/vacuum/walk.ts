import { isAtHand } from '@wick/plan/run/gauges';
import { isOf } from '@wick/plan/run/state';
import type { LeakPlace } from '@wick/plan/vacuum/places';
import { computed, proxyRefs } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useInstruments } from '../../data/instruments.ts';
import { useBench, type Hung } from './bench.ts';

/** A place of the walk with its number, and what was seen there last. */
export interface WalkPlace extends LeakPlace {
  readonly number: number;
  readonly state: 'found' | 'sealed' | 'sound' | null;
  /** The entry that says so. */
  readonly entryId: string | null;
}

/** The leak walk of this run. */
export function useWalk() {
  const bench = useBench();
  const run = useRun();
  const { list, last } = useInstruments();
  const places = computed((): WalkPlace[] =>
    (bench.places.value ?? []).map((place, n) => ({
      ...place,
      number: n + 1,
      state: run.state.looked.get(place.id)?.body.state ?? null,
      entryId: run.state.looked.get(place.id)?.id ?? null,
    })),
  );
  const open = computed(() => places.value.filter(({ state }) => state === null || state === 'found'));
  /** Of this rehearsal, or any that a device posts. */
  const listener = computed((): Pick<Hung, 'instrument' | 'last'> | null => {
    const instrument = list.value.find(
      ({ measures, runId, revokedAt }) =>
        measures === 'soundLevel' && revokedAt === null && isAtHand({ runId }, run.rehearsalId),
    );
    return instrument ? { instrument, last: last.value.get(instrument.id) ?? null } : null;
  });
  /** What is heard, and where: what was shown before the listener was moved belongs to the place before. */
  const heard = computed(() => {
    const moved = run.state.entries.filter(isOf('listen')).at(-1);
    const read = listener.value?.last;
    return {
      place: places.value.find(({ id }) => id === moved?.body.placeId)?.name ?? null,
      level: read && (!moved || read.at >= Date.parse(moved.at)) ? read.value : null,
    };
  });
  return proxyRefs({ places, open, listener, heard });
}
