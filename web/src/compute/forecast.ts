import type { FlowForecast } from '@wick/core/flow/forecast';
import { createIsochrones } from '@wick/core/flow/isochrones';
import { effectsOf, type ChangeEffect } from '@wick/core/verdict/changes';
import { clockOf, likelyTimes } from '@wick/core/verdict/verdict';
import { ModelError } from '@wick/core/model-error';
import { changesFor, helpfulOf } from '@wick/plan/advice/changes';
import {
  DRAG,
  finenessIn,
  finenessOf,
  timelineOf,
  verdictOf,
  type Resolution,
} from '@wick/plan/forecast/assess';
import { doubtOf } from '@wick/plan/forecast/doubt';
import { keyOf } from '@wick/plan/forecast/key';
import { missingOf } from '@wick/plan/forecast/missing';
import { problemOf, runsOnClock } from '@wick/plan/forecast/problem';
import { processOf } from '@wick/plan/processes/processes';
import { prelude, runConditionsOf } from '@wick/plan/resin/run';
import { computed, markRaw, onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { Desk } from './desk.ts';
import { Cancelled } from './scheduler.ts';
import type { Task } from './tasks.ts';

interface Solved {
  /** Of the problem as the job poses it. */
  readonly key: string;
  readonly flow: FlowForecast;
  readonly isFine: boolean;
}

export type Forecast = ReturnType<typeof createForecast>;

/** A task with its key: what a run of this fineness is found again by. */
export function flowTask(
  job: Parameters<typeof problemOf>[0],
  shop: Parameters<typeof problemOf>[1],
  how: Resolution,
) {
  const problem = problemOf(job, shop, how);
  const fineness = finenessIn(how);
  const task: Task & { kind: 'flow' } = { kind: 'flow', problem, fineness };
  return { key: `${keyOf(problem)} ${Object.values(fineness).join(' ')}`, task };
}

/** Forecast of the open job: a coarse one at once, a fine one when the hand rests. Resin and clock are look-ups in it. */
export function createForecast({ session, shop, library, scheduler }: Desk) {
  const solved = shallowRef<Solved | null>(null);
  const flowMessage = ref<string | null>(null);
  const progress = ref<number | null>(null);
  let fineRun = new AbortController();
  let coarseRun = new AbortController();

  const job = computed(() => session.laid);
  const missing = computed(() => missingOf(job.value));
  const front = computed(() => processOf(job.value).front);
  const problem = computed(() => {
    if (!front.value.isDrawn || missing.value.some((item) => item.stage !== 'resin')) return null;
    try {
      return { ok: true as const, key: keyOf(problemOf(job.value, shop.shop)) };
    } catch (error) {
      if (error instanceof ModelError) return { ok: false as const, message: error.message };
      throw error;
    }
  });
  const key = computed(() => (problem.value?.ok ? problem.value.key : null));

  async function solve(wanted: string, isFine: boolean) {
    const how = isFine ? finenessOf(job.value) : DRAG;
    const { key: runKey, task } = flowTask(job.value, shop.shop, how);
    const own = new AbortController();
    if (isFine) fineRun = own;
    else coarseRun = own;
    if (isFine) progress.value = 0;
    try {
      const flow = await scheduler.want(runKey, task, {
        lane: isFine ? 'board' : 'drag',
        signal: own.signal,
        onProgress: (share) => {
          if (isFine && own === fineRun) progress.value = share;
        },
      });
      take({ key: wanted, flow: markRaw(flow), isFine });
    } catch (error) {
      if (error instanceof Cancelled || wanted !== key.value) return;
      flowMessage.value = (error as Error).message;
      solved.value = null;
    } finally {
      if (isFine && own === fineRun) progress.value = null;
    }
  }

  /** While a hand drags, the forecast of a moment ago is better than none; otherwise only that of the job as it stands counts. */
  function take(next: Solved) {
    if (key.value === null) return;
    const isLate = next.key !== key.value;
    if (isLate && (next.isFine || !session.isGesturing)) return;
    if (!next.isFine && solved.value?.key === next.key && solved.value.isFine) return;
    flowMessage.value = null;
    solved.value = next;
  }

  function cancelAll() {
    fineRun.abort();
    coarseRun.abort();
    progress.value = null;
  }
  onScopeDispose(cancelAll);

  // The two runs are effects on workers, not values: this is the one place that starts them.
  let isCoarseAsked = false;
  watch(
    [key, () => session.isGesturing, () => job.value.forecast.nodeCount],
    ([wanted, isGesturing]) => {
      fineRun.abort();
      progress.value = null;
      if (wanted === null) {
        coarseRun.abort();
        solved.value = null;
        flowMessage.value = problem.value && !problem.value.ok ? problem.value.message : null;
        return;
      }
      if (solved.value?.key !== wanted) void askCoarse();
      if (!isGesturing) void solve(wanted, true);
    },
    { immediate: true },
  );

  /** One quick run at a time; what has changed meanwhile is asked when it is there. */
  async function askCoarse() {
    if (isCoarseAsked) return;
    isCoarseAsked = true;
    try {
      for (let asked: string | null = null; key.value !== null && key.value !== asked;) {
        asked = key.value;
        if (solved.value?.key !== asked) await solve(asked, false);
      }
    } finally {
      isCoarseAsked = false;
    }
  }

  const flow = computed(() => solved.value?.flow ?? null);
  /** Which face of the laminate the board shows, where layers are told apart. */
  const side = ref<'bag' | 'mould'>('mould');
  const arrival = computed(() => {
    if (!flow.value) return null;
    const { layers, arrival: through } = flow.value;
    return layers.length > 1 && side.value === 'bag' ? layers[0]!.arrival : through;
  });
  const isochrones = computed(
    () => flow.value && arrival.value && createIsochrones(flow.value.mesh, arrival.value),
  );
  const run = computed(() => runConditionsOf(job.value, shop.shop));
  const resin = computed(() => {
    if (!run.value) return null;
    try {
      return { ok: true as const, clock: clockOf(run.value) };
    } catch (error) {
      if (error instanceof ModelError) return { ok: false as const, message: error.message };
      throw error;
    }
  });
  const clock = computed(() => (resin.value?.ok ? resin.value.clock : null));
  const verdict = computed(() =>
    flow.value && clock.value ? verdictOf(job.value, shop.shop, flow.value) : null,
  );
  const before = computed(() => prelude(job.value));
  const message = computed(
    () =>
      (front.value.isDrawn ? null : front.value.reason) ??
      missing.value[0]?.message ??
      flowMessage.value ??
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

  let lastEffects: readonly ChangeEffect[] = [];
  /** What would change it most; while a hand drags, what would have before: it is read when the hand rests. */
  const effects = computed(() => {
    if (session.isGesturing) return lastEffects;
    const isKnown = flow.value?.isFilled && run.value && clock.value && !runsOnClock(job.value);
    lastEffects = isKnown
      ? helpfulOf(effectsOf(flow.value!, run.value!, changesFor(job.value, shop.shop, library.materials)))
      : [];
    return lastEffects;
  });
  const nameOf = (lineId: string) => job.value.lines.find(({ id }) => id === lineId)?.name ?? 'a line';

  return {
    solved,
    flow,
    isochrones,
    run,
    clock,
    verdict,
    before,
    missing,
    message,
    progress,
    effects,
    timeOf,
    runTimeAt,
    timeline,
    side,
    arrival,
    isUpToDate,
    likelyAt,
    ageAt,
    nameOf,
    cancel: () => fineRun.abort(),
  };
}
