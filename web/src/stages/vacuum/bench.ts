import type { Instrument } from '@wick/contract/run/instrument';
import type { Place } from '@wick/contract/run/run';
import { ModelError } from '@wick/core/model-error';
import { volumeByExpansion } from '@wick/core/vacuum/pump-down';
import { hashOf } from '@wick/plan/forecast/key';
import { absoluteOf, byFineness, isGauge } from '@wick/plan/run/gauges';
import type { ShutTime } from '@wick/plan/run/state';
import { airBudgetOf } from '@wick/plan/vacuum/air';
import { correctedReadings } from '@wick/plan/vacuum/corrected';
import { compareTests, type DropReading } from '@wick/plan/vacuum/drop-test';
import { freeVolumeOf } from '@wick/plan/vacuum/free-volume';
import { leakPlacesOf } from '@wick/plan/vacuum/places';
import { reachOf } from '@wick/plan/vacuum/reach';
import {
  computed,
  inject,
  onScopeDispose,
  proxyRefs,
  provide,
  ref,
  shallowRef,
  watch,
  type InjectionKey,
} from 'vue';
import { Cancelled } from '../../compute/scheduler.ts';
import { useForecast, useRun, useScheduler, useSession } from '../../compute/use-desk.ts';
import { useInstruments, useSamples } from '../../data/instruments.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** What hangs on the bag or beside it, and what it showed last. */
export interface Hung {
  readonly instrument: Instrument;
  readonly place: Place;
  readonly since: number;
  readonly last: { readonly at: number; readonly value: number } | null;
}

/** Readings are judged anew at most so often, ms. */
const JUDGE_EVERY = 1200;

/** Numbers of a model, or why there are none. */
function orMessage<T>(work: () => T): { value: T | null; message: string | null } {
  try {
    return { value: work(), message: null };
  } catch (error) {
    if (error instanceof ModelError) return { value: null, message: error.message };
    throw error;
  }
}

function createBench() {
  const job = useSession();
  const shop = useShopStore();
  const forecast = useForecast();
  const scheduler = useScheduler();
  const run = useRun();
  const moulds = useMouldStore();
  const { list, last } = useInstruments();
  if (!moulds.moulds) void moulds.load();

  const hung = computed((): Hung[] =>
    [...run.state.attached].flatMap(([id, { place, since }]) => {
      const instrument = list.value.find((one) => one.id === id);
      return instrument ? [{ instrument, place, since, last: last.value.get(id) ?? null }] : [];
    }),
  );
  const gauges = computed(() =>
    hung.value
      .filter(({ place, instrument }) => place === 'bag' && isGauge(instrument))
      .sort((a, b) => byFineness(a.instrument, b.instrument)),
  );
  /** The finest: by it the bag is judged. */
  const gauge = computed(() => gauges.value[0] ?? null);
  const at = (place: Place, measures: Instrument['measures']) =>
    computed(
      () => hung.value.find((one) => one.place === place && one.instrument.measures === measures) ?? null,
    );
  const barometer = at('room', 'absolutePressure');
  const thermometer = at('mould', 'temperature');

  const reach = computed(() => reachOf(job.laid, shop.shop));
  /** Of the air outside, as the barometer has it now, Pa. */
  const ambient = computed(() => barometer.value?.last?.value ?? reach.value.ambient);
  const pressureOf = ({ instrument, last: read }: Hung) =>
    read && absoluteOf(instrument, read.value, ambient.value);
  const pressure = computed(() => gauge.value && pressureOf(gauge.value));

  const computedVolume = computed(() => orMessage(() => freeVolumeOf(job.laid, shop.shop)));
  const measuredVolume = computed(() => {
    const { expansion } = run.state;
    return expansion && orMessage(() => volumeByExpansion(expansion, expansion.before, expansion.after));
  });
  const freeVolume = computed(() => measuredVolume.value?.value ?? computedVolume.value.value?.total ?? null);

  const budget = computed(() => {
    const { verdict, before } = forecast;
    const finite = (time: number | undefined) =>
      time !== undefined && Number.isFinite(time) ? time - (before?.open ?? 0) : null;
    return orMessage(() =>
      airBudgetOf(job.laid, shop.shop, {
        fillTime: finite(verdict?.fillTime),
        gelTime: finite(verdict?.gelTime ?? forecast.clock?.gelTime),
      }),
    );
  });

  const tests = computed(() => run.state.shutTimes);
  const chosenId = ref<string | null>(null);
  const test = computed(
    (): ShutTime | null => tests.value.find(({ id }) => id === chosenId.value) ?? tests.value.at(-1) ?? null,
  );
  const from = computed(() => test.value?.from ?? null);
  const to = computed(() => test.value?.to ?? null);
  const idOf = (one: Hung | null) => one?.instrument.id ?? null;
  const gaugeSamples = useSamples(
    computed(() => idOf(gauge.value)),
    from,
    to,
  );
  const outside = useSamples(
    computed(() => idOf(barometer.value)),
    from,
    to,
  );
  const warmth = useSamples(
    computed(() => idOf(thermometer.value)),
    from,
    to,
  );
  const corrected = computed(() => {
    if (!gauge.value || from.value === null) return null;
    const isRelative = gauge.value.instrument.measures === 'gaugePressure';
    return correctedReadings({ ...gaugeSamples.value, isRelative }, from.value, {
      barometer: barometer.value ? outside.value : null,
      thermometer: thermometer.value ? warmth.value : null,
      ambient: reach.value.ambient,
    });
  });

  const drop = shallowRef<DropReading | null>(null);
  const dropMessage = shallowRef<string | null>(null);
  const request = computed(() => {
    const volume = freeVolume.value;
    const air = budget.value.value;
    if (!gauge.value || !corrected.value || volume === null || !air) return null;
    const { resolution, noise } = gauge.value.instrument;
    return {
      readings: corrected.value.readings,
      gauge: { resolution, noise },
      freeVolume: volume,
      budget: air,
    };
  });
  let wanted = new AbortController();
  let judging: ReturnType<typeof setTimeout> | undefined;
  async function judge() {
    judging = undefined;
    wanted.abort();
    wanted = new AbortController();
    const asked = request.value;
    if (!asked || asked.readings.times.length < 3) return void (drop.value = null);
    try {
      drop.value = await scheduler.want(
        `drop ${hashOf(asked)}`,
        { kind: 'drop', request: asked },
        { lane: 'board', signal: wanted.signal },
      );
      dropMessage.value = null;
    } catch (error) {
      if (!(error instanceof Cancelled)) dropMessage.value = (error as Error).message;
    }
  }
  watch(test, () => (drop.value = null));
  watch(request, () => (judging ??= setTimeout(() => void judge(), JUDGE_EVERY)), { immediate: true });
  onScopeDispose(() => {
    clearTimeout(judging);
    wanted.abort();
  });

  /** The test before the one that is looked at, over the time both have. */
  const earlier = computed(() => {
    const n = tests.value.findIndex(({ id }) => id === test.value?.id);
    return n > 0 ? tests.value[n - 1]! : null;
  });
  const earlierSamples = useSamples(
    computed(() => idOf(gauge.value)),
    computed(() => earlier.value?.from ?? null),
    computed(() => earlier.value?.to ?? null),
  );
  const twoTests = computed(() => {
    if (!earlier.value || !gauge.value || !corrected.value) return null;
    const { instrument } = gauge.value;
    const isRelative = instrument.measures === 'gaugePressure';
    const first = correctedReadings({ ...earlierSamples.value, isRelative }, earlier.value.from, {
      ...{ barometer: null, thermometer: null, ambient: ambient.value },
    });
    const { resolution, noise } = instrument;
    return compareTests(first.readings, corrected.value.readings, { resolution, noise });
  });

  const mould = computed(() => moulds.find(job.laid.mould?.id)?.mould ?? null);
  const places = computed(() => orMessage(() => leakPlacesOf(job.laid, shop.shop, mould.value)));

  /** Writes down what the test that is looked at has come to. */
  async function writeVerdict(): Promise<void> {
    const reading = drop.value;
    if (!reading || !test.value || freeVolume.value === null) return;
    await run.say({
      kind: 'judged',
      shutId: test.value.id,
      verdict: reading.judgement.verdict,
      throughput: reading.throughput,
      throughputLimit: reading.throughputLimit,
      freeVolume: freeVolume.value,
      start: reading.rise.start,
      duration: reading.duration,
      voids: reading.voids.value,
    });
  }

  return {
    ...{
      hung,
      gauges,
      gauge,
      barometer,
      thermometer,
      reach,
      ambient,
      pressure,
      computedVolume,
      measuredVolume,
    },
    ...{ freeVolume, budget, tests, test, chosenId, corrected, drop, dropMessage, twoTests, mould, places },
    ...{ pressureOf, writeVerdict },
  };
}

type OpenBench = ReturnType<typeof makeBench>;
const benchKey: InjectionKey<OpenBench> = Symbol('vacuum bench');
const makeBench = () => proxyRefs(createBench());

/** Made once by the stage, for its panes. */
export function provideBench(): OpenBench {
  const bench = makeBench();
  provide(benchKey, bench);
  return bench;
}
export const useBench = (): OpenBench => inject(benchKey)!;
