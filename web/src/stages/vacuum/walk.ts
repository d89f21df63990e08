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
  const heardAt = computed(() => {
    const placeId = run.state.entries.filter(isOf('listen')).at(-1)?.body.placeId;
    return places.value.find(({ id }) => id === placeId)?.name ?? null;
  });
  return proxyRefs({ places, open, listener, heardAt });
}
