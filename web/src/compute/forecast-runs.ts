import type { FlowForecast } from '@wick/core/flow/forecast';
import { DRAG, finenessIn, finenessOf, type Resolution } from '@wick/plan/forecast/assess';
import { keyOf } from '@wick/plan/forecast/key';
import { problemOf, runsInLayers } from '@wick/plan/forecast/problem';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed, markRaw, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import type { Desk } from './desk.ts';
import { Cancelled } from './scheduler.ts';
import type { Task } from './tasks.ts';

/** The problem that the open job poses: its key, or why there is none; null where there is no front. */
export type Posed =
  { readonly ok: true; readonly key: string } | { readonly ok: false; readonly message: string } | null;

interface Solved {
  /** Of the problem as the job poses it. */
  readonly key: string;
  readonly flow: FlowForecast;
  readonly isFine: boolean;
}

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

/** Runs of the open job on workers: a quick one at once, a fine one when the hand rests. */
export function createForecastRuns(
  { session, shop, scheduler }: Desk,
  job: Ref<LaidJob>,
  problem: Ref<Posed>,
) {
  const solved = shallowRef<Solved | null>(null);
  /** The same job averaged through its thickness, where the fine run tells layers apart. */
  const averaged = shallowRef<Solved | null>(null);
  const message = ref<string | null>(null);
  const progress = ref<number | null>(null);
  const key = computed(() => (problem.value?.ok ? problem.value.key : null));
  let fineRun = new AbortController();
  let coarseRun = new AbortController();

  /** Averaged first, which is quick, then in layers. */
  async function refine(wanted: string) {
    const how = finenessOf(job.value);
    if (!runsInLayers(job.value)) return solve(wanted, true, how);
    const flat = await solve(wanted, true, { ...how, layers: false }, false);
    if (!flat || wanted !== key.value || session.isGesturing) return;
    averaged.value = flat;
    await solve(wanted, true, how);
  }

  async function solve(wanted: string, isFine: boolean, how: Resolution, isLast = isFine) {
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
      const found: Solved = { key: wanted, flow: markRaw(flow), isFine: isLast };
      take(found);
      return found;
    } catch (error) {
      if (error instanceof Cancelled || wanted !== key.value) return;
      message.value = (error as Error).message;
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
    message.value = null;
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
        message.value = problem.value && !problem.value.ok ? problem.value.message : null;
        return;
      }
      if (solved.value?.key !== wanted) void askCoarse();
      if (!isGesturing) void refine(wanted);
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
        if (solved.value?.key !== asked) await solve(asked, false, DRAG);
      }
    } finally {
      isCoarseAsked = false;
    }
  }

  return { solved, averaged, message, progress, key, cancel: () => fineRun.abort() };
}
