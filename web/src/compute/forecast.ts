import type { FlowForecast } from '@wick/core/flow/forecast';
import { createIsochrones } from '@wick/core/flow/isochrones';
import { effectsOf, type ChangeEffect } from '@wick/core/verdict/changes';
import type { Band } from '@wick/core/verdict/rule';
import { clockOf, likelyTimes, withSampledChance } from '@wick/core/verdict/verdict';
import type { EnsembleSummary } from '@wick/core/verdict/ensemble';
import { ModelError } from '@wick/core/model-error';
import { changesFor, helpfulOf } from '@wick/plan/advice/changes';
import { timelineOf, verdictOf } from '@wick/plan/forecast/assess';
import { doubtOf } from '@wick/plan/forecast/doubt';
import { keyOf } from '@wick/plan/forecast/key';
import { missingOf } from '@wick/plan/forecast/missing';
import { problemOf, runsOnClock } from '@wick/plan/forecast/problem';
import { processOf } from '@wick/plan/processes/processes';
import { prelude, runConditionsOf } from '@wick/plan/resin/run';
import { computed, ref, type Ref } from 'vue';
import { atRest } from './at-rest.ts';
import type { Desk } from './desk.ts';
import { createForecastRuns, type Posed } from './forecast-runs.ts';

export type Forecast = ReturnType<typeof createForecast>;

/** What the models give, or the sentence with which they refuse. */
function orRefusal<T extends object>(work: () => T) {
  try {
    return { ok: true as const, ...work() };
  } catch (error) {
    if (error instanceof ModelError) return { ok: false as const, message: error.message };
    throw error;
  }
}

/** The face of the laminate that the board shows, where layers are told apart, and the front on it. */
function createFace(flow: Ref<FlowForecast | null>) {
  const side = ref<'bag' | 'mould'>('mould');
  const arrival = computed(() => {
    if (!flow.value) return null;
    const { layers, arrival: through } = flow.value;
    return layers.length > 1 && side.value === 'bag' ? layers[0]!.arrival : through;
  });
  const isochrones = computed(
    () => flow.value && arrival.value && createIsochrones(flow.value.mesh, arrival.value),
  );
  return { side, arrival, isochrones };
}

/** Forecast of the open job: a coarse one at once, a fine one when the hand rests. Resin and clock are look-ups in it. */
export function createForecast(desk: Desk, sampled: Ref<EnsembleSummary | null>) {
  const { session, shop, library } = desk;
  const job = computed(() => session.laid);
  const missing = computed(() => missingOf(job.value));
  const front = computed(() => processOf(job.value).front);
  const problem = computed((): Posed =>
    !front.value.isDrawn || missing.value.some((item) => item.stage !== 'resin')
      ? null
      : orRefusal(() => ({ key: keyOf(problemOf(job.value, shop.shop)) })),
  );
  const runs = createForecastRuns(desk, job, problem);
  const { solved, averaged, key, progress } = runs;

  const flow = computed(() => solved.value?.flow ?? null);
  const face = createFace(flow);
  const run = computed(() => runConditionsOf(job.value, shop.shop));
  const resin = computed(() => run.value && orRefusal(() => ({ clock: clockOf(run.value!) })));
  const clock = computed(() => (resin.value?.ok ? resin.value.clock : null));
  const verdict = computed(() => {
    const looked = flow.value && clock.value ? verdictOf(job.value, shop.shop, flow.value) : null;
    return looked && sampled.value ? withSampledChance(looked, sampled.value, shop.shop.judging) : looked;
  });
  /** Band that the same job has averaged through its thickness, where the lag of the mould side makes another of it. */
  const bandWithoutLag = computed((): Band | null => {
    const flat = averaged.value;
    if (!verdict.value || !solved.value?.isFine || flat?.key !== solved.value.key || flat === solved.value)
      return null;
    const plain = verdictOf(job.value, shop.shop, flat.flow)!.band;
    return plain === verdict.value.band ? null : plain;
  });
  /** What moves the margin most: by the sampled runs where there are any, else as looked up. */
  const leastSure = computed(
    () => sampled.value?.drivers[0]?.input ?? verdict.value?.drivers[0]?.input ?? null,
  );
  const before = computed(() => prelude(job.value));
  const message = computed(
    () =>
      (front.value.isDrawn ? null : front.value.reason) ??
      missing.value[0]?.message ??
      runs.message.value ??
      (resin.value && !resin.value.ok ? resin.value.message : null),
  );

  const timeline = computed(() =>
    flow.value && clock.value ? timelineOf(flow.value, clock.value, run.value!.openTime) : null,
  );
  /** Seconds since first mix of a run time; Infinity past gel. */
  const timeOf = (time: number) => timeline.value?.clockTime(time) ?? NaN;
  const runTimeAt = (clockTime: number) => timeline.value?.runTime(clockTime) ?? NaN;

  /** The flow shown is of the job as it stands. */
  const isUpToDate = computed(() => solved.value !== null && solved.value.key === key.value);
  /** Share of its life that the first batch has used at a run time. */
  const ageAt = computed(() => {
    const resinClock = clock.value;
    return resinClock && ((time: number) => resinClock.ageAt(Math.min(timeOf(time), resinClock.gelTime)));
  });
  /** Between which times, s from first mix, the front likely comes to a place that it comes to at a run time. */
  function likelyAt(runTime: number) {
    if (!run.value || Number.isNaN(runTime) || flow.value?.timeUnit !== 'fluidity') return null;
    return likelyTimes(runTime, run.value, doubtOf(job.value));
  }

  /** What would change it most; it is read when the hand rests. */
  const effects = atRest(
    () => session.isGesturing,
    () => {
      const isKnown = flow.value?.isFilled && run.value && clock.value && !runsOnClock(job.value);
      if (!isKnown) return [];
      const changes = changesFor(job.value, shop.shop, library.materials);
      return helpfulOf(effectsOf(flow.value!, run.value!, changes));
    },
    [] as readonly ChangeEffect[],
  );
  const nameOf = (lineId: string) => job.value.lines.find(({ id }) => id === lineId)?.name ?? 'a line';

  return {
    solved,
    flow,
    run,
    clock,
    verdict,
    bandWithoutLag,
    leastSure,
    before,
    missing,
    message,
    progress,
    effects,
    timeOf,
    runTimeAt,
    timeline,
    ...face,
    isUpToDate,
    likelyAt,
    ageAt,
    nameOf,
    cancel: runs.cancel,
  };
}
